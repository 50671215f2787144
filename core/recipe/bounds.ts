import { MOST_JOINS, MOST_MOVES, type PlainRecipe } from './plain';
import type { Recipe } from './recipe';

/** The lists of moves of the phrases that a recipe joins. */
export function joinedIn(recipe: Recipe): readonly PlainRecipe['moves'][] {
  return recipe.moves.flatMap((m) => (m.move === 'join' ? [m.params.other.moves] : []));
}

/**
 * Why a recipe holds more than a phrase may, in words with what to do; null when it does not.
 * @example
 * tooMuch({ source: { kind: 'typed', text: 'R', meter: '4/4', grid: 1260 }, moves: [] }) // => null
 */
export function tooMuch(recipe: Recipe): string | null {
  const { moves } = recipe;
  if (moves.length > MOST_MOVES)
    return `A recipe holds at most ${MOST_MOVES} moves. Remove one, or keep this phrase and continue from its sticking.`;
  if (moves.filter((m) => m.move === 'join').length > MOST_JOINS)
    return `A phrase joins at most ${MOST_JOINS} others. Keep this one, and join it to a new one.`;
  if (joinedIn(recipe).some((own) => own.length > MOST_MOVES))
    return `The other phrase holds more than ${MOST_MOVES} moves, so it cannot be joined.`;
  return null;
}
