export {
  afterTry,
  beforeAnyTry,
  type Belief,
  chanceAt,
  chanceWords,
  readyTempo,
  SURE,
  tempoAt,
  USUAL_SHARE,
  worthTrying,
} from './belief';
export { practised, type PractisedDay, wholesOf } from './days';
export { evidenceOf } from './evidence';
export { type DatedTry, type Known, learnt, onDay, unknownYet } from './history';
export { gradeOf, newMemory, recall, remembered, type DayGrade, type Memory } from './memory';
export { type PaceDay } from './growth';
export { afterMinutes, chanceReady, type Pace, paceOf, projected, type Projection, recovered } from './pace';
export { earlyWords, readySaid, type ReadySaid, type WholeTry } from './ready';
export { knownUnder, shareOf, shareWithout } from './share';
