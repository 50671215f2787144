/**
 * Greatest common divisor of two integers; 0 and n give n.
 * @example
 * gcd(12, 18) // => 6
 */
export function gcd(a: number, b: number): number {
  let [x, y] = [Math.abs(a), Math.abs(b)];
  while (y !== 0) [x, y] = [y, x % y];
  return x;
}

/**
 * Least common multiple of two positive integers.
 * @example
 * lcm(5, 16) // => 80
 */
export function lcm(a: number, b: number): number {
  return (a / gcd(a, b)) * b;
}

/**
 * The remainder that is never negative.
 * @example
 * mod(-1, 16) // => 15
 */
export function mod(n: number, m: number): number {
  return ((n % m) + m) % m;
}

/**
 * n held between low and high; NaN gives low.
 * @example
 * clamp(1000, 20, 400) // => 400
 */
export function clamp(n: number, low: number, high: number): number {
  return n >= low ? Math.min(n, high) : low;
}

/**
 * The sum of numbers; 0 of none.
 * @example
 * sum([1, 2, 3.5]) // => 6.5
 */
export function sum(numbers: readonly number[]): number {
  return numbers.reduce((a, b) => a + b, 0);
}
