import { computed, inject, Injectable, signal } from '@angular/core';
import { validateSettings, type Settings } from '@core/formats';
import type { OwnSyllables } from '@core/stroke';
import type { Schools } from '@core/time';
import { Database } from './database';

const USUAL: Settings = { theme: 'light', triplets: 'trip-let', sextuplets: 'trip-let' };

/** The user's settings, followed live so that two tabs agree. */
@Injectable({ providedIn: 'root' })
export class SettingsRepo {
  private readonly database = inject(Database);
  private readonly state = signal<Settings>(USUAL);
  readonly now = this.state.asReadonly();
  readonly schools = computed<Schools>(() => ({ triplets: this.state().triplets, sextuplets: this.state().sextuplets }));

  /** The user's own syllables; empty for ours. */
  readonly sung = computed<OwnSyllables>(() => this.state().sung ?? {});

  constructor() {
    this.database
      .live<unknown>(null, async () => (await this.database.db.kept.get('settings'))?.value)
      .subscribe((value) => {
        if (validateSettings(value)) this.state.set(value);
      });
  }

  change(part: Partial<Settings>): Promise<boolean> {
    const next = { ...this.state(), ...part };
    this.state.set(next);
    return this.database.write(() => this.database.db.kept.put({ key: 'settings', value: next }));
  }
}
