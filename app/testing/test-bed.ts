import { TestBed } from '@angular/core/testing';
import { MessageService } from 'primeng/api';
import { STILLNESS } from '../common/stilled';

/** A fresh injector in which what follows from an edit is there at once; that it waits is a test of its own. */
export function freshTestBed(): void {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [MessageService, { provide: STILLNESS, useValue: 0 }] });
}
