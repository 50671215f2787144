export {
  type Asked,
  asking,
  type Cell,
  COMPOSE_LIMITS,
  type Contradiction,
  contradictions,
  isPiece,
  type Landing,
  type Slot,
  type SlotWish,
  type Way,
  WAYS,
  type Wish,
  WISHES,
  wishWords,
} from './asked';
export {
  cellOf,
  cellOfPattern,
  different,
  freeCells,
  LINEAR_STYLES,
  LINEAR_WORDS,
  linearCells,
  type LinearStyle,
  mirroredCell,
  rudimentCells,
} from './cells';
export { type Answer, type Around, compose, type Composed, differs, type Known, slotWords } from './compose';
export { type Relaxation, relaxations } from './relax';
export { COSTS } from './search';
export {
  type Beside,
  type Block,
  BLOCKS,
  type Demanded,
  demanded,
  type Demands,
  DENSITIES,
  type Density,
  hitsOf,
  type Keep,
  KEEPS,
  type Lands,
  meterOf,
  mostBars,
  slotsAsked,
  slotsIn,
  startOf,
  typedCells,
  USUAL_DEMANDS,
} from './demands';
export { type AskingRead, readAsking } from './said';
export { withWishes } from './said-clause';
export { WAY_WORDS, wayMoves } from './ways';
