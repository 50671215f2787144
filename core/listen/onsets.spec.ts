import fc from 'fast-check';
import { chanceOf } from '../take';
import { levelsFrom, OnsetDetector, type Onset } from '.';

const { PI, abs, exp, round, sin } = Math;

const RATE = 48_000;

/** A stick on a pad: a burst of bright noise with a body under it. */
function stroke(out: Float32Array, at: number, loud: number, seed: number): void {
  const chance = chanceOf(seed);
  for (let i = 0; i < RATE * 0.08 && at + i < out.length; i++) {
    const t = i / RATE;
    out[at + i] =
      (out[at + i] ?? 0) +
      loud * ((chance.next() * 2 - 1) * exp(-t / 0.012) + 0.4 * sin(2 * PI * 240 * t) * exp(-t / 0.03));
  }
}

/** A take of 16ths at 120 with noise of the room and the click bleeding in. */
function take(seed: number, noise: number, bleed: number): { samples: Float32Array; at: readonly number[] } {
  const chance = chanceOf(seed);
  const samples = new Float32Array(RATE * 9);
  const at: number[] = [];
  for (let n = 0; n < 64; n++) {
    if (chance.next() < 0.1) continue;
    const begin = round((0.3 + n * 0.125 + 0.004 * chance.normal()) * RATE);
    at.push(begin);
    stroke(samples, begin, 0.25 + 0.6 * chance.next(), seed + n);
  }
  for (let n = 0; n < 18; n++)
    for (let i = 0; i < RATE * 0.04; i++) {
      const where = round((0.3 + n * 0.5) * RATE) + i;
      if (where < samples.length)
        samples[where] = (samples[where] ?? 0) + bleed * sin((2 * PI * 990 * i) / RATE + 0.9) * exp(-i / RATE / 0.01);
    }
  for (let i = 0; i < samples.length; i++) samples[i] = (samples[i] ?? 0) + noise * (chance.next() * 2 - 1);
  return { samples, at };
}

function heard(samples: Float32Array, block: number): Onset[] {
  const detector = new OnsetDetector({ rate: RATE, threshold: 0.05, loudest: 0.8 });
  const found: Onset[] = [];
  for (let i = 0; i < samples.length; i += block) found.push(...detector.push(samples.subarray(i, i + block)));
  return found;
}

/** F-measure at ± 10 ms, and the median error in ms. */
function score(found: readonly Onset[], at: readonly number[]): { f1: number; error: number } {
  const free = new Set(found.map((o) => o.sample));
  const errors: number[] = [];
  for (const t of at) {
    const near = [...free].filter((s) => abs(s - t) <= RATE * 0.01).sort((a, b) => abs(a - t) - abs(b - t))[0];
    if (near === undefined) continue;
    free.delete(near);
    errors.push(abs(near - t));
  }
  const hit = errors.length;
  const f1 = (2 * hit) / (found.length + at.length);
  return { f1, error: ((errors.sort((a, b) => a - b)[errors.length >> 1] ?? 0) * 1000) / RATE };
}

describe('hits in samples', () => {
  it('16ths at 120 with noise and the click bleeding in: F1 at least 0.98 at ± 10 ms, median error at most 3 ms', () => {
    for (const [noise, bleed] of [
      [0, 0],
      [0.003, 0.05],
      [0.008, 0.1],
    ] as const)
      for (const seed of [1, 2]) {
        const { samples, at } = take(seed, noise, bleed);
        const { f1, error } = score(heard(samples, 128), at);
        expect(f1).toBeGreaterThanOrEqual(0.98);
        expect(error).toBeLessThanOrEqual(3);
      }
  });
  it('the click alone is no hit', () => {
    const { samples } = take(4, 0.002, 0.12);
    const alone = new Float32Array(samples.length);
    for (let n = 0; n < 18; n++)
      for (let i = 0; i < RATE * 0.04; i++) {
        const where = round((0.3 + n * 0.5) * RATE) + i;
        if (where < alone.length) alone[where] = 0.12 * sin((2 * PI * 1760 * i) / RATE + 0.9) * exp(-i / RATE / 0.0125);
      }
    expect(heard(alone, 128)).toEqual([]);
  });
  it('the answer does not depend on the size of the blocks', () => {
    const { samples } = take(5, 0.003, 0.05);
    const whole = heard(samples, samples.length);
    fc.assert(
      fc.property(fc.integer({ min: 16, max: 4096 }), (block) => {
        expect(heard(samples, block)).toEqual(whole);
      }),
      { numRuns: 3 },
    );
  });
  it('loud hits are loud: velocity rises with the peak and stays in its bounds', () => {
    const detector = new OnsetDetector({ rate: RATE, threshold: 0.05, loudest: 0.8 });
    expect(detector.velocityOf(0.8)).toBe(127);
    expect(detector.velocityOf(9)).toBe(127);
    expect(detector.velocityOf(0)).toBe(1);
    expect(detector.velocityOf(0.2)).toBeLessThan(detector.velocityOf(0.4));
  });
  it('levels come from hitting softly and hard; where soft does not stand out of the room there are none', () => {
    const levels = levelsFrom([0.1, 0.12], [0.6, 0.8], 0.01)!;
    expect(levels.threshold).toBeGreaterThan(0.015);
    expect(levels.threshold).toBeLessThan(0.1);
    expect(levels.loudest).toBe(0.8);
    expect(levelsFrom([0.1], [0.6, 0.8], 0.01)).toBeNull();
    expect(levelsFrom([0.012, 0.02], [0.6, 0.8], 0.01)).toBeNull();
  });
});
