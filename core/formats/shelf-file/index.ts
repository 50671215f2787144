export { readShelf, ShelfLines, tooLarge, WHOLE_MOST, type ShelfCode, type ShelfRead } from './read';
export { RULES, type Rule, type RuleName, type RuleProblem } from './rules';
export {
  OWN_SOURCES,
  SHELF_VERSION,
  type Backup,
  type Draft,
  type OwnSource,
  type RoomHabits,
  type Settings,
  type TabDraft,
  type Unkept,
} from './schema';
export { FILE_LISTS, shelfLines, shiftedShelf, writeShelf, type FileList } from './write';
