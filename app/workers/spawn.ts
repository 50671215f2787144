import { proxy, type Remote } from 'comlink';
import type { BackingEngine } from '../audio/backing.engine';
import type { FilesApi } from '../data/files/files-api';
import type { ExchangeEngine } from '../exchange/exchange.engine';
import type { ListeningEngine } from '../listen/listening.engine';
import type { IndexApi } from '../data/index/index-api';
import type { Tell } from '../data/index/index-engine';
import { remoteOf } from './unfetched';

// The one place where workers are made: their addresses are resolved by the bundler, which a test runner has not.

/** A timer that goes on in a tab behind another one. */
export function spawnTicker(): Worker {
  return new Worker(new URL('./ticker.worker', import.meta.url), { type: 'module', name: 'ticker' });
}

type RemoteIndex = IndexApi & { open(name: string): Promise<void>; listen(tell: Tell): Promise<void> };

let begun: { readonly name: string; readonly remote: RemoteIndex } | null = null;

/** Lets the index of a shelf read what it needs while the page is still being made; `spawnIndex` takes it over. */
export function beginIndex(name: string): void {
  begun = { name, remote: openIndex(name) };
}

/** The index of a shelf in a worker of its own. */
export function spawnIndex(name: string, tell: Tell): IndexApi {
  const remote = begun?.name === name ? begun.remote : openIndex(name);
  begun = null;
  remote.listen(proxy(tell)).catch(() => undefined);
  return remote;
}

function openIndex(name: string): RemoteIndex {
  const worker = new Worker(new URL('./shelf-index.worker', import.meta.url), { type: 'module', name: 'shelf-index' });
  const remote = remoteOf<RemoteIndex>(worker) as unknown as RemoteIndex;
  // Whoever asks hears that it could not be fetched.
  remote.open(name).catch(() => undefined);
  return remote;
}

/** The shelf's files in a worker of its own; ending it takes back what it has begun. */
export function spawnFiles(name: string): { readonly api: FilesApi; readonly end: () => void } {
  const worker = new Worker(new URL('./files.worker', import.meta.url), { type: 'module', name: 'files' });
  const remote = remoteOf<FilesApi & { open: (name: string) => Promise<void> }>(worker);
  remote.open(name).catch(() => undefined);
  return { api: remote, end: () => worker.terminate() };
}

export function spawnVariants(): Worker {
  return new Worker(new URL('./variants.worker', import.meta.url), { type: 'module', name: 'variants' });
}

export function spawnSticking(): Worker {
  return new Worker(new URL('./sticking.worker', import.meta.url), { type: 'module', name: 'sticking' });
}

/** What reads and writes the files of other programs, in a worker of its own. */
export function spawnExchange(): { readonly api: Remote<ExchangeEngine>; readonly end: () => void } {
  const worker = new Worker(new URL('./exchange.worker', import.meta.url), { type: 'module', name: 'exchange' });
  return { api: remoteOf<ExchangeEngine>(worker), end: () => worker.terminate() };
}

/** What listens to a recording, in a worker of its own; ending it breaks off whatever it does. */
export function spawnListening(): { readonly api: Remote<ListeningEngine>; readonly end: () => void } {
  const worker = new Worker(new URL('./listening.worker', import.meta.url), { type: 'module', name: 'listening' });
  return { api: remoteOf<ListeningEngine>(worker), end: () => worker.terminate() };
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
