/**
 * The mean; 0 of nothing.
 * @example
 * mean([1, 2, 6]) // => 3
 */
export function mean(values: readonly number[]): number {
  return values.length === 0 ? 0 : values.reduce((a, b) => a + b, 0) / values.length;
}

/**
 * The middle one, of an even number the mean of the middle two; 0 of nothing.
 * @example
 * median([5, 1, 9]) // => 5
 * median([1, 2, 4, 9]) // => 3
 */
export function median(values: readonly number[]): number {
  // Numbers by themselves are sorted several times as fast.
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2;
}

/**
 * The standard deviation of a sample; 0 of fewer than two.
 * @example
 * deviation([1, 3]) // => 1.4142135623730951
 */
export function deviation(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const m = mean(values);
  return Math.sqrt(values.reduce((sum, v) => sum + (v - m) ** 2, 0) / (values.length - 1));
}
