import { VALUE_TICKS, type Score, type ScoreBar } from '@core/score';
import { graceCount, type Stroke } from '@core/stroke';

/** Room that brackets of a ghost, each grace stroke, a dot and a rest of many flags take besides, in px. */
const BRACKETS = 9;
const GRACE = 13;
const DOT = 6;
const SMALL_REST = 13;

/** Room that one note or rest takes at least, and what bar line, clef and meter take beside the notes, in px. */
const PER_EVENT = 18;
const AROUND = 34;
const FIRST = 64;

/** Bars that stand on one line, with their widths in px. */
export interface StaffLine {
  readonly bars: readonly { readonly bar: ScoreBar; readonly width: number }[];
}

/** The least width a bar can be read in. */
export function leastWidth(bar: ScoreBar, strokes: readonly Stroke[]): number {
  const events = [...bar.hands.events, ...(bar.feet?.events ?? [])];
  const moments = new Set(events.map((e): number => e.at));
  const besides = events.reduce((sum, e) => {
    const own = e.strokes.flatMap((i) => strokes[i] ?? []);
    const ghost = own.length > 0 && own.every((s) => s.level === 'ghost');
    const graces = Math.max(0, ...own.map((s) => (s.ornament ? graceCount(s.ornament) : 0)));
    const small = own.length === 0 && VALUE_TICKS[e.value] <= VALUE_TICKS['32'];
    return sum + (ghost ? BRACKETS : 0) + (small ? SMALL_REST : 0) + (e.dots ? DOT : 0) + graces * GRACE;
  }, 0);
  return moments.size * PER_EVENT + AROUND + besides;
}

/** What a line needs that holds one bar alone. */
export function widthAlone(bar: ScoreBar, strokes: readonly Stroke[]): number {
  return leastWidth(bar, strokes) * 1.12 + FIRST + 14;
}

/**
 * Bars broken into lines of a width, and each line filled. A bar that is wider than a line stands alone on it, closer
 * than it should.
 */
export function staffLines(score: Score, width: number, strokes: readonly Stroke[]): readonly StaffLine[] {
  const lines: { bar: ScoreBar; width: number }[][] = [];
  let left = 0;
  for (const bar of score.bars) {
    const least = leastWidth(bar, strokes);
    const line = lines.at(-1);
    if (line && left >= least) {
      line.push({ bar, width: least });
      left -= least;
    } else {
      lines.push([{ bar, width: least }]);
      left = width - least - FIRST;
    }
  }
  return lines.map((bars, i) => {
    const sum = bars.reduce((total, b) => total + b.width, 0);
    // The last line is not pulled apart when it is much shorter than the others.
    const room = width - FIRST;
    const fill = i > 0 && i === lines.length - 1 && sum < room * 0.6 ? 1.25 : room / sum;
    return { bars: bars.map((b, nth) => ({ bar: b.bar, width: b.width * fill + (nth === 0 ? FIRST : 0) })) };
  });
}
