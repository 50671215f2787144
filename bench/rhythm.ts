import { GRID, meter, ticks, USUAL_SCHOOLS } from '@core/time';
import { HAND_VOICES, LEVELS, type Stroke } from '@core/stroke';
import { patternOfText, tidy, type Pattern } from '@core/pattern';
import { USUAL_KIT } from '@core/kit';
import { USUAL_PROFILE } from '@core/reach';
import type { StickingWish } from '@core/sticking';

/** A rhythm of n strokes on 16ths, made by a fixed rule so that every run measures the same. */
export function rhythm(n: number): Pattern {
  let seed = 12345;
  const next = (most: number): number => {
    seed = (seed * 48271) % 2147483647;
    return seed % most;
  };
  let at = 0;
  const strokes = Array.from({ length: n }, (): Stroke => {
    const s: Stroke = {
      at: ticks(at),
      limb: 'R',
      voice: HAND_VOICES[next(6)] ?? 'snare',
      level: LEVELS[next(3)] ?? 'tap',
      from: { index: 0, repeat: 0, move: null },
    };
    at += (next(5) === 0 ? 2 : 1) * GRID.sixteenths;
    return s;
  });
  return tidy({ ...patternOfText([], meter(4, 4), GRID.sixteenths), length: ticks(at), strokes });
}

/** Twenty best of each school, as they come. */
export const wish: StickingWish = {
  bpm: 110,
  kit: USUAL_KIT,
  profile: USUAL_PROFILE,
  pins: new Map(),
  schools: USUAL_SCHOOLS,
  many: 20,
  apart: 1,
};
