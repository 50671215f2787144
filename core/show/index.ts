export { assign } from './assign';
export {
  type Choice,
  choicesOf,
  filledShow,
  nightOf,
  type ShowFilled,
  type ShowPhrase,
  type ShowScene,
  SHOWPIECE,
  type SpotChoice,
  type SpotFit,
  tooAlike,
  withChoices,
} from './choose';
export { type CuePlayed, cuePattern, spotPattern, type SpotPlayed } from './cue-pattern';
export { demandsOfSpot } from './demands';
export { fillShow, type FillAsked, type Filled, type FillSpot } from './fill';
export { type Fit, fitOf, type FitWay, meetsCounts, type NoFit, noFitWords, standing, standsWords } from './fits';
export { feelText, parseFeel } from './feels';
export { type CueLine, cueText, newShow, parseCues, parseSpots, type TypedCue } from './lines';
export { chanceOn, minutesTo, type NightPhrase, SAFE } from './night';
export { readinessOf, readyWords, type ShowReady, type SpotReady } from './readiness';
export { countText, cueMeter, cueProblems, type CueProblem, cueTicks, goodSpots, inTime, spotSpan } from './room';
export { newRun, nextSpot, type Run, type RunEvent, type RunPhase, runStep } from './run';
export { keptSpots, spotText, type TypedSpot } from './spots';
export { eachSpot, shortSpot } from './typed-line';
export { barsWords } from './unread';
export { type Goal, goalUnder, type Want, wantsOf } from './wants';
