// The one place where workers are made: their addresses are resolved by the bundler, which a test runner has not.

/** A timer that goes on in a tab behind another one. */
export function spawnTicker(): Worker {
  return new Worker(new URL('./ticker.worker', import.meta.url), { type: 'module', name: 'ticker' });
}

export function spawnShelfFile(): Worker {
  return new Worker(new URL('./shelf-file.worker', import.meta.url), { type: 'module', name: 'shelf-file' });
}

export function spawnVariants(): Worker {
  return new Worker(new URL('./variants.worker', import.meta.url), { type: 'module', name: 'variants' });
}

export function spawnSticking(): Worker {
  return new Worker(new URL('./sticking.worker', import.meta.url), { type: 'module', name: 'sticking' });
}
