import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Attempt } from '@core/drill';
import { SHELF_LIMITS } from '@core/shelf';
import type { KeptTake } from '@core/take';
import { Database } from './database';
import { logTries, thinned } from './tries';

/** What was struck in each try with what was meant, kept so that it can be heard again and saved. */
@Injectable({ providedIn: 'root' })
export class TakesRepo {
  private readonly database = inject(Database);

  of$(phrase: string): Observable<readonly KeptTake[]> {
    return this.database.live<readonly KeptTake[]>([], () =>
      this.database.db.takes.where('phrase').equals(phrase).toArray(),
    );
  }

  /** Keeps a try that belongs to no drill, as of a run-through, with what was struck where something listened. */
  keepTry(attempt: Attempt, take: KeptTake | null): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      await logTries(db, attempt.phrase, [attempt]);
      await thinned(db);
      if (take) await this.put(take);
    });
  }

  /** Keeps a take. Of more than a shelf holds the oldest go; their measurements stay in the log. */
  keep(take: KeptTake): Promise<boolean> {
    return this.database.write(() => this.put(take));
  }

  private async put(take: KeptTake): Promise<void> {
    const { takes } = this.database.db;
    await takes.put(take);
    const over = (await takes.count()) - SHELF_LIMITS.takes;
    if (over > 0) await takes.bulkDelete(await takes.orderBy('at').limit(over).primaryKeys());
  }
}
