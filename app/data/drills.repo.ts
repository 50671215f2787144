import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { validateAttempt, validateDrillState } from '@core/formats';
import type { Attempt, DrillState } from '@core/drill';
import { Database } from './database';

/** Drills under way, one to a phrase, and the log of every attempt. */
@Injectable({ providedIn: 'root' })
export class DrillsRepo {
  private readonly database = inject(Database);

  /** Every attempt, oldest first. */
  readonly attempts$: Observable<readonly Attempt[] | null> = this.database.live<readonly Attempt[] | null>(
    [],
    async () => {
      const rows = await this.database.db.attempts.toArray();
      return rows.filter((a) => validateAttempt(a)).sort((a, b) => a.at - b.at);
    },
  );

  readonly drills$: Observable<readonly DrillState[] | null> = this.database.live<readonly DrillState[] | null>(
    [],
    async () => {
      const rows = await this.database.db.drills.toArray();
      return rows.filter((d) => validateDrillState(d) && d.rung < d.rungs.length);
    },
  );

  async of(phrase: string): Promise<DrillState | null> {
    await this.database.ready;
    const found = await this.database.db.drills.where('phrase').equals(phrase).first();
    return found && validateDrillState(found) && found.rung < found.rungs.length ? found : null;
  }

  /**
   * Keeps a drill and its finished tries together. The ids of tries come from the drill, so keeping the same state
   * twice logs nothing twice. A drill that is over leaves only its log.
   */
  keep(drill: DrillState): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      const old = await db.drills.where('phrase').equals(drill.phrase).toArray();
      await db.drills.bulkDelete(old.map((d) => d.id));
      if (drill.phase !== 'done') await db.drills.put(drill);
      await db.attempts.bulkPut(drill.attempts);
    }, `drill ${drill.id}`);
  }

  forget(phrase: string): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(() => db.drills.where('phrase').equals(phrase).delete());
  }
}
