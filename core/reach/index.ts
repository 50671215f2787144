export { ceiling, ceilingOn, pairTravel, pairWords, type TightPair } from './ceiling';
export { heldStrokes } from './held';
export { limbReading, readingWords, TEST_SECONDS } from './limb-test';
export { handPaths } from './paths';
export {
  type Able,
  doublesOf,
  isMeasured,
  mirroredProfile,
  type Profile,
  ProfileSchema,
  RATE_LIMITS,
  STROKE_KINDS,
  USUAL_PROFILE,
  type WayTime,
  withRate,
} from './profile';
export { type Raise, raises } from './raise';
export { difficulty, distance, type Fitts, FITTS, riseSeconds, targetOf, travelSeconds } from './travel';
export { fittsOf, fittsOfWays, wayOn, wayReading, wayWords, withWay } from './way-test';
export { effectiveProfile, gathered, type Lesson, lessonFor, lessonsOf, taughtBy } from './learn';
export { type Rests, type Taught, type Top, topOf, limitOf } from './top';
