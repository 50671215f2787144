export type {
  Block,
  BlockKind,
  LeftOut,
  NamedFix,
  PlanOrder,
  PlanPhrase,
  PlanPlace,
  TodayAsked,
  TodayPlan,
} from './block';
export { dateWords, dayName, dayWords, weekday } from './day-words';
export { type PlanDays, PlanDaysSchema, type RunningBlock, type Today, TodaySchema } from './kept';
export { chosen, type Choosable, type Chosen, type Length } from './knapsack';
export { isEasy, mostStrokes } from './load';
export { namedFix } from './named-fix';
export { BREAK_AFTER, BREAK_MINUTES, playingMinutes } from './order';
export { DAY_MINUTES, planToday } from './today';
