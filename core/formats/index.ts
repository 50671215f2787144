export * from './csv';
export * from './shelf-file';
export * from './midi';
export * from './shared';
export * from './song';
export * from './musicxml';
export * from './wav';
