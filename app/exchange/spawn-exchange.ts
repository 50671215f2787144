import type { Remote } from 'comlink';
import { remoteOf } from '../environment/workers';
import type { ExchangeEngine } from './exchange.engine';

/** What reads and writes the files of other programs, in a worker of its own. */
export function spawnExchange(): { readonly api: Remote<ExchangeEngine>; readonly end: () => void } {
  const worker = new Worker(new URL('./exchange.worker', import.meta.url), { type: 'module', name: 'exchange' });
  return { api: remoteOf<ExchangeEngine>(worker), end: () => worker.terminate() };
}
