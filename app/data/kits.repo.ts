import { computed, inject, Injectable } from '@angular/core';
import { currentKit, USUAL_KITS, type Kit, type Kits } from '@core/kit';
import { Database } from './database';
import { KeptValue } from './kept-value';

/** The user's kits. Phrases never change with them. */
@Injectable({ providedIn: 'root' })
export class KitsRepo {
  private readonly value = new KeptValue<Kits>(inject(Database), 'kits', USUAL_KITS);
  readonly all = this.value.now;
  readonly current = computed<Kit>(() => currentKit(this.all()));

  keep(kits: Kits): Promise<boolean> {
    return this.value.keep(kits);
  }
}
