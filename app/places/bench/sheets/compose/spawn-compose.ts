/** What looks for phrases that are as asked for, in a worker of its own. */
export function spawnCompose(): Worker {
  return new Worker(new URL('./compose.worker', import.meta.url), { type: 'module', name: 'compose' });
}
