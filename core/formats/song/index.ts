export * from './song';
export * from './dressed';
export * from './bars';
export * from './take';
