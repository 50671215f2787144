import type { Limb } from '../stroke';
import type { Pattern } from './pattern';
import { limbsOf, longestRun } from './round';

/** Load of one limb. */
export interface LimbLoad {
  readonly limb: Limb;
  readonly strokes: number;
  readonly accents: number;
  /** Most strokes in a row, round the loop: see `longestRun`. */
  readonly longestRun: number;
}

/** Load of every limb that plays, in the order of drawing. */
export function balance(pattern: Pattern): readonly LimbLoad[] {
  return limbsOf(pattern).map((limb) => {
    const own = pattern.strokes.filter((s) => s.limb === limb);
    return {
      limb,
      strokes: own.length,
      accents: own.filter((s) => s.level === 'accent').length,
      longestRun: longestRun(pattern, limb),
    };
  });
}
