import { inject, Injectable } from '@angular/core';
import { validateDraft, type Draft } from '@core/formats';
import { Database } from './database';
import { NewestWrite } from './newest-write';

/** What is on the Bench, kept at every change: closing the tab loses nothing. */
@Injectable({ providedIn: 'root' })
export class DraftsRepo {
  private readonly database = inject(Database);
  private readonly writes = new NewestWrite<Draft>((draft) => this.database.put('draft', draft));

  async get(): Promise<Draft | null> {
    await this.database.ready;
    const value = (await this.database.db.kept.get('draft').catch(() => undefined))?.value;
    return validateDraft(value) ? value : null;
  }

  /** Keeps a draft; only the newest is worth keeping. */
  keep(draft: Draft): Promise<boolean> {
    return this.writes.keep(draft);
  }
}
