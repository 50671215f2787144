export {
  validateAttempt,
  validateDraft,
  validateDrillState,
  validatePhrase,
  validateSettings,
  validateShelfFile,
} from './generated/validators';
export { readShelf, tooLarge, type ShelfCode } from './read';
export { SHELF_LIMITS, SHELF_VERSION, type Draft, type Settings, type ShelfFile } from './schema';
export { shiftedShelf, writeShelf, type ShelfContents } from './write';
