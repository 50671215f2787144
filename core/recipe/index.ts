export { build, type Build, type Step } from './build';
export { type Move, type MoveContext, type Outcome } from './move';
export { FAMILIES, NAME_LETTERS, PhraseSchema, type Family, type Phrase } from './phrase';
export { feelOf, MOST_MOVES, RecipeSchema, SourceSchema, type Recipe, type Source } from './recipe';
export {
  applyMove,
  describeMove,
  MOVE_NAMES,
  MoveEntrySchema,
  MOVES,
  newMove,
  type MoveEntry,
  type MoveName,
  type MoveParams,
} from './registry';
