import { ticks, type Ticks } from '../time';
import { difference } from '../pattern';
import { build, type Build } from './build';

/**
 * Ticks of the finished pattern at which it would be another without one move: what that move is worth to the whole.
 * Empty for a move that is off or changes nothing, and for an id the recipe does not have.
 */
export function effectOf(built: Build, id: string): readonly Ticks[] {
  const entry = built.recipe.moves.find((m) => m.id === id);
  if (!entry?.on) return [];
  const moves = built.recipe.moves.map((m) => (m.id === id ? { ...m, on: false } : m));
  const without = build({ ...built.recipe, moves }, built).pattern;
  return [...new Set(difference(without, built.pattern).map((d): number => d.at))]
    .filter((t) => t < built.pattern.length)
    .map(ticks);
}
