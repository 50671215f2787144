/**
 * How far from the click, in milliseconds, as it is said; what rounds to nothing is on time.
 * @example
 * lateWords(12.4) // => "12 ms late"
 * lateWords(-3) // => "3 ms early"
 * lateWords(0.4) // => "on time"
 */
export function lateWords(ms: number): string {
  const off = Math.round(Math.abs(ms));
  return off === 0 ? 'on time' : `${off} ms ${ms > 0 ? 'late' : 'early'}`;
}

/**
 * How far from the click and how wide round that, both in milliseconds.
 * @example
 * timingWords(-4, 8.6) // => "4 ms early, spread 9 ms"
 */
export function timingWords(ms: number, spread: number): string {
  return `${lateWords(ms)}, spread ${Math.round(spread)} ms`;
}
