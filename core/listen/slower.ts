const { PI, cos, max, min, round, sqrt } = Math;

/**
 * Lengths in ms: half a piece of what rings, how far a fitting piece is sought, what is copied, what comes before
 * it.
 */
const MS = { half: 12, seek: 8, keep: 35, before: 2 } as const;

/** An attack: where it lies, and where it shall lie, in samples. */
export interface Moved {
  readonly from: number;
  readonly to: number;
}

/**
 * A sound at another pace and in the same pitch, by slices: what begins at an attack is copied as it is for 35 ms,
 * exactly where it shall lie; what rings on is drawn out, or cut short, by overlapping pieces that never reach into the
 * next attack, so that none is doubled, smeared or heard early.
 * @param x one channel
 * @param length samples of what comes out
 * @param attacks ascending in both
 * @returns silence where there is nothing
 * @example
 * paced(new Float32Array(1000), 44100, 2000, []).length // => 2000
 */
export function paced(
  x: Float32Array,
  rate: number,
  length: number,
  attacks: readonly Moved[],
): Float32Array<ArrayBuffer> {
  const ms = (v: number): number => round((rate * v) / 1000);
  const before = ms(MS.before);
  const y = new Float32Array(length);
  const used = attacks.filter(
    (a, i) =>
      a.from > 2 * ms(MS.half) && a.from < x.length - before && a.from - (attacks[i - 1]?.from ?? -rate) > 2 * before,
  );
  const marks = [0, ...used.map((a) => a.from - before), x.length];
  const starts = [0, ...used.map((a) => a.to - before), length];
  for (let k = 0; k + 1 < marks.length; k++) {
    const at = starts[k] ?? 0;
    const last = k + 2 === marks.length;
    const slice = sliceOf(x, rate, {
      from: marks[k] ?? 0,
      to: marks[k + 1] ?? 0,
      // It reaches into what comes before the next attack, where the two are cross-faded.
      length: max(0, (starts[k + 1] ?? 0) - at + (last ? 0 : before)),
    });
    for (let i = 0; i < slice.length && at + i < length; i++) {
      if (at + i < 0) continue;
      const fade = min(1, k > 0 ? (i + 1) / before : 1, last ? 1 : (slice.length - i) / before);
      y[at + i] = (y[at + i] ?? 0) + (slice[i] ?? 0) * fade;
    }
  }
  return y;
}

/**
 * A sound slowed down, its attacks where they belong at that rate.
 * @param rate share of the speed, from 0.2 on
 * @param onsets samples of its attacks, ascending
 */
export function slower(
  x: Float32Array,
  speed: number,
  onsets: readonly number[],
  rate: number,
): Float32Array<ArrayBuffer> {
  const attacks = onsets.map((o) => ({ from: o, to: round(o / speed) }));
  return paced(x, rate, round(x.length / speed), attacks);
}

interface Slice {
  readonly from: number;
  readonly to: number;
  readonly length: number;
}

function sliceOf(x: Float32Array, rate: number, { from, to, length }: Slice): Float32Array {
  const ms = (v: number): number => round((rate * v) / 1000);
  const [half, seek] = [ms(MS.half), ms(MS.seek)];
  const whole = 2 * half;
  const copied = max(0, min(ms(MS.keep), to - from, length));
  const slice = new Float32Array(length);
  slice.set(x.subarray(from, from + copied));
  const tail = from + copied;
  const [room, span] = [to - tail, length - copied];
  if (room <= whole || span <= 0) return slice;
  const bell = Float32Array.from({ length: whole }, (_, i) => 0.5 - 0.5 * cos((2 * PI * (i + 0.5)) / whole));
  // The first piece goes on exactly where the copy ends.
  let last = tail - whole;
  for (let p = -half; p < span; p += half) {
    const natural = last + half;
    const want = round(tail - half + ((p + half) * (room - half)) / max(half, span));
    const best = p < 0 ? natural : alike(x, natural, half, max(from, want - seek), min(to - whole, want + seek));
    last = max(from, min(to - whole, best));
    const o = copied + p;
    for (let i = max(0, copied - o); i < whole && o + i < length; i++)
      slice[o + i] = (slice[o + i] ?? 0) + (x[last + i] ?? 0) * (bell[i] ?? 0);
  }
  return slice;
}

/** Where between two places the sound is most like what would come next. */
function alike(x: Float32Array, natural: number, half: number, from: number, to: number): number {
  let [best, most] = [natural, -Infinity];
  for (let c = from; c <= to; c += 3) {
    let [both, own] = [0, 1e-9];
    for (let i = 0; i < half; i += 5) {
      const b = x[c + i] ?? 0;
      both += (x[natural + i] ?? 0) * b;
      own += b * b;
    }
    const score = both / sqrt(own);
    if (score > most) [most, best] = [score, c];
  }
  return best;
}
