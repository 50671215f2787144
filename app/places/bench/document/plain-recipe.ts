import type { PlainRecipe, Recipe } from '@core/recipe';

/**
 * The recipe as another phrase may hold it, or null when it is joined itself: phrases do not hold each other without
 * end.
 */
export function plainRecipe(recipe: Recipe): PlainRecipe | null {
  const moves = recipe.moves.flatMap((m) => (m.move === 'join' ? [] : [m]));
  return moves.length === recipe.moves.length ? { source: recipe.source, moves } : null;
}
