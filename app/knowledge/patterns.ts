import type { Pattern } from '@core/pattern';
import { build, type Phrase } from '@core/recipe';

/** More than a shelf holds: beyond it, what is known is forgotten and worked out again when it is needed. */
const MOST_KNOWN = 20_000;

const byRecipe = new WeakMap<object, Pattern>();
/** What was read from storage again is another object with the same recipe in it. */
const byId = new Map<string, { readonly recipe: string; readonly pattern: Pattern }>();

/** The pattern of a phrase, if it was worked out before. Recipes are never changed in place. */
export function knownPattern({ id, recipe }: Phrase): Pattern | null {
  const same = byRecipe.get(recipe);
  if (same) return same;
  const known = byId.get(id);
  if (known?.recipe !== JSON.stringify(recipe)) return null;
  byRecipe.set(recipe, known.pattern);
  return known.pattern;
}

/** A phrase worked out, once for as long as its recipe stays the same. */
export function patternOf(phrase: Phrase): Pattern {
  const known = knownPattern(phrase);
  if (known) return known;
  const { pattern } = build(phrase.recipe);
  if (byId.size >= MOST_KNOWN) byId.clear();
  byId.set(phrase.id, { recipe: JSON.stringify(phrase.recipe), pattern });
  byRecipe.set(phrase.recipe, pattern);
  return pattern;
}
