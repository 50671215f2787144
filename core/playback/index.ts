export * from './anchor';
export { DYNAMICS, type Dynamic } from './blows';
export { CLICK_KINDS, silencesOf, type ClickGap, type ClickKind } from './click';
export { COUNT_KINDS, spokenCount, type CountKind } from './counting';
export * from './program';
export {
  COUNT_TONES,
  LOUDEST,
  PARTS,
  syllableSaid,
  type CountTone,
  type Loudness,
  type Part,
  type PlaybackEvent,
  type Sound,
  type Spoken,
} from './sound';
export * from './timeline';
