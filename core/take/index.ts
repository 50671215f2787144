export type { Hit } from './hit';
export { chanceOf, type Chance } from './random';
export { perform, type Player, steadyStream, USUAL_PLAYER } from './simulate';
export { align } from './align';
export { type Dot, dotsOf } from './dots';
export { type Replay, replayOf } from './replay';
export { HitSchema, type KeptTake, TakeSchema } from './kept';
export { CALIBRATION_BEATS, type Latency, latencyMoved, latencyOf } from './latency';
export { type TakeReading, readTake } from './reading';
export { readAgain } from './re-read';
export { decibels } from './findings';
export { uncountedHits, firstFix, type Fix, measuredOf, tryVerdict, verdictOf } from './verdict';
export {
  type Finding,
  findingsOf,
  LIMITS,
  spreadLimit,
  type Strictness,
  STRICTNESS,
  type TakeVerdict,
} from './findings';
export { BY_THE_MINUTE, FIX_NAMES, findingWords } from './finding-words';
export { lateWords, timingWords } from './late-words';
export type { Fault } from './faults';
export { normalQuantile, studentQuantile } from './quantile';
