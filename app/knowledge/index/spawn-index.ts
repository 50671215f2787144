import { proxy } from 'comlink';
import { remoteOf } from '../../environment/workers';
import type { IndexApi } from './index-api';
import type { Tell } from './index-engine';

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
