import { inject, Injectable } from '@angular/core';
import { validateDraft, type Draft } from '@core/formats';
import { Database } from './database';

/** What is on the Bench, kept at every change: closing the tab loses nothing. */
@Injectable({ providedIn: 'root' })
export class DraftsRepo {
  private readonly database = inject(Database);

  async get(): Promise<Draft | null> {
    await this.database.ready;
    const value = (await this.database.db.kept.get('draft').catch(() => undefined))?.value;
    return validateDraft(value) ? value : null;
  }

  keep(draft: Draft): Promise<boolean> {
    return this.database.write(() => this.database.db.kept.put({ key: 'draft', value: draft }));
  }
}
