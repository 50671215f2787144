import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import type { Demands } from '@core/compose';
import type { Pattern } from '@core/pattern';
import { recipeOf, type Recipe } from '@core/recipe';
import { keptTempo } from '@core/time';

/** What another place has for the Bench: what is to be asked for there, or something new that is laid on it. */
@Injectable({ providedIn: 'root' })
export class WantedService {
  private readonly router = inject(Router);
  /** Counts what was asked, so that the same place can be asked again. */
  private times = 0;
  private wanted: Partial<Demands> | null = null;
  private laid: { readonly recipe: Recipe; readonly tempo: number } | null = null;

  /** Opens the Bench on a phrase that is asked for. */
  async ask(demands: Partial<Demands>): Promise<void> {
    this.wanted = demands;
    await this.router.navigate(['/bench'], { queryParams: { asks: ++this.times } });
  }

  /** Opens the Bench with something new on it. */
  async lay(recipe: Recipe, tempo: number): Promise<void> {
    this.laid = { recipe, tempo };
    await this.router.navigate(['/bench'], { queryParams: { laid: ++this.times } });
  }

  /** Opens the Bench with strokes that were played. Resolves to whether they are not too long for it. */
  async layPattern(pattern: Pattern, bpm: number): Promise<boolean> {
    const recipe = recipeOf(pattern);
    if (recipe) await this.lay(recipe, keptTempo(bpm));
    return recipe !== null;
  }

  /** What is to be laid on the Bench, once; null where nothing is. */
  takeLaid(): { readonly recipe: Recipe; readonly tempo: number } | null {
    const { laid } = this;
    this.laid = null;
    return laid;
  }

  /** What was asked for elsewhere, once; null where nothing was. */
  take(): Partial<Demands> | null {
    const { wanted } = this;
    this.wanted = null;
    return wanted;
  }
}
