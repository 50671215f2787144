import type { Expected } from '../rendition';
import type { Hit } from './hit';
import type { Match } from './match';
import { mean, median } from '../base';
import { gapsIn } from './unplayed';

/** How a take lies as a whole: a stroke meant for `t` is played at `from + shift + (t − from) · rate`. */
export interface Whole {
  /** Seconds: the first stroke that was meant. */
  readonly from: number;
  /** Seconds by which all of it is late (above 0) or early there. */
  readonly shift: number;
  /** How long a second lasts in the playing: above 1 is slower. */
  readonly rate: number;
}

/** Where a stroke that was meant for so many seconds is played. */
export function playedAt({ from, shift, rate }: Whole, seconds: number): number {
  return from + shift + (seconds - from) * rate;
}

/** Lays the strokes, where a whole has them, on the hits. */
export type Aligner = (where: readonly number[], until: number) => readonly Match[];

/** Tempos that are looked for: this share slower or faster. */
const RATES = 0.062;
/**
 * Lateness of the whole that is looked for, in seconds: what a latency or a habit makes; and a beat, within so much of
 * it.
 */
const LATE = { early: -0.2, late: 0.22, beat: 0.12 } as const;
/** Seconds and strokes at the head of a take by which a whole is looked for, and the most of them. */
const HEAD = { seconds: 4, least: 16, most: 40 } as const;
/** A whole that is sought is fitted on so much more of the take at a time. */
const GROWS = 2;
/** Wholes that are followed through the whole take. */
const FOLLOWED = 4;
/** How far from where it was sought a tempo may lie before it needs the take to say so, as a share. */
const TEMPO_STEP = 0.004;
/** Fewer hits than this tell nothing about the whole. */
const LEAST_HITS = 6;
/** What lying late by a beat, and another tempo at all, must save in strokes left out or added. */
const PRICE = { any: 0.3, beat: 0.8, tempo: 0.6, part: 1.5 } as const;
/** A share of strokes that may be left out in a take that plainly lies on the click. */
const FEW = 0.05;
/** Windows for laying a hit on a stroke while seeking: a share of the usual gap, in seconds at most. */
const NEAR = { share: 0.35, most: 0.04 } as const;

/**
 * How a take lies as a whole: late or early, slower or faster. What is nearest to the click is preferred where several
 * wholes explain the take as well. `beat` is the length of a counted beat in seconds.
 */
export function wholeOf(expected: readonly Expected[], hits: readonly Hit[], lay: Aligner, beat: number): Whole {
  const from = expected[0]?.seconds ?? 0;
  const still: Whole = { from, shift: 0, rate: 1 };
  if (hits.length < LEAST_HITS || expected.length < LEAST_HITS) return still;
  const plain = judged(still, expected, hits, lay, beat);
  if (plain.fits) return fitted(still, expected, hits, plain.matches);
  const own = followed(still, expected, hits, lay);
  if (judged(own, expected, hits, lay, beat).fits) return own;
  const sought = candidates(expected, hits, from, beat).map((w) => followed(w, expected, hits, lay));
  return [still, own, ...sought]
    .map((whole) => ({ whole, cost: judged(whole, expected, hits, lay, beat).cost }))
    .reduce((best, c) => (c.cost < best.cost - 1e-9 ? c : best)).whole;
}

/** The usual time between two moments at which something is expected, in seconds. */
export function usualGap(expected: readonly Expected[]): number {
  const gaps: number[] = [];
  for (let i = 1; i < expected.length; i++) {
    const gap = (expected[i]?.seconds ?? 0) - (expected[i - 1]?.seconds ?? 0);
    if (gap > 1e-4) gaps.push(gap);
  }
  return median(gaps) || 0.25;
}

