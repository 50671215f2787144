export * from './song';
export * from './dressed';
export * from './bars';
export * from './countable';
export * from './take';
export * from './heard';
