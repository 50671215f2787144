export * from './block';
export * from './day-words';
export { chosen, type Choosable, type Chosen, type Length } from './knapsack';
export { mostStrokes } from './load';
export { BREAK_AFTER, BREAK_MINUTES, playingMinutes } from './order';
export { DAY_MINUTES, planToday } from './today';
export { percentWords } from './words';