/** What a whole leaves unexplained, in strokes, with its price. */
function judged(
  whole: Whole,
  expected: readonly Expected[],
  hits: readonly Hit[],
  lay: Aligner,
  beat: number,
): { readonly cost: number; readonly fits: boolean; readonly matches: readonly Match[] } {
  const matches = lay(
    expected.map((e) => playedAt(whole, e.seconds)),
    Infinity,
  );
  const scale = 1000 * Math.min(0.12, usualGap(expected) / 2);
  const off = matches.reduce((sum, m) => sum + Math.min(1, (m.late / scale) ** 2), 0) / 2;
  const answered = new Set(matches.map((m) => m.expected));
  const missed = expected.flatMap((_, i) => (answered.has(i) ? [] : [i]));
  const gaps = gapsIn(expected, missed, beat);
  // A part that was not played at all is one thing, however many strokes it has.
  const parts = (gaps.part ? 1 : 0) + (gaps.begins > 0 ? 1 : 0) + (gaps.stops === null ? 0 : 1);
  const struck = new Set(matches.map((m) => m.hit)).size;
  const extra = Math.max(0, heard(hits) - struck);
  const wrong = missed.length - gaps.inside.size + extra + PRICE.part * parts;
  const price =
    (Math.abs(whole.shift) < 0.02 ? 0 : PRICE.any + (PRICE.beat * Math.abs(whole.shift)) / beat) +
    (Math.abs(whole.rate - 1) < 0.003 ? 0 : PRICE.tempo);
  const scatter = 1.4826 * median(matches.map((m) => Math.abs(m.late))) * 0.001;
  const fits =
    answered.has(0) &&
    answered.has(expected.length - 1) &&
    missed.length <= Math.max(1, FEW * expected.length) &&
    scatter < (NEAR.share * usualGap(expected)) / 2;
  return { cost: wrong + off + price, fits, matches };
}

/** A whole fitted anew on the head of the take, then on twice as much, until the end. */
function followed(first: Whole, expected: readonly Expected[], hits: readonly Hit[], lay: Aligner): Whole {
  const last = expected.at(-1)?.seconds ?? first.from;
  let whole = first;
  const head = Math.max(HEAD.seconds, (expected[HEAD.least]?.seconds ?? 0) - first.from);
  for (let span = head; ; span *= GROWS) {
    const until = Math.min(last, first.from + span);
    for (let pass = 0; pass < 2; pass++) {
      const where = expected.map((e) => playedAt(whole, e.seconds));
      const matches = lay(where, until);
      whole = fitted(whole, expected, hits, matches);
    }
    if (until >= last) return whole;
  }
}

/** A straight line through what was played, by the medians of the first and the last third, then by least squares. */
function fitted(whole: Whole, expected: readonly Expected[], hits: readonly Hit[], matches: readonly Match[]): Whole {
  // What lies further off is likely another stroke: it would draw the line to it.
  const close = 1000 * Math.max(0.05, Math.min(0.15, NEAR.share * usualGap(expected)));
  const points = matches
    .filter((m) => Math.abs(m.late) <= close)
    .map((m) => {
      const t = (expected[m.expected]?.seconds ?? 0) - whole.from;
      return [t, (hits[m.hit]?.seconds ?? 0) - whole.from - t] as const;
    })
    .sort((a, b) => a[0] - b[0]);
  if (points.length < LEAST_HITS) return whole;
  const third = Math.max(2, Math.floor(points.length / 3));
  const [one, two] = [points.slice(0, third), points.slice(-third)];
  const [t1, t2] = [median(one.map((p) => p[0])), median(two.map((p) => p[0]))];
  const [y1, y2] = [median(one.map((p) => p[1])), median(two.map((p) => p[1]))];
  const slope = t2 - t1 > 0.2 ? (y2 - y1) / (t2 - t1) : whole.rate - 1;
  const off = ([t, y]: readonly [number, number]): number => y - (y1 + slope * (t - t1));
  const scatter = 1.4826 * median(points.map((p) => Math.abs(off(p))));
  const calm = points.filter((p) => Math.abs(off(p)) <= 2.5 * scatter + 1e-6);
  const [mt, my] = [mean(calm.map((p) => p[0])), mean(calm.map((p) => p[1]))];
  const [sxy, sxx] = calm.reduce<readonly [number, number]>(
    ([a, b], [t, y]) => [a + (t - mt) * (y - my), b + (t - mt) ** 2],
    [0, 0],
  );
  const fine = calm.length >= LEAST_HITS && sxx > 0.2 ? sxy / sxx : slope;
  // A short and scattered head tells little about the tempo: it is drawn to the one it was sought with.
  const drawn = (scatter / TEMPO_STEP) ** 2;
  const steady = whole.rate - 1 + ((fine - whole.rate + 1) * sxx) / (sxx + drawn || 1);
  const held = Math.max(-RATES * 1.3, Math.min(RATES * 1.3, steady));
  return { from: whole.from, shift: my - held * mt, rate: 1 + held };
}

