import { proxy, wrap } from 'comlink';
import type { FilesApi } from '../data/files/files-api';
import type { IndexApi } from '../data/index/index-api';
import type { Tell } from '../data/index/index-engine';

// The one place where workers are made: their addresses are resolved by the bundler, which a test runner has not.

/** A timer that goes on in a tab behind another one. */
export function spawnTicker(): Worker {
  return new Worker(new URL('./ticker.worker', import.meta.url), { type: 'module', name: 'ticker' });
}

/** The index of a shelf in a worker of its own. */
export function spawnIndex(name: string, tell: Tell): IndexApi {
  const worker = new Worker(new URL('./shelf-index.worker', import.meta.url), { type: 'module', name: 'shelf-index' });
  const remote = wrap<IndexApi & { open: (name: string, tell: Tell) => Promise<void> }>(worker);
  void remote.open(name, proxy(tell));
  return remote;
}

/** The shelf's files in a worker of its own; ending it takes back what it has begun. */
export function spawnFiles(name: string): { readonly api: FilesApi; readonly end: () => void } {
  const worker = new Worker(new URL('./files.worker', import.meta.url), { type: 'module', name: 'files' });
  const remote = wrap<FilesApi & { open: (name: string) => Promise<void> }>(worker);
  void remote.open(name);
  return { api: remote, end: () => worker.terminate() };
}

export function spawnVariants(): Worker {
  return new Worker(new URL('./variants.worker', import.meta.url), { type: 'module', name: 'variants' });
}

export function spawnSticking(): Worker {
  return new Worker(new URL('./sticking.worker', import.meta.url), { type: 'module', name: 'sticking' });
}
