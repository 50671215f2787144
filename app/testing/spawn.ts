// Stands in for app/workers/spawn.ts in unit tests: whatever the test has put in the place of Worker.
export const spawnTicker = (): Worker => new Worker('ticker');
export const spawnShelfFile = (): Worker => new Worker('shelf-file');
export const spawnVariants = (): Worker => new Worker('variants');
export const spawnSticking = (): Worker => new Worker('sticking');
