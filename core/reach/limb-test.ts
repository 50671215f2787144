import { median, readFail, readOk, type Read } from '../base';
import type { StrokeKind } from './profile';

/** How long a limb is tested, in seconds. */
export const TEST_SECONDS = 10;

/** What ten seconds of strokes say about a limb. */
export interface LimbReading {
  /** Strokes a second: of singles as they were kept up, of doubles inside the pair. */
  readonly rate: number;
  /** Spread of the distances as a share of their middle: 0 is a machine. */
  readonly spread: number;
  /** How much slower the last third was than the first, as a share: above 0 it tired. */
  readonly tired: number;
  /** Distances between strokes in order, in seconds: the picture. */
  readonly gaps: readonly number[];
}

/** Fewer strokes than this, or less time, tell nothing. */
const LEAST_STROKES = 12;
const LEAST_SECONDS = 2;
/**
 * Gaps outside these shares of the usual one are no strokes of the stream: a stroke that was not heard or a pause, and
 * a stroke that was heard twice.
 */
const LONGEST_GAP = 1.6;
const SHORTEST_GAP = 0.5;
/** Share of the gaps left out at either end: one hiccup of the machine or of the hand does not move the rate. */
const TRIMMED = 0.1;

/**
 * Reads a limb test from the moments of its strokes, in seconds, in order. Fails with `too-few` when there is not
 * enough to tell; then nothing is to be stored.
 * @example
 * limbReading(Array.from({ length: 41 }, (_, i) => i / 8), 'singles').value.rate // => 8
 * limbReading([0, 1], 'singles').problems[0].message // => "Too few strokes. Play for ten seconds without stopping."
 */
export function limbReading(moments: readonly number[], kind: StrokeKind): Read<LimbReading, 'too-few'> {
  return streamOf(moments, kind === 'doubles' ? insidePairs : ofTheStream);
}

/** Reads a stream of strokes, of which some gaps count. Fails with `too-few`. */
export function streamOf(
  moments: readonly number[],
  counting: (gaps: readonly number[]) => readonly number[] = ofTheStream,
): Read<LimbReading, 'too-few'> {
  const gaps = moments.slice(1).map((m, i) => m - (moments[i] ?? 0));
  const whole = (moments.at(-1) ?? 0) - (moments[0] ?? 0);
  if (moments.length < LEAST_STROKES || whole < LEAST_SECONDS)
    return readFail('too-few', null, 'Too few strokes. Play for ten seconds without stopping.');
  const counted = counting(gaps);
  if (counted.length < LEAST_STROKES / 3)
    return readFail('too-few', null, 'Too few pairs. Play pairs with a short gap between them.');
  const mean = average(counted);
  const kept = average(trimmed(counted));
  const middle = median(counted);
  const off = counted.reduce((sum, g) => sum + (g - mean) ** 2, 0) / counted.length;
  const third = Math.max(1, Math.floor(counted.length / 3));
  const [first, last] = [median(counted.slice(0, third)), median(counted.slice(-third))];
  return readOk({ rate: round(1 / kept), spread: Math.sqrt(off) / middle, tired: last / first - 1, gaps });
}

function round(n: number): number {
  return Math.round(n * 1000) / 1000;
}

function ofTheStream(gaps: readonly number[]): readonly number[] {
  const usual = median(gaps);
  return gaps.filter((g) => g >= usual * SHORTEST_GAP && g <= usual * LONGEST_GAP);
}

function trimmed(values: readonly number[]): readonly number[] {
  const off = Math.floor(values.length * TRIMMED);
  return [...values].sort((a, b) => a - b).slice(off, values.length - off);
}

function average(values: readonly number[]): number {
  return values.reduce((a, b) => a + b, 0) / values.length;
}

/** The short gaps: those inside the pairs. They lie below the middle between the shortest and the longest usual gap. */
function insidePairs(gaps: readonly number[]): readonly number[] {
  const sorted = [...gaps].sort((a, b) => a - b);
  const low = sorted[Math.floor(sorted.length * 0.2)] ?? 0;
  const high = sorted[Math.floor(sorted.length * 0.8)] ?? 0;
  return gaps.filter((g) => g < (low + high) / 2 && g < high * 0.85);
}

/** What a reading means, in a sentence. */
export function readingWords({ rate, spread, tired }: LimbReading): string {
  const even = spread < 0.06 ? 'very even' : spread < 0.12 ? 'even' : 'uneven';
  const end = tired > 0.08 ? `, ${Math.round(tired * 100)}% slower at the end` : ', steady to the end';
  return `${rate.toFixed(1)} strokes per second, ${even}${end}.`;
}
