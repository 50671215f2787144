import type { Expected } from '../rendition';

/** What of a take was not played at all, which is no stroke left out. */
export interface Gaps {
  /** The part of the loop that was never played, by its first and last stroke's index; null when there is none. */
  readonly part: { readonly first: number; readonly last: number; readonly share: number } | null;
  /** Seconds from where the take should begin to where it does; 0 when it begins in time. */
  readonly begins: number;
  /** The turn, from 0, after whose beginning nothing was played any more; null when it was played to its end. */
  readonly stops: number | null;
  /** Places in the list of expected strokes that these explain. */
  readonly inside: ReadonlySet<number>;
}

/** A stroke played in at most this share of the turns was not played; the others in at least that share. */
const NEVER = 0.12;
const MOSTLY = 0.7;
/** A part of the loop has at least this share of its strokes, and so many. */
const PART = { share: 0.2, strokes: 2 } as const;
/** An end that is missing has at least this share of all strokes, and so many. */
const END = { share: 0.1, strokes: 3 } as const;

/** A beginning that is missing lasts at least this share of a beat: less is a stroke left out. */
const BEGINNING = 0.7;

/** Finds the parts that were not played: of every turn, at the beginning, at the end. `beat` is in seconds. */
export function gapsIn(expected: readonly Expected[], missed: readonly number[], beat: number): Gaps {
  const inside = new Set<number>();
  const gone = new Set(missed);
  if (gone.size === 0 || gone.size === expected.length) return { part: null, begins: 0, stops: null, inside };
  const part = partOf(expected, gone);
  if (part) expected.forEach((e, i) => part.never.has(e.index) && gone.has(i) && inside.add(i));
  const open = expected.map((_, i) => i).filter((i) => !inside.has(i));
  const head = open.findIndex((i) => !gone.has(i));
  const late = head > 0 ? (expected[open[head] ?? 0]?.seconds ?? 0) - (expected[open[0] ?? 0]?.seconds ?? 0) : 0;
  const begins = late >= BEGINNING * beat ? late : 0;
  if (begins > 0) open.slice(0, head).forEach((i) => inside.add(i));
  let tail = open.length;
  while (tail > 0 && gone.has(open[tail - 1] ?? -1)) tail--;
  const ended = open.slice(tail);
  const stops =
    ended.length >= Math.max(END.strokes, END.share * expected.length) ? (expected[ended[0] ?? 0]?.turn ?? 0) : null;
  if (stops !== null) ended.forEach((i) => inside.add(i));
  const firstTurn = expected[0]?.turn ?? 0;
  return {
    part: part && { first: part.first, last: part.last, share: part.share },
    begins,
    stops: stops === null ? null : stops - firstTurn,
    inside,
  };
}

/** One stretch of strokes that was never played while the rest was. */
function partOf(
  expected: readonly Expected[],
  gone: ReadonlySet<number>,
): { readonly first: number; readonly last: number; readonly share: number; readonly never: Set<number> } | null {
  const places = new Map<number, { of: number; played: number }>();
  expected.forEach((e, i) => {
    const own = places.get(e.index) ?? { of: 0, played: 0 };
    own.of++;
    if (!gone.has(i)) own.played++;
    places.set(e.index, own);
  });
  const order = [...places].sort((a, b) => a[0] - b[0]);
  const isOut = ([, p]: (typeof order)[number]): boolean => p.played <= NEVER * p.of;
  const from = order.findIndex(isOut);
  const until = order.findLastIndex(isOut);
  if (from < 0) return null;
  const run = order.slice(from, until + 1);
  const rest = [...order.slice(0, from), ...order.slice(until + 1)];
  const of = rest.reduce((sum, [, p]) => sum + p.of, 0);
  const played = rest.reduce((sum, [, p]) => sum + p.played, 0);
  const share = run.length / order.length;
  if (!run.every(isOut) || rest.length === 0 || played < MOSTLY * of) return null;
  if (run.length < PART.strokes || share < PART.share) return null;
  return { first: run[0]?.[0] ?? 0, last: run.at(-1)?.[0] ?? 0, share, never: new Set(run.map(([index]) => index)) };
}
