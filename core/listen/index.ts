export { quantiseTaps, type Tap, tempoOfSlot } from './taps';
export { levelsFrom, type Onset, OnsetDetector } from './onsets';
export { type GridChoice, gridChoices, onGrid } from './quantise';
export { fluxOf, type Flux } from './flux';
export { attackNear } from './attack';
export { strokesHeard, strokesIn, type HeardOnset } from './strokes-heard';
export { barsHeard, beatsAlong, beatsHeard, type BarChoice, type BeatChoice } from './beats';
export { type HeardKind, proposedKinds, soundsOf, type StrokeSound } from './which-drum';
export {
  barsOf,
  bent,
  bpmAt,
  evenLay,
  inMeter,
  type Lay,
  layFromTaps,
  layMoment,
  layOf,
  layTick,
  moved,
  recounted,
  tempoBeat,
} from './lay';
export {
  type Correction,
  correctionOf,
  type HeardStroke,
  type PieceOf,
  readStrokes,
  type BarsOfRecord,
  type TakenOnset,
  ticksIn,
  unsureOf,
  USUAL_PIECES,
  velocityOfLevel,
} from './reading';
export { type HeardRound, roundOf, roundWords } from './rounds';
export { type Beside, besideRecord } from './beside';
export { paced, slower } from './slower';
export { type Peaks, peaksOf, waveBetween } from './peaks';
export {
  type Clip,
  CLIP_LIMITS,
  ClipSchema,
  type HeardWork,
  lettersOf,
  type Listening,
  ListeningSchema,
  samplesOf,
  thinned,
} from './kept';
export { type Backing, BACKING, backingClip, type BackingClip, backingOf, backs } from './backing';
