import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { validatePhrase } from '@core/formats';
import type { Phrase } from '@core/recipe';
import { Database } from './database';

/** The phrases of the shelf. */
@Injectable({ providedIn: 'root' })
export class PhrasesRepo {
  private readonly database = inject(Database);

  /** Every readable phrase, newest first. Rows that are no phrase are left where they are and not shown. */
  readonly all$: Observable<readonly Phrase[] | null> = this.database.live<readonly Phrase[] | null>([], async () => {
    const rows = await this.database.db.phrases.toArray();
    return rows.filter((p) => validatePhrase(p)).sort((a, b) => b.created - a.created);
  });

  async get(id: string): Promise<Phrase | null> {
    await this.database.ready;
    const found = await this.database.db.phrases.get(id).catch(() => undefined);
    return found && validatePhrase(found) ? found : null;
  }

  save(phrase: Phrase): Promise<boolean> {
    return this.database.write(() => this.database.db.phrases.put(phrase), `phrase ${phrase.id}`);
  }

  /** Takes a phrase off the shelf with its log and drill, and gives back what puts all of it back. */
  remove(id: string): Promise<(() => Promise<boolean>) | null> {
    return this.database.during(() => this.takeOff(id));
  }

  private async takeOff(id: string): Promise<(() => Promise<boolean>) | null> {
    const { db } = this.database;
    const phrase = await this.get(id);
    if (!phrase) return null;
    const attempts = await db.attempts.where('phrase').equals(id).toArray();
    const drills = await db.drills.where('phrase').equals(id).toArray();
    const gone = await this.database.write(async () => {
      await db.phrases.delete(id);
      await db.attempts.bulkDelete(attempts.map((a) => a.id));
      await db.drills.bulkDelete(drills.map((d) => d.id));
    }, `phrase ${id}`);
    if (!gone) return null;
    return () =>
      this.database.write(async () => {
        await db.phrases.put(phrase);
        await db.attempts.bulkPut(attempts);
        await db.drills.bulkPut(drills);
      });
  }
}
