// Free play: what it takes to say which phrases came, against laying the hits on the grid alone.
import { GRID, meter } from '@core/time';
import { figuresIn, justCame, latticeOf, pulsesIn, recognise } from '@core/usage';
import { playFreely, someShelf } from '../core/testing/free-play';
import { dice } from '../core/testing/learners';
import { line, median } from './measure';

const FOUR = meter(4, 4);
const roll = dice(11);
const shelf = someShelf(roll, 1000, FOUR);
const usual = { meter: FOUR, bpm: 100, often: 0.35, scatter: 10, missed: 0.05, extra: 0.05 };
const of = (bars: number) =>
  playFreely(roll, shelf, { ...usual, bars, ghostsLost: 0, cut: false, anywhere: false, groove: 0 }).hits;
const [ten, hour] = [of(250), of(1500)];
const played = { hits: ten, meter: FOUR, bpm: 100 };
const long = { hits: hour, meter: FOUR, bpm: 100 };
const few = shelf.slice(0, 100);
const lay = (): unknown => latticeOf(ten, FOUR, 100, GRID.sixteenths);
const ms = (run: () => unknown): string => (median(run) / 1000).toFixed(0);

console.log(`\nfree play: ten minutes, ${ten.length} strokes; an hour, ${hour.length} strokes`);
console.log(line('free play: ten minutes, 100 phrases', () => recognise(few, played), 'laying the hits', lay));
console.log(line('free play: ten minutes, 1,000 phrases', () => recognise(shelf, played), 'laying the hits', lay));
console.log(`free play: an hour, 100 phrases ${ms(() => recognise(few, long))} ms`);
console.log(`free play: figures of ten minutes ${ms(() => figuresIn(played, []))} ms`);
console.log(`free play: the tempo of ten minutes ${ms(() => pulsesIn(ten, FOUR))} ms`);
const now = 60 * 20_160;
const lately = { ...played, hits: ten.filter((h) => h.seconds < 144 && h.seconds > 54) };
console.log(`free play: what just came, 1,000 phrases ${ms(() => justCame(shelf, lately, now, 5040))} ms`);
