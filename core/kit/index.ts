export { checkKit } from './check';
export {
  FEET,
  type Foot,
  handVoicesOn,
  hasLimb,
  isPad,
  type Kit,
  KitSchema,
  mirroredKit,
  ownNames,
  pieceFor,
  saidOn,
  voiceNameOn,
} from './kit';
export { currentKit, type Kits, KitsSchema, USUAL_KITS } from './kits';
export { KIND_VOICES, KIT_LIMITS, type Piece, type Point, strikingPoint, targetWidth } from './piece';
export { KIT_PRESETS, newPiece, USUAL_KIT } from './presets';
export { revoice, voiceOn } from './revoice';
