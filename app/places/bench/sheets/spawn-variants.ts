/** What makes a sheet of variants, in a worker of its own. */
export function spawnVariants(): Worker {
  return new Worker(new URL('./variants.worker', import.meta.url), { type: 'module', name: 'variants' });
}
