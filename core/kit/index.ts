export * from './check';
export * from './kit';
export * from './kits';
export * from './piece';
export * from './presets';
export * from './revoice';
