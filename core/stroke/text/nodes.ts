import type { Limb } from '../limb';
import type { Level, Ornament } from '../level';
import type { Grace } from '../ornament';
import type { Voice } from '../voice';

/** One stroke as typed: no time yet, and a voice only where it was written. */
export interface TypedStroke {
  readonly limb: Limb;
  readonly level: Level;
  readonly ornament?: Ornament;
  /** What it strikes; absent for the limb's usual. */
  readonly voice?: Voice;
  /** What its grace strokes strike, or that the same hand plays them; absent: the other hand, where it is. */
  readonly grace?: Grace;
}

/** What stroke text is made of. Each stroke, rest and hold takes one slot. */
export type Node =
  | { readonly kind: 'strokes'; readonly strokes: readonly TypedStroke[] }
  | { readonly kind: 'rest' }
  | { readonly kind: 'hold' }
  | { readonly kind: 'repeat'; readonly nodes: readonly Node[]; readonly times: number };

/** Bounds of what one line may say; past them it is refused in words. */
export const TEXT_LIMITS = Object.freeze({ slots: 2048, repeats: 99, depth: 8, letters: 20_000 });
