export { balance } from './balance';
export type { Finding, FindingCode, Weight } from './finding';
export { type Graces, gracesOf, plainGraces, withGraces } from './graces';
export { PARTITION_LIMITS, partitions } from './partitions';
export { linesOf, looksLikeLines, parseLines } from './lines';
export {
  barsSpan,
  untilLanding,
  countingOf,
  type Group,
  landingAt,
  loopTicks,
  MOST_BARS,
  MOST_STROKES,
  type Pattern,
  patternOfText,
  slotsLong,
  tidy,
} from './pattern';
export { changedAll, ledIn, pickupBar, pickupOf, pickupTicks, pickupWords, strokesOf, withoutPickup } from './pickup';
export { barOf, type Mute, NOTHING_MUTED, partOf, pickupRoles, strokeTypesOf, unmuted } from './project';
export { difference, differenceWords, finestSlot, isSymmetric, leadOf } from './relations';
export { report } from './report';
export { crossRhythm, evenSteps, momentsOf, roundWords } from './round';
export { meantTogether, type Role, rolesOf } from './roles';
export { runsOf } from './runs';
export {
  countOfStroke,
  countRef,
  endsOn,
  fitSum,
  groupSum,
  sumUnit,
  leadHand,
  lengthWords,
  notesPerSecond,
  placesWords,
  placeWords,
  shapeWords,
  startsToEndOn,
  splitGraces,
  unisons,
} from './sums';
export { textOf, voicedText } from './text';
