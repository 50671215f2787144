declare const brand: unique symbol;

/** Musical time: a whole number of ticks. Never a float; seconds appear only in playback and takes. */
export type Ticks = number & { readonly [brand]: 'ticks' };

/** 5040 = 2⁴ · 3² · 5 · 7, so 64ths, triplets, quintuplets and septuplets are all whole. */
export const TICKS_PER_QUARTER = 5040 as Ticks;

/**
 * A whole number as ticks.
 * @throws RangeError when n is not a safe integer: that is a fault of the program, not of its input.
 * @example
 * ticks(1260) // => 1260
 */
export function ticks(n: number): Ticks {
  if (!Number.isSafeInteger(n)) throw new RangeError(`not a whole number of ticks: ${n}`);
  return n as Ticks;
}

/**
 * n as ticks when it is whole, else null: the way to ask before stretching time.
 * @example
 * wholeTicks(1260 * 1.5) // => 1890
 * wholeTicks(315 / 2) // => null
 */
export function wholeTicks(n: number): Ticks | null {
  return Number.isSafeInteger(n) ? (n as Ticks) : null;
}

/**
 * Seconds that a number of ticks lasts at a tempo of `bpm` quarters a minute. The one place where time becomes a float.
 * @example
 * secondsOf(5040, 120) // => 0.5
 */
export function secondsOf(length: number, bpm: number): number {
  return (length * 60) / (bpm * TICKS_PER_QUARTER);
}
