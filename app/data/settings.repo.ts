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
  /** How many changes are being written: what comes back meanwhile is older than what is here. */
  private writing = 0;
  readonly schools = computed<Schools>(() => ({
    triplets: this.state().triplets,
    sextuplets: this.state().sextuplets,
  }));

  /** The user's own syllables; empty for ours. */
  readonly sung = computed<OwnSyllables>(() => this.state().sung ?? {});

  constructor() {
    this.database
      .live<unknown>(null, async () => (await this.database.db.kept.get('settings'))?.value)
      .subscribe((value) => {
        if (this.writing === 0 && validateSettings(value)) this.state.set(value);
      });
  }

  /**
   * The part is put into what is kept, not into what this tab has read so far: a change in the first moment, or in
   * another tab, undoes no other.
   */
  async change(part: Partial<Settings>): Promise<boolean> {
    const { kept } = this.database.db;
    this.state.update((now) => ({ ...now, ...part }));
    this.writing++;
    const well = await this.database.write(async () => {
      const before = (await kept.get('settings'))?.value;
      await kept.put({ key: 'settings', value: { ...(validateSettings(before) ? before : USUAL), ...part } });
    });
    this.writing--;
    return well;
  }
}
