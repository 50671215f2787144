export { type Anchor, retempo, sampleAt, secondsAt, tickAt } from './anchor';
export { DYNAMICS, type Dynamic } from './blows';
export { CLICK_KINDS, silencesOf, type ClickGap, type ClickKind } from './click';
export { COUNT_KINDS, spokenCount, type CountKind } from './counting';
export { callAndAnswer, eventsIn, playAt, type PlayRequest, type Program, programOf } from './program';
export { saying } from './saying';
export {
  COUNT_TONES,
  LOUDEST,
  PARTS,
  syllableSaid,
  type CountTone,
  type Loudness,
  tickOfRecord,
  type Part,
  type PlaybackEvent,
  type Recorded,
  type Sound,
  type Spoken,
  type Struck,
} from './sound';
export {
  changedAt,
  dueBefore,
  handed,
  lastAnchor,
  secondsOfTick,
  tickHeardAt,
  type Timeline,
  timelineFrom,
  nextChangeTick,
  turnsOver,
} from './timeline';
