import type { Provider } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { MessageService } from 'primeng/api';
import { Transport } from '../sound/transport.service';
import { Database } from '../storage/database';
import { HealthService } from '../storage/health.service';
import { awaitWritesOf, clearShelf, writesLanded } from './shelf';
import { SilentTransport } from './silence';
import { freshTestBed } from './test-bed';

/** What a place needs in a test: an empty shelf, a silent transport, a router that goes nowhere. */
export async function emptyPlace(providers: Provider[] = []) {
  freshTestBed();
  await writesLanded();
  localStorage.clear();
  const transport = new SilentTransport();
  TestBed.configureTestingModule({
    providers: [provideRouter([]), MessageService, { provide: Transport, useValue: transport }, ...providers],
  });
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await clearShelf(db);
  awaitWritesOf(TestBed.inject(HealthService));
  const router = TestBed.inject(Router);
  const went: string[] = [];
  jest.spyOn(router, 'navigate').mockImplementation((commands, extras) => {
    went.push([...(commands as string[]), JSON.stringify(extras?.queryParams ?? '')].join(' '));
    return Promise.resolve(true);
  });
  return { db, transport, went, messages: TestBed.inject(MessageService) };
}

/** A key pressed on the page, or on an element of it. */
export function key(name: string, target: EventTarget = document.body, more: KeyboardEventInit = {}): void {
  target.dispatchEvent(
    new KeyboardEvent('keydown', {
      key: name,
      code: name === ' ' ? 'Space' : name,
      bubbles: true,
      cancelable: true,
      ...more,
    }),
  );
}
