import { Injectable } from '@angular/core';
import { proxy, type Remote } from 'comlink';
import type { Recipe } from '@core/recipe';
import type { VariantSheet, VariantWish } from '@core/variants';
import { spawnVariants } from './spawn-variants';
import { remoteOf } from '../../../environment/workers';

interface VariantsApi {
  sheet(recipe: Recipe, wish: VariantWish, shelf: readonly string[], tell: (candidates: number) => void): VariantSheet;
}

/** A search for variants that is under way. */
export interface Search {
  readonly sheet: Promise<VariantSheet>;
  cancel(): void;
}

/** Looks for variants off the main thread. Each search has a worker of its own, and cancelling ends it at once. */
@Injectable({ providedIn: 'root' })
export class VariantsWorker {
  search(recipe: Recipe, wish: VariantWish, shelf: readonly string[], tell: (candidates: number) => void): Search {
    const worker = spawnVariants();
    const remote: Remote<VariantsApi> = remoteOf<VariantsApi>(worker);
    const sheet = remote.sheet(recipe, wish, shelf, proxy(tell)).finally(() => worker.terminate());
    return { sheet, cancel: () => worker.terminate() };
  }
}
