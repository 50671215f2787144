import type { Remote } from 'comlink';
import { remoteOf } from '../environment/workers';
import type { BackingEngine } from './backing.engine';

/** A timer that goes on in a tab behind another one. */
export function spawnTicker(): Worker {
  return new Worker(new URL('./ticker.worker', import.meta.url), { type: 'module', name: 'ticker' });
}

/** What makes the bars of a record even, in a worker of its own; `broken` fails when it can answer nothing more. */
export function spawnBacking(): {
  readonly api: Remote<BackingEngine>;
  readonly broken: Promise<never>;
  readonly end: () => void;
} {
  const worker = new Worker(new URL('./backing.worker', import.meta.url), { type: 'module', name: 'backing' });
  const broken = new Promise<never>((_, fail) => (worker.onerror = (event) => fail(new Error(event.message))));
  // Whoever waits for an answer hears of it.
  broken.catch(() => undefined);
  return { api: remoteOf<BackingEngine>(worker), broken, end: () => worker.terminate() };
}
