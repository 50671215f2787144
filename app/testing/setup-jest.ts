import 'fake-indexeddb/auto';
import { Blob as NodeBlob } from 'node:buffer';
import { TextDecoder as NodeTextDecoder } from 'node:util';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';
import { freshTestBed } from './test-bed';

setupZonelessTestEnv({ errorOnUnknownElements: true, errorOnUnknownProperties: true });

// jsdom lacks a few things PrimeNG or Dexie reach for.
if (typeof globalThis.structuredClone !== 'function') {
  globalThis.structuredClone = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T;
}
const g = globalThis as { ResizeObserver?: unknown; matchMedia?: unknown; Worker?: unknown };
// A worker that is started and never asked; a test that asks one brings its own.
g.Worker ??= class extends EventTarget {
  postMessage(): void {
    /* nobody there */
  }
  terminate(): void {
    /* nobody there */
  }
};
g.ResizeObserver ??= class {
  observe(): void {
    /* none */
  }
  unobserve(): void {
    /* none */
  }
  disconnect(): void {
    /* none */
  }
};
g.matchMedia ??= (query: string) => ({
  matches: false,
  media: query,
  onchange: null,
  addListener: () => undefined,
  removeListener: () => undefined,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
  dispatchEvent: () => false,
});
// jsdom's own cannot be read piece by piece.
Object.assign(globalThis, { Blob: NodeBlob, TextDecoder: NodeTextDecoder });
// Nothing is laid out in jsdom, so nothing can be scrolled to.
Element.prototype.scrollIntoView = () => undefined;
Element.prototype.scrollTo = () => undefined;

beforeEach(freshTestBed);
