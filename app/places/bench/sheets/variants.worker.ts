import { expose } from 'comlink';
import type { Recipe } from '@core/recipe';
import { variantsOf, type VariantSheet, type VariantWish } from '@core/variants';

/** Works out a sheet, telling how many candidates it has seen. Stopping it means ending the worker. */
function sheet(
  recipe: Recipe,
  wish: VariantWish,
  shelf: readonly string[],
  tell: (candidates: number) => void,
): VariantSheet {
  const steps = variantsOf(recipe, wish, new Set(shelf));
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    tell(step.value);
  }
}

expose({ sheet });
