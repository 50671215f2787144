import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { validateTake } from '@core/formats';
import type { KeptTake } from '@core/take';
import { Database } from './database';

/** The most takes that are kept; the oldest go first. Their measurements stay in the log. */
const MOST_TAKES = 300;

/** What was struck in each try with what was meant, kept so that it can be heard again and saved. */
@Injectable({ providedIn: 'root' })
export class TakesRepo {
  private readonly database = inject(Database);

  of$(phrase: string): Observable<readonly KeptTake[]> {
    return this.database.live<readonly KeptTake[]>([], async () => {
      const rows = await this.database.db.takes.where('phrase').equals(phrase).toArray();
      return rows.filter((t) => validateTake(t));
    });
  }

  keep(take: KeptTake): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      await db.takes.put(take);
      const over = (await db.takes.count()) - MOST_TAKES;
      if (over > 0) await db.takes.bulkDelete(await db.takes.orderBy('at').limit(over).primaryKeys());
    });
  }
}
