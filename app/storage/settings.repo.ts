import { computed, inject, Injectable } from '@angular/core';
import type { Settings } from '@core/formats/shelf-file';
import type { OwnSyllables } from '@core/stroke';
import type { Schools } from '@core/time';
import { Database } from './database';
import { KeptValue } from './kept-value';

const USUAL: Settings = { theme: 'light', triplets: 'trip-let', sextuplets: 'trip-let' };

/** The user's settings, followed live so that two tabs agree. */
@Injectable({ providedIn: 'root' })
export class SettingsRepo {
  private readonly value = new KeptValue<Settings>(inject(Database), 'settings', USUAL);
  readonly now = this.value.now;
  readonly schools = computed<Schools>(() => ({ triplets: this.now().triplets, sextuplets: this.now().sextuplets }));

  /** The user's own syllables; empty for ours. */
  readonly sung = computed<OwnSyllables>(() => this.now().sung ?? {});

  change(part: Partial<Settings>): Promise<boolean> {
    return this.value.patch(part);
  }
}
