export * from './hit';
export { chanceOf, type Chance } from './random';
export * from './simulate';
export * from './align';
export * from './dots';
export * from './expect';
export * from './latency';
export * from './reading';
export * from './verdict';
