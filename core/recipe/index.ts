export { familyOf, type FamilyGuess, guessFamily } from './family';
export { joinedIn, tooMuch } from './bounds';
export { build, type Build, type Step } from './build';
export { MOVE_EXAMPLES, type MoveExample } from './examples';
export { type Move, type MoveContext, type Outcome } from './moves/move';
export { effectOf } from './effect';
export { inEveryRepeat } from './every-repeat';
export {
  asEdit,
  clipOf,
  cursorStops,
  displaceEdits,
  freshId,
  inRange,
  levelEdits,
  limbEdits,
  ornamentEdits,
  pasteEdits,
  restEdits,
  voiceEdits,
  withTyped,
  writeEdits,
  type Clip,
} from './hand';
export { withEdits } from './matters';
export { followParent } from './taken-out';
export { isReorchestrated } from './orchestrated';
export { isSame, recipeOf } from './written-out';
export { fitSlots, LINEAR_WAYS, type Edit, type LinearWay } from './moves';
export { offerOf, type Offer } from './offer';
export { remediesFor } from './remedies';
export { exampleRecipe, movesPage } from './moves-page';
export {
  FAMILIES,
  GOAL_DAYS,
  NAME_LETTERS,
  PhraseSchema,
  TAGS,
  type Family,
  type GoalDay,
  type Phrase,
} from './phrase';
export { KEPT_STEPS, MOST_JOINS, MOST_MOVES, PlainRecipeSchema, type PlainRecipe } from './plain';
export { RecipeSchema, type Recipe } from './recipe';
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
export { suggestName } from './suggest-name';
export { feelOf, linesTyped, SourceSchema, type Source } from './source';
