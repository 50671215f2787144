export * from './block';
export * from './day-words';
export * from './kept';
export { chosen, type Choosable, type Chosen, type Length } from './knapsack';
export { isEasy, mostStrokes } from './load';
export { namedFix } from './named-fix';
export { BREAK_AFTER, BREAK_MINUTES, playingMinutes } from './order';
export { DAY_MINUTES, planToday } from './today';
