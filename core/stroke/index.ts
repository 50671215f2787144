export { type Level, LEVEL_DEFAULTS, LEVELS, type Ornament, ORNAMENTS } from './level';
export { BUZZ, GRACE_SECONDS, type Grace, graceCount, graceLeads, SAME_HAND } from './ornament';
export { type Hand, isHand, type Limb, LIMB_WORDS, LIMBS, otherHand } from './limb';
export { midiKeyOf, type MidiMap, USUAL_MAP } from './midi-map';
export { compareStrokes, type Origin, type Stroke } from './stroke';
export { type StrokeType, strokeTypes } from './stroke-types';
export { type OwnSyllables, sungAt, sungLine, sungParts, syllableKey, syllableOf } from './sung';
export {
  asTyped,
  type Node,
  parseStrokeText,
  printStroke,
  printStrokeText,
  printTyped,
  slotCount,
  slotsOf,
  TEXT_LIMITS,
  type TypedStroke,
} from './text';
export {
  byVoice,
  canStrike,
  type Family,
  footOf,
  HAND_VOICES,
  type Head,
  namesOf,
  PIECE_KINDS,
  type PieceKind,
  pieceName,
  usualVoice,
  type Voice,
  VOICE,
  voiceCalled,
  VOICES,
  voicesNamed,
} from './voice';
