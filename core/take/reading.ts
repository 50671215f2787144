import { LIMBS, VOICES, type Limb, type Voice } from '../stroke';
import type { Alignment } from './align';
import type { Expected } from '../rendition';
import type { Hit } from './hit';

/** Offset and spread of some strokes, in milliseconds; above 0 is late. */
export interface Offset {
  readonly mean: number;
  readonly spread: number;
  readonly many: number;
}

/** Everything a take says, in milliseconds unless said otherwise. */
export interface Reading extends Offset {
  readonly missed: number;
  readonly extra: number;
  /** Strokes that were expected. */
  readonly strokes: number;
  readonly byLimb: readonly (Offset & { readonly limb: Limb; readonly missed: number })[];
  readonly byVoice: readonly (Offset & { readonly voice: Voice })[];
  /** By place in the loop: index of the stroke in the pattern. */
  readonly byPlace: readonly (Offset & { readonly index: number; readonly missed: number })[];
  /** Seconds from the first stroke to the last. */
  readonly seconds: number;
  /** Milliseconds a minute by which the playing falls back (above 0) or runs away. */
  readonly drift: number;
  /** How much louder the right hand is than the left on equal strokes, in MIDI velocity; null where nothing tells. */
  readonly leftRight: number | null;
  /** How many times louder accents are than ghosts; null where nothing tells. */
  readonly accentGhost: number | null;
  /** That ratio as it was meant; null where it was not measured. */
  readonly meantRatio: number | null;
  /** Mean offset while the click was silent less that while it sounded; null when it never was. */
  readonly silence: number | null;
}

/** A stretch of time in which the click was silent, in the seconds of the expected strokes. */
export interface Silence {
  readonly from: number;
  readonly until: number;
}

/**
 * Reads an aligned take. Spread is the standard deviation round the mean with the drift taken out, so that a player who
 * slowly runs away but plays evenly is told about the running only. With nothing matched every offset is 0 and `many`
 * says so.
 */
export function readTake(
  expected: readonly Expected[],
  hits: readonly Hit[],
  { matches, missed, extra }: Alignment,
  silences: readonly Silence[] = [],
): Reading {
  const points = matches.flatMap((m) => {
    const [e, h] = [expected[m.expected], hits[m.hit]];
    return e && h ? [{ e, h, late: m.late }] : [];
  });
  const slope = steadySlope(points.map((p) => [p.e.seconds, p.late]));
  const middle = mean(points.map((p) => p.e.seconds));
  const level = (p: (typeof points)[number]): number => p.late - slope * (p.e.seconds - middle);
  const offset = (own: readonly (typeof points)[number][]): Offset => ({
    mean: mean(own.map((p) => p.late)),
    spread: spread(own.map(level)),
    many: own.length,
  });
  const missedOf = (test: (e: Expected) => boolean): number =>
    missed.filter((i) => expected[i] && test(expected[i])).length;
  const limbs = LIMBS.filter((l) => expected.some((e) => e.limb === l));
  const voices = VOICES.filter((v) => expected.some((e) => e.voice === v));
  const places = [...new Set(expected.map((e) => e.index))].sort((a, b) => a - b);
  const byPlace = new Map(places.map((index) => [index, [] as typeof points]));
  for (const p of points) byPlace.get(p.e.index)?.push(p);
  return {
    ...offset(points),
    missed: missed.length,
    extra: extra.length,
    strokes: expected.length,
    byLimb: limbs.map((limb) => ({
      limb,
      ...offset(points.filter((p) => p.e.limb === limb)),
      missed: missedOf((e) => e.limb === limb),
    })),
    byVoice: voices.map((voice) => ({ voice, ...offset(points.filter((p) => p.e.voice === voice)) })),
    byPlace: places.map((index) => ({
      index,
      ...offset(byPlace.get(index) ?? []),
      missed: missedOf((e) => e.index === index),
    })),
    seconds: (expected.at(-1)?.seconds ?? 0) - (expected[0]?.seconds ?? 0),
    drift: slope * 60,
    leftRight: difference(points, 'R', 'L'),
    ...ratio(points),
    silence: silenceOf(points, silences),
  };
}

