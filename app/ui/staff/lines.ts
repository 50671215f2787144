import type { Score, ScoreBar } from '@core/score';

/** Room that one note or rest takes at least, and what bar line, clef and meter take beside the notes, in px. */
const PER_EVENT = 19;
const AROUND = 34;
const FIRST = 64;

/** Bars that stand on one line, with their widths in px. */
export interface StaffLine {
  readonly bars: readonly { readonly bar: ScoreBar; readonly width: number }[];
}

/** The least width a bar can be read in. */
export function leastWidth(bar: ScoreBar): number {
  const moments = new Set([...bar.hands.events, ...(bar.feet?.events ?? [])].map((e): number => e.at));
  return moments.size * PER_EVENT + AROUND;
}

/**
 * Bars broken into lines of a width, and each line filled. A bar that is wider than a line stands alone on it, closer
 * than it should.
 */
export function staffLines(score: Score, width: number): readonly StaffLine[] {
  const lines: { bar: ScoreBar; width: number }[][] = [];
  let left = 0;
  for (const bar of score.bars) {
    const least = leastWidth(bar);
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
