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
  type Told,
} from './cost';
export { leanings, type Leaning } from './leanings';
export { rhythmOf, type HandEvent, type Pins, type Rhythm, type Unplayable } from './rhythm';
export * from './schools';
export { bestWays, type Way } from './solve';
export * from './stick';
