import { TestBed } from '@angular/core/testing';
import { SETTLE } from '../ui/settled';

/** A fresh injector in which what follows from an edit is there at once; that it waits is a test of its own. */
export function freshTestBed(): void {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [{ provide: SETTLE, useValue: 0 }] });
}
