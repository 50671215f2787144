export * from './anchor';
export { DYNAMICS, type Dynamic } from './blows';
export { CLICK_KINDS, silencesOf, type ClickGap, type ClickKind } from './click';
export * from './program';
export {
  COUNT_TONES,
  LOUDEST,
  PARTS,
  type CountTone,
  type Loudness,
  type Part,
  type PlaybackEvent,
  type Sound,
} from './sound';
export * from './timeline';