/** The wholes that lay most of the take's head on hits. */
function candidates(expected: readonly Expected[], hits: readonly Hit[], from: number, beat: number): Whole[] {
  const gap = usualGap(expected);
  const near = Math.min(NEAR.most, NEAR.share * gap);
  const inTime = expected.findIndex((e) => e.seconds > from + HEAD.seconds);
  const many = Math.min(HEAD.most, Math.max(HEAD.least, inTime < 0 ? expected.length : inTime));
  const head = expected.slice(0, many);
  const span = Math.max(1, (head.at(-1)?.seconds ?? from) - from);
  const keys = new Map<string, number[]>();
  const keyOf = keyFor(hits);
  for (const h of hits) {
    const key = keyOf.hit(h);
    if (key === null) continue;
    const own = keys.get(key);
    if (own) own.push(h.seconds);
    else keys.set(key, [h.seconds]);
  }
  const latest = Math.max(LATE.late, (1 + LATE.beat) * beat);
  const end = span * (1 + RATES) + latest + near;
  const rulers = new Map([...keys].map(([key, struck]) => [key, ruler(struck, from + LATE.early - near, end, near)]));
  const counted = runningCount(hits, from + LATE.early - near, end);
  const cellOf = (seconds: number): number => Math.round((seconds - LATE.early + near) / CELL);
  const strokes = head.map((e) => ({ at: e.seconds - from, near: rulers.get(keyOf.stroke(e)) ?? new Float32Array(0) }));
  const rateStep = Math.max(0.0012, near / 2 / span);
  const shiftStep = Math.max(CELL, near / 3);
  const found: { readonly whole: Whole; readonly score: number }[] = [];
  for (let r = -Math.ceil(RATES / rateStep); r * rateStep <= RATES; r++) {
    const rate = 1 + r * rateStep;
    for (let shift: number = LATE.early; shift <= latest; shift += shiftStep) {
      if (shift > LATE.late && Math.abs(shift / beat - 1) > LATE.beat) continue;
      let score = 0;
      for (const { at, near: own } of strokes) score += own[cellOf(shift + at * rate)] ?? 0;
      const heard = (counted[cellOf(shift + span * rate + near)] ?? 0) - (counted[cellOf(shift - near)] ?? 0);
      found.push({ whole: { from, shift, rate }, score: (2 * score) / (strokes.length + heard) });
    }
  }
  found.sort((a, b) => b.score - a.score);
  const best: Whole[] = [];
  for (const { whole } of found) {
    if (best.every((b) => Math.abs(b.shift - whole.shift) > near || Math.abs(b.rate - whole.rate) > 0.012))
      best.push(whole);
    if (best.length >= FOLLOWED) break;
  }
  return best;
}

/** By what hits and strokes are told apart: limb, voice or nothing. Null for a hit of which nothing is known. */
export function keyFor(hits: readonly Hit[]): {
  readonly by: 'limb' | 'voice' | 'nothing';
  hit(h: Hit): string | null;
  stroke(e: Expected): string;
} {
  const most = (known: (h: Hit) => boolean): boolean => hits.length > 0 && hits.filter(known).length * 2 > hits.length;
  if (most((h) => h.limb !== null)) return { by: 'limb', hit: (h) => h.limb, stroke: (e) => e.limb };
  if (most((h) => h.voice !== null)) return { by: 'voice', hit: (h) => h.voice, stroke: (e) => e.voice };
  return { by: 'nothing', hit: () => '', stroke: () => '' };
}

/** Seconds of a cell in which the head of a take is measured off beforehand. */
const CELL = 0.002;

/** How near the nearest hit is to each cell of time from `from` on: 1 on it, 0 from `near` on. */
function ruler(struck: readonly number[], from: number, span: number, near: number): Float32Array {
  const cells = new Float32Array(Math.ceil((span - LATE.early + near) / CELL) + 2);
  const reach = Math.floor(near / CELL);
  for (const seconds of struck) {
    const middle = Math.round((seconds - from) / CELL);
    for (let c = middle - reach; c <= middle + reach; c++)
      if (c >= 0 && c < cells.length) cells[c] = Math.max(cells[c] ?? 0, 1 - (((c - middle) * CELL) / near) ** 2);
  }
  return cells;
}

/** How many hits there are before each cell of time. */
function runningCount(hits: readonly Hit[], from: number, span: number): Float32Array {
  const cells = new Float32Array(Math.ceil((span - LATE.early + NEAR.most) / CELL) + 2);
  for (const { seconds } of hits) {
    const at = Math.max(0, Math.round((seconds - from) / CELL));
    if (at < cells.length) cells[at] = (cells[at] ?? 0) + 1;
  }
  for (let c = 1; c < cells.length; c++) cells[c] = (cells[c] ?? 0) + (cells[c - 1] ?? 0);
  return cells;
}

/** Hits of which something is known, in a take of which something is known. */
function heard(hits: readonly Hit[]): number {
  const { hit } = keyFor(hits);
  return hits.reduce((n, h) => (hit(h) === null ? n : n + 1), 0);
}
