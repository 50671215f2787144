export * from './ladder';
export * from './machine';
export * from './record';
export * from './state';
