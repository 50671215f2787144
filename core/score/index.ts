export { scoreOf } from './engrave';
export type { Score, ScoreBar, ScoreEvent, ScoreVoice } from './score';
export { VALUE_TICKS, VALUES, writtenAs, type Value } from './values';
