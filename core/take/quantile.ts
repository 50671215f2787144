/**
 * The value that a Gaussian of mean 0 and spread 1 stays below with a chance p in (0, 1). Acklam's rational
 * approximation, relative error below 1.2e-9.
 * @example
 * Math.round(normalQuantile(0.975) * 1000) / 1000 // => 1.96
 * normalQuantile(0.5) // => 0
 */
export function normalQuantile(p: number): number {
  if (p > 0.5) return -normalQuantile(1 - p);
  if (p < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(Math.max(p, 1e-300)));
    return ratioOf(TAIL, TAIL_UNDER, q);
  }
  const q = p - 0.5;
  return q === 0 ? 0 : q * ratioOf(MIDDLE, MIDDLE_UNDER, q * q);
}

/**
 * The same for Student's t with so many degrees of freedom, by the expansion of Cornish and Fisher (Abramowitz and
 * Stegun 1964, 26.7.5). For fewer than three degrees as for three.
 * @example
 * Math.round(studentQuantile(0.975, 10) * 100) / 100 // => 2.23
 * Math.round(studentQuantile(0.975, 1e6) * 100) / 100 // => 1.96
 */
export function studentQuantile(p: number, degrees: number): number {
  const z = normalQuantile(p);
  const n = Math.max(3, degrees);
  const g1 = (z ** 3 + z) / 4;
  const g2 = (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96;
  const g3 = (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384;
  const g4 = (79 * z ** 9 + 776 * z ** 7 + 1482 * z ** 5 - 1920 * z ** 3 - 945 * z) / 92160;
  return z + g1 / n + g2 / n ** 2 + g3 / n ** 3 + g4 / n ** 4;
}

const TAIL = [
  -7.784894002430293e-3, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968,
  2.938163982698783,
];
const TAIL_UNDER = [7.784695709041462e-3, 0.3224671290700398, 2.445134137142996, 3.754408661907416, 1];
const MIDDLE = [
  -39.69683028665376, 220.9460984245205, -275.9285104469687, 138.357751867269, -30.66479806614716, 2.506628277459239,
];
const MIDDLE_UNDER = [
  -54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572, 1,
];

function ratioOf(over: readonly number[], under: readonly number[], x: number): number {
  const at = (c: readonly number[]): number => c.reduce((sum, k) => sum * x + k, 0);
  return at(over) / at(under);
}
