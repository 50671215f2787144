/** The least and the greatest of every so many samples, level by level: what a wave is drawn from at any width. */
export interface Peaks {
  readonly rate: number;
  readonly samples: number;
  /** Level k has a pair for every `FIRST * 8 ** k` samples: least, greatest, least … */
  readonly levels: readonly Float32Array[];
}

/** Samples to a pair of the finest level; below that the samples themselves are drawn. */
export const FIRST_PEAK = 64;
const NEXT = 8;

/**
 * The peaks of a recording.
 * @example
 * peaksOf(Float32Array.from([0, 1, -1, 0]), 44100).levels[0] // => Float32Array.from([-1, 1])
 */
export function peaksOf(samples: Float32Array, rate: number): Peaks {
  const first = new Float32Array(2 * Math.max(1, Math.ceil(samples.length / FIRST_PEAK)));
  for (let k = 0; 2 * k < first.length; k++) {
    const end = Math.min(samples.length, (k + 1) * FIRST_PEAK);
    let [low, high] = [Infinity, -Infinity];
    for (let i = k * FIRST_PEAK; i < end; i++) {
      const x = samples[i] ?? 0;
      if (x < low) low = x;
      if (x > high) high = x;
    }
    first[2 * k] = low === Infinity ? 0 : low;
    first[2 * k + 1] = high === -Infinity ? 0 : high;
  }
  const levels = [first];
  for (let fine = first; fine.length > 4 * NEXT;) {
    const coarse = new Float32Array(2 * Math.ceil(fine.length / 2 / NEXT));
    for (let k = 0; 2 * k < coarse.length; k++) {
      const part = fine.subarray(2 * k * NEXT, 2 * (k + 1) * NEXT);
      coarse[2 * k] = part.reduce((a, x) => Math.min(a, x), Infinity);
      coarse[2 * k + 1] = part.reduce((a, x) => Math.max(a, x), -Infinity);
    }
    levels.push(coarse);
    fine = coarse;
  }
  return { rate, samples: samples.length, levels };
}

/**
 * A wave from one moment to another in so many columns, each with its least and greatest: from the peaks that are just
 * fine enough.
 * @param from seconds
 * @param to seconds
 * @example
 * waveBetween(peaksOf(new Float32Array(44100), 44100), 0, 1, 4) // => [[0, 0], [0, 0], [0, 0], [0, 0]]
 */
export function waveBetween(
  { rate, levels }: Peaks,
  from: number,
  to: number,
  columns: number,
): readonly (readonly [least: number, greatest: number])[] {
  const per = ((to - from) * rate) / Math.max(1, columns);
  let level = 0;
  while (level + 1 < levels.length && FIRST_PEAK * NEXT ** (level + 1) <= per) level++;
  const pairs = levels[level] ?? new Float32Array(2);
  const size = FIRST_PEAK * NEXT ** level;
  return Array.from({ length: Math.max(0, columns) }, (_, c) => {
    const begin = Math.floor((from * rate + c * per) / size);
    const end = Math.max(begin + 1, Math.ceil((from * rate + (c + 1) * per) / size));
    let [low, high] = [0, 0];
    for (let k = Math.max(0, begin); k < end && 2 * k < pairs.length; k++) {
      low = Math.min(low, pairs[2 * k] ?? 0);
      high = Math.max(high, pairs[2 * k + 1] ?? 0);
    }
    return [low, high] as const;
  });
}
