import { remoteOf } from '../../environment/workers';
import type { FilesApi } from './files-api';

/** The shelf's files in a worker of its own; ending it takes back what it has begun. */
export function spawnFiles(name: string): { readonly api: FilesApi; readonly end: () => void } {
  const worker = new Worker(new URL('./files.worker', import.meta.url), { type: 'module', name: 'files' });
  const remote = remoteOf<FilesApi & { open: (name: string) => Promise<void> }>(worker);
  remote.open(name).catch(() => undefined);
  return { api: remote, end: () => worker.terminate() };
}
