import type { Ticks } from '../time';
import { LIMBS, type Limb } from './limb';
import type { Level, Ornament } from './level';
import type { Grace } from './ornament';
import type { Voice } from './voice';

/** Where a stroke came from, so that later moves and the drawing can speak of "the first right of every group". */
export interface Origin {
  /** Slot of the cell it stood in, from 0. */
  readonly index: number;
  /** Which repeat of the cell, from 0. */
  readonly repeat: number;
  /** The move that added it; null for the source. */
  readonly move: string | null;
}

/** One stroke of one limb. `at` is measured from the start of the pattern. */
export interface Stroke {
  readonly at: Ticks;
  readonly limb: Limb;
  readonly voice: Voice;
  readonly level: Level;
  readonly ornament?: Ornament;
  /** What the grace strokes strike, or that the same hand plays them; absent: the other hand, where it is. */
  readonly grace?: Grace;
  readonly from: Origin;
}

/** Order of strokes in a pattern: by time, then by limb. */
export function compareStrokes(a: Stroke, b: Stroke): number {
  return a.at - b.at || LIMBS.indexOf(a.limb) - LIMBS.indexOf(b.limb);
}
