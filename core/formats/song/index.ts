export { type Song, SONG_LIMITS, type SongBar, type SongNote } from './song';
export { dressed } from './dressed';
export { barsAlike, distinctBars, runsWords } from './bars';
export { countableMeter } from './countable';
export { choicesFor, takeBars, type TakeWish } from './take';
export { cellOf, heardPattern, type HeardWay, heardWays } from './heard';
