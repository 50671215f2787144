export { type Above, aboveCeiling } from './above';
export { modernAttempt, modernDrill, modernTake, modernTries } from './earlier';
export { fitsEveryBeat, landingOf } from './context';
export {
  FIX_KINDS,
  type FixKind,
  fixKindOf,
  FindingSchema,
  type KeptFinding,
  type NamedStroke,
  type CountedPlace,
  remedyFor,
} from './finding';
export { stageTitle, stageWhy } from './stage-words';
export { type Growth, growthStages } from './growth';
export { loopsOfRung } from './hold';
export {
  fixedLadder,
  ladder,
  LADDER_SCHOOLS,
  LADDER_WORDS,
  type LadderSchool,
  MOST_RUNGS,
  offeredLadders,
  readRungs,
  suggestLadder,
} from './ladder';
export {
  type DrillEvent,
  drillPass,
  drillPasses,
  drillStage,
  drillStep,
  drillTempo,
  isFree,
  isRunning,
  isStuck,
  lastWords,
  warningWords,
  newDrill,
  PASSES,
  resumed,
  rowAfter,
  stageRungs,
  stagesOver,
  type TryFacts,
} from './machine';
export { askedPart } from './parts';
export { type Best, bestOf, fastestClean, NO_BEST, withTry } from './record';
export {
  type Attempt,
  AttemptSchema,
  type DrillPlan,
  DrillPlanSchema,
  type DrillState,
  DrillStateSchema,
  type Measured,
  MeasuredSchema,
} from './state';
export {
  markOf,
  type NewStage,
  type Stage,
  type StageMark,
  STAGE_KINDS,
  type StageKind,
  StageMarkSchema,
  StageSchema,
} from './stage';
export {
  contextStage,
  proposeStages,
  simpleStage,
  type SimpleStage,
  stagePattern,
  tickInPhrase,
  tightStage,
  stagesBefore,
} from './stages';
export { timeFeel, timeOf } from './time-feel';
export { pagesOf, TRIES_A_PAGE, type TriesPage } from './pages';
export { TriesPageSchema } from './tries';
export { isEvidence, PLAYED_MARKS, playedBy, type PlayedBy } from './played';
export { SHOWN_FOR, shownTempo, type ShownTempo } from './shown';
export { promptFor } from './free';
export { ofPhrase, ofWhole } from './of-whole';
