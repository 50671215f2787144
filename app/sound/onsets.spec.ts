import { OnsetDetector } from '@core/listen';
import { chanceOf } from '@core/take';
import { playing, synthesise } from './voices';

const RATE = 48_000;

/** 16ths at 120 played with our own voices, the click of the beats and the noise of a room in the same microphone. */
function rehearsal(
  seed: number,
  noise: number,
  bleed: number,
): { readonly samples: Float32Array; readonly at: readonly number[] } {
  const chance = chanceOf(seed);
  const samples = new Float32Array(RATE * 8);
  const at: number[] = [];
  const add = (what: Float32Array, where: number, gain: number): void =>
    what.forEach((v, i) => where + i < samples.length && (samples[where + i]! += gain * v));
  for (let n = 0; n < 60; n++) {
    const where = Math.round((0.3 + n * 0.125 + 0.004 * chance.normal()) * RATE);
    const { name, gain } = playing(n % 7 === 3 ? 'rimshot' : 'snare', 60 + Math.floor(chance.next() * 60));
    at.push(where);
    add(synthesise(name, RATE), where, gain);
  }
  for (let beat = 0; beat < 15; beat++)
    add(synthesise(beat % 4 === 0 ? 'click-bar' : 'click-beat', RATE), Math.round((0.3 + beat * 0.5) * RATE), bleed);
  for (let i = 0; i < samples.length; i++) samples[i]! += noise * (chance.next() * 2 - 1);
  return { samples, at };
}

describe('our own voices through the microphone', () => {
  it.each([
    [0, 0],
    [0.003, 0.08],
    [0.006, 0.12],
  ])('noise %d, click bleeding in at %d: F1 at least 0.98 at ± 10 ms, median error at most 3 ms', (noise, bleed) => {
    for (const seed of [3, 4]) {
      const { samples, at } = rehearsal(seed, noise, bleed);
      const found = new OnsetDetector({ rate: RATE, threshold: 0.04, loudest: 0.8 }).push(samples);
      const errors = at.flatMap((t) => {
        const near = Math.min(...found.map((o) => Math.abs(o.sample - t)));
        return near <= RATE * 0.01 ? [near] : [];
      });
      expect((2 * errors.length) / (found.length + at.length)).toBeGreaterThanOrEqual(0.98);
      expect(((errors.sort((a, b) => a - b)[errors.length >> 1] ?? 0) * 1000) / RATE).toBeLessThanOrEqual(3);
    }
  });
});
