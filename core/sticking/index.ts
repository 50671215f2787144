export {
  choicesOf,
  costOf,
  Needs,
  START,
  step,
  total,
  type CostParts,
  type HandState,
  type Terms,
  type StickingFacts,
} from './cost';
export { leanings, type Leaning } from './leanings';
export { rhythmOf, type HandEvent, type Pins, type Rhythm, type Unplayable } from './rhythm';
export { SCHOOL_WORDS, STICKING_SCHOOLS, type StickingSchool } from './schools';
export { bestWays, type Way } from './solve';
export {
  withLimbs,
  sameAs,
  type Sticking,
  stickingEdits,
  stickings,
  type Stickings,
  stickingText,
  type StickingWish,
} from './stick';
