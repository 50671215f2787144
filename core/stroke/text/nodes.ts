import type { Limb } from '../limb';
import type { Level, Ornament } from '../level';

/** One stroke as typed: no time and no voice yet. */
export interface TypedStroke {
  readonly limb: Limb;
  readonly level: Level;
  readonly ornament?: Ornament;
}

/** What stroke text is made of. Each stroke, rest and hold takes one slot. */
export type Node =
  | { readonly kind: 'strokes'; readonly strokes: readonly TypedStroke[] }
  | { readonly kind: 'rest' }
  | { readonly kind: 'hold' }
  | { readonly kind: 'repeat'; readonly nodes: readonly Node[]; readonly times: number };

/** Bounds of what one line may say; past them it is refused in words. */
export const TEXT_LIMITS = Object.freeze({ slots: 2048, repeats: 99, depth: 8, letters: 20_000 });
