import { build, type Build, type Phrase } from '@core/recipe';

const known = new WeakMap<object, Build>();

/** A phrase worked out. Recipes are never changed in place, so each is built once for as long as it is looked at. */
export function builtOf(phrase: Phrase): Build {
  const found = known.get(phrase.recipe);
  if (found) return found;
  const built = build(phrase.recipe);
  known.set(phrase.recipe, built);
  return built;
}
