import { count } from '../base';

/**
 * A stroke that is written, and when the record would have it, in seconds; with how it is called: "bar 1, the a of
 * 2".
 */
export interface WrittenMoment {
  readonly at: number;
  readonly where: string;
}

/** A record beside the phrase that was written from it. */
export interface Beside {
  /** Each written stroke with how far the record is from it in ms, late above zero; null where nothing was struck. */
  readonly written: readonly { readonly at: number; readonly where: string; readonly off: number | null }[];
  /** Seconds of what the record has and the phrase has not. */
  readonly over: readonly number[];
  readonly words: readonly string[];
}

/** What is so near is the same stroke, in seconds. */
const SAME = 0.05;

/**
 * What differs between a record and what was written from it: each stroke has at most one beside it, the nearest pairs
 * first. `where` says how a moment of the record is called.
 * @example
 * besideRecord([{ at: 1, where: 'bar 1, 1' }], [1.01, 1.5], () => 'bar 1, 2').words[0] // => "Heard but not written: bar 1, 2."
 */
export function besideRecord(
  written: readonly WrittenMoment[],
  heard: readonly number[],
  where: (at: number) => string,
): Beside {
  const pairs = written
    .flatMap((w, i) => heard.map((at, k) => ({ i, k, far: Math.abs(at - w.at) })))
    .filter((p) => p.far <= SAME)
    .sort((a, b) => a.far - b.far);
  const [mine, theirs] = [new Map<number, number>(), new Set<number>()];
  for (const { i, k } of pairs) {
    if (mine.has(i) || theirs.has(k)) continue;
    mine.set(i, k);
    theirs.add(k);
  }
  const lines = written.map((w, i) => {
    const k = mine.get(i);
    return { ...w, off: k === undefined ? null : ((heard[k] ?? w.at) - w.at) * 1000 };
  });
  const over = heard.filter((_, k) => !theirs.has(k));
  const missing = lines.filter((l) => l.off === null).map((l) => l.where);
  const offs = lines.flatMap((l) => (l.off === null ? [] : [Math.abs(l.off)]));
  const apart = offs.reduce((a, b) => a + b, 0) / Math.max(1, offs.length);
  return {
    written: lines,
    over,
    words: [
      ...(missing.length > 0 ? [`Written but not heard: ${some(missing)}.`] : []),
      ...(over.length > 0 ? [`Heard but not written: ${some(over.map(where))}.`] : []),
      ...(offs.length > 0
        ? [
            `${count(offs.length, 'stroke')} of the recording ${offs.length === 1 ? 'matches' : 'match'}, ${Math.round(apart)} ms apart on average.`,
          ]
        : []),
    ],
  };
}

function some(places: readonly string[]): string {
  const most = 6;
  const rest = places.length - most;
  return `${places.slice(0, most).join('; ')}${rest > 0 ? `; and ${rest} more` : ''}`;
}