interface Point {
  readonly e: Expected;
  readonly h: Hit;
  readonly late: number;
}

/** How many usual scatters from the line a stroke may lie before the line forgets it. */
const WILD = 3;

/**
 * The slope with wild strokes left out: one stroke that was laid on the wrong place at the end of a short take would
 * tilt the whole line. Fitted once, then again without what lies further from it than three times the usual scatter
 * (median absolute deviation × 1.48).
 */
function steadySlope(points: readonly (readonly [number, number])[]): number {
  const first = slopeOf(points);
  const [mx, my] = [mean(points.map((p) => p[0])), mean(points.map((p) => p[1]))];
  const off = (p: readonly [number, number]): number => Math.abs(p[1] - my - first * (p[0] - mx));
  const scatter = 1.4826 * ([...points.map(off)].sort((a, b) => a - b)[points.length >> 1] ?? 0);
  const calm = points.filter((p) => off(p) <= WILD * scatter);
  return calm.length < points.length && calm.length >= 3 ? slopeOf(calm) : first;
}

/** Least-squares slope; 0 for fewer than three points or no extent. */
function slopeOf(points: readonly (readonly [number, number])[]): number {
  if (points.length < 3) return 0;
  const [mx, my] = [mean(points.map((p) => p[0])), mean(points.map((p) => p[1]))];
  const [sxy, sxx] = points.reduce<readonly [number, number]>(
    ([a, b], [x, y]) => [a + (x - mx) * (y - my), b + (x - mx) ** 2] as const,
    [0, 0],
  );
  return sxx === 0 ? 0 : sxy / sxx;
}

function mean(values: readonly number[]): number {
  return values.length === 0 ? 0 : values.reduce((a, b) => a + b, 0) / values.length;
}

function spread(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const m = mean(values);
  return Math.sqrt(values.reduce((sum, v) => sum + (v - m) ** 2, 0) / (values.length - 1));
}

function loudness(points: readonly Point[]): number | null {
  const known = points.flatMap((p) => p.h.velocity ?? []);
  return known.length < 3 ? null : mean(known);
}

/** Right less left, over strokes that both hands play at one loudness. */
function difference(points: readonly Point[], a: Limb, b: Limb): number | null {
  const levels = [...new Set(points.map((p) => p.e.velocity))];
  const found = levels.flatMap((velocity) => {
    const [x, y] = [a, b].map((limb) => loudness(points.filter((p) => p.e.limb === limb && p.e.velocity === velocity)));
    return x === null || y === null || x === undefined || y === undefined ? [] : [x - y];
  });
  return found.length === 0 ? null : mean(found);
}

/** How much louder the loudest strokes of the hands were than the softest, and how much they were meant to be. */
function ratio(points: readonly Point[]): Pick<Reading, 'accentGhost' | 'meantRatio'> {
  const hands = points.filter((p) => p.e.limb === 'R' || p.e.limb === 'L');
  const [loud, soft] = [Math.max(...hands.map((p) => p.e.velocity)), Math.min(...hands.map((p) => p.e.velocity))];
  const [louder, softer] = [loud, soft].map((level) => loudness(hands.filter((p) => p.e.velocity === level)));
  if (hands.length === 0 || loud === soft || !louder || !softer) return { accentGhost: null, meantRatio: null };
  return { accentGhost: louder / softer, meantRatio: loud / soft };
}

function silenceOf(points: readonly Point[], silences: readonly Silence[]): number | null {
  const silent = points.filter((p) => silences.some((s) => p.e.seconds >= s.from && p.e.seconds < s.until));
  const sounding = points.filter((p) => !silences.some((s) => p.e.seconds >= s.from && p.e.seconds < s.until));
  return silent.length < 4 || sounding.length < 4
    ? null
    : mean(silent.map((p) => p.late)) - mean(sounding.map((p) => p.late));
}
