export {
  type Asked,
  asking,
  type Cell,
  COMPOSE_LIMITS,
  type Contradiction,
  contradictions,
  type Landing,
  type Slot,
  type SlotWish,
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
