const { max, min, round } = Math;

/** Seconds round a rise of the spectrum in which the attack itself is looked for. */
const ROUND = { before: 0.022, after: 0.02 } as const;
/** An attack is where so many seconds are loudest against so many before. */
const AFTER = 0.005;
const BEFORE = 0.009;

/**
 * Where an attack begins, in samples, near a moment in samples: where what comes is loudest against what was, in the
 * sound itself or in its differences, which show a stick over a bass note. Clear strokes come out within a
 * millisecond, soft cymbals over a bass within about ten.
 * @example
 * attackNear(Float32Array.from({ length: 4410 }, (_, i) => (i < 2000 ? 0 : Math.sin(i))), 44100, 2200) // => 2000
 */
export function attackNear(samples: Float32Array, rate: number, near: number): number {
  const from = max(1, round(near - ROUND.before * rate));
  const to = min(samples.length - 1, round(near + ROUND.after * rate));
  const [after, before] = [round(AFTER * rate), round(BEFORE * rate)];
  const start = max(1, from - before);
  const end = min(samples.length, to + after);
  // Sums of squares up to each sample, of the sound and of its differences.
  const plain = new Float64Array(end - start + 1);
  const sharp = new Float64Array(end - start + 1);
  for (let i = start; i < end; i++) {
    const [x, was] = [samples[i] ?? 0, samples[i - 1] ?? 0];
    plain[i - start + 1] = (plain[i - start] ?? 0) + x * x;
    sharp[i - start + 1] = (sharp[i - start] ?? 0) + (x - was) * (x - was);
  }
  const best = [plain, sharp].map((sums) => steepest(sums, from - start, to - start, before, after));
  const [a, b] = best;
  const found = a && b ? (b.ratio * 1.5 > a.ratio ? { ...b, sums: sharp } : { ...a, sums: plain }) : null;
  return found ? start + beginIn(found.sums, found.at, after) : round(near);
}

interface Steep {
  readonly at: number;
  readonly ratio: number;
}

function steepest(sums: Float64Array, from: number, to: number, before: number, after: number): Steep {
  const most = (sums.at(-1) ?? 0) / max(1, sums.length);
  const little = most * 0.02 + 1e-12;
  let best: Steep = { at: from, ratio: -1 };
  for (let i = max(from, 1); i <= to; i++) {
    const low = max(0, i - before);
    const high = min(sums.length - 1, i + after);
    const was = ((sums[i] ?? 0) - (sums[low] ?? 0)) / max(1, i - low);
    const comes = ((sums[high] ?? 0) - (sums[i] ?? 0)) / max(1, high - i);
    const ratio = comes / (was + little);
    if (ratio > best.ratio) best = { at: i, ratio };
  }
  return best;
}

/**
 * From the steepest place to the sample where it begins in earnest: past a twentieth of what one millisecond brings.
 */
function beginIn(sums: Float64Array, at: number, after: number): number {
  const high = min(sums.length - 1, at + after);
  const mean = ((sums[high] ?? 0) - (sums[at] ?? 0)) / max(1, high - at);
  let begin = at;
  while (begin < high && (sums[begin + 1] ?? 0) - (sums[begin] ?? 0) < mean * 0.05) begin++;
  return begin;
}
