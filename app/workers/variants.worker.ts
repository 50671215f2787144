import { expose } from 'comlink';
import { build, type Recipe } from '@core/recipe';
import { canonicalForm, variantsOf, type VariantSheet, type VariantWish } from '@core/variants';

/** Works out a sheet, telling how many candidates it has seen. Stopping it means ending the worker. */
function sheet(
  recipe: Recipe,
  wish: VariantWish,
  shelf: readonly Recipe[],
  tell: (candidates: number) => void,
): VariantSheet {
  const forms = new Set(shelf.map((r) => canonicalForm(build(r).pattern)));
  const steps = variantsOf(recipe, wish, forms);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    tell(step.value);
  }
}

expose({ sheet });
