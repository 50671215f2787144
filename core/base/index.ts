export * from './numbers';
export * from './problem';
export * from './words';
export * from './history';
