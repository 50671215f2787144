/** What finds stickings, in a worker of its own. */
export function spawnSticking(): Worker {
  return new Worker(new URL('./sticking.worker', import.meta.url), { type: 'module', name: 'sticking' });
}
