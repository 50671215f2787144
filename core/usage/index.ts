export { KINDS, type Kind, type Lattice, latticeOf, type SlotHit } from './lattice';
export { type UsablePhrase } from './profile';
export { type Played } from './ground';
export { type Came, justCame, Recogniser, recognise, SAID } from './recognise';
export { type Difference, differencesOf, verdictOn } from './difference';
export { cameWords, differencesWords, differenceWords, sureWords } from './words';
export { figurePattern, figureWords, keptCame, keptFigures } from './kept';
export { keptTime, withKeptTime } from './kept-time';
export { openBars, playedPattern } from './drawn';
export { type Figure, figuresIn } from './repeats';
export { bestPulse, type Pulse, pulsesIn, steadied } from './pulse';
export { type Likeness, likenessAt, shareAlike } from './likeness';
export {
  CALL_CAME,
  type Callable,
  callBars,
  type CallCame,
  type CallDone,
  type CallHeard,
  callsWords,
  heardCall,
  nextCall,
} from './calls';
export { type Answered, answeredWords, answerTo, type Trade, TRADE_ASKED, type TradeAsked, tradeOf } from './trade';
export { recallMemory, type RecallEvent, recallOn } from './recall';
export {
  type Drilled,
  figuresOf,
  isFree,
  neverUsed,
  type OwnFigure,
  type PhraseUse,
  recallEvents,
  usesIn,
  useWords,
} from './answers';
export { whatIsBeside, whatIsNeverUsed, whatIsUsed } from './log-words';
