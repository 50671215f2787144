import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { SHELF_LIMITS } from '@core/shelf';
import type { KeptTake } from '@core/take';
import { Database } from './database';

/** What was struck in each try with what was meant, kept so that it can be heard again and saved. */
@Injectable({ providedIn: 'root' })
export class TakesRepo {
  private readonly database = inject(Database);

  of$(phrase: string): Observable<readonly KeptTake[]> {
    return this.database.live<readonly KeptTake[]>([], () =>
      this.database.db.takes.where('phrase').equals(phrase).toArray(),
    );
  }

  /** Keeps a take. Of more than a shelf holds the oldest go; their measurements stay in the log. */
  keep(take: KeptTake): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      await db.takes.put(take);
      const over = (await db.takes.count()) - SHELF_LIMITS.takes;
      if (over > 0) await db.takes.bulkDelete(await db.takes.orderBy('at').limit(over).primaryKeys());
    });
  }
}
