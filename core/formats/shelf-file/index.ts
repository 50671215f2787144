export {
  validateAttempt,
  validateDraft,
  validateDrillState,
  validateKits,
  validatePhrase,
  validateProfile,
  validateSettings,
  validateShelfFile,
  validateTake,
} from './generated/validators';
export { readShelf, tooLarge, type ShelfCode } from './read';
export { KEPT_STEPS, SHELF_LIMITS, SHELF_VERSION, type Draft, type Settings, type ShelfFile } from './schema';
export { shiftedShelf, writeShelf, type ShelfContents } from './write';
