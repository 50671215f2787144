export * from './numbers';
export * from './problem';
export * from './words';
export * from './history';
export * from './bounds';
export * from './stable';
