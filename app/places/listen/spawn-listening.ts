import type { Remote } from 'comlink';
import { remoteOf } from '../../environment/workers';
import type { ListeningEngine } from './listening.engine';

/** What listens to a recording, in a worker of its own; ending it breaks off whatever it does. */
export function spawnListening(): { readonly api: Remote<ListeningEngine>; readonly end: () => void } {
  const worker = new Worker(new URL('./listening.worker', import.meta.url), { type: 'module', name: 'listening' });
  return { api: remoteOf<ListeningEngine>(worker), end: () => worker.terminate() };
}
