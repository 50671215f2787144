export { answer, readQuestion } from './ask';
export type { AskContext, Asked } from './asked';
export { type Board, BOARD_LIMITS, BoardSchema, keptBoards } from './board';
export { EMPTY_SHELF, SHELF_LIMITS, type ShelfContents } from './contents';
export { type Facts, FACTS_VERSION, factsKey, factsOf } from './facts';
export { type Kin, type KinNode, kinOf } from './kin';
export {
  merged,
  mergeGroups,
  type MergeKind,
  type MergeLine,
  mergeReport,
  type MergeReport,
  triesToTake,
} from './merge';
export { fieldChanges, mergedNamed, type Named, NamedSchema, patched } from './named';
export { isOff, MOST_REMOVALS, type Removal, RemovalSchema, REMOVED_FOR } from './removal';
export { nextName } from './series';
export { type KeptState, keptStates, KeptStateSchema, MOST_STATES, stateOf } from './state';
