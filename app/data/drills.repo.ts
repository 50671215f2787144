import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { NO_BEST, type Attempt, type Best, type DrillState } from '@core/drill';
import { SHELF_LIMITS } from '@core/shelf';
import { now } from './clock';
import { Database } from './database';
import { HealthService } from './health.service';
import { lastTries, logTries, thinned, triesByParts } from './tries';

/** The most drills under way that are listed, and how many of the newest are looked at for them. */
const MOST_LISTED = 60;
const MOST_LOOKED_AT = 300;

/** Drills under way, one to a phrase, and the log of every try. */
@Injectable({ providedIn: 'root' })
export class DrillsRepo {
  private readonly database = inject(Database);
  private readonly health = inject(HealthService);

  /** Every try of a phrase, oldest first; null until they are read. */
  triesOf$(phrase: string): Observable<readonly Attempt[] | null> {
    return this.database.live<readonly Attempt[] | null>([], () => triesByParts(this.database.db, phrase));
  }

  /** The newest tries of a phrase, oldest first. */
  async lastTriesOf(phrase: string): Promise<readonly Attempt[]> {
    return this.database.read<readonly Attempt[]>([], () => lastTries(this.database.db, phrase));
  }

  /** What the tries of a phrase add up to. */
  async bestOf(phrase: string): Promise<Best> {
    return this.database.read(NO_BEST, async () => (await this.database.db.tallies.get(phrase)) ?? NO_BEST);
  }

  /** The same, followed. */
  bestOf$(phrase: string): Observable<Best> {
    return this.database.live<Best>(NO_BEST, async () => (await this.database.db.tallies.get(phrase)) ?? NO_BEST);
  }

  /** Drills under way, the one that was kept last first. */
  readonly drills$: Observable<readonly DrillState[] | null> = this.database.live<readonly DrillState[] | null>(
    [],
    async () => {
      const { drills } = this.database.db;
      const newest = await drills.orderBy('at').reverse().limit(MOST_LOOKED_AT).primaryKeys();
      const rows = (await drills.bulkGet(newest)).flatMap((d) => (d && d.phase !== 'done' ? [d] : []));
      return rows.slice(0, MOST_LISTED);
    },
  );

  async of(phrase: string): Promise<DrillState | null> {
    const found = await this.database.read(undefined, () =>
      this.database.db.drills.where('phrase').equals(phrase).first(),
    );
    return found && found.phase !== 'done' ? found : null;
  }

  /** The drill of a phrase, followed: null when there is none under way. */
  of$(phrase: string): Observable<DrillState | null> {
    return this.database.live<DrillState | null>(null, async () => {
      const found = await this.database.db.drills.where('phrase').equals(phrase).first();
      return found && found.phase !== 'done' ? found : null;
    });
  }

  /**
   * Keeps a drill and its finished tries together. The ids of tries come from the drill, so keeping the same state
   * twice logs nothing twice. Of a drill that is over only that is kept, so that no other device brings it back.
   */
  async keep(drill: DrillState): Promise<boolean> {
    const { db } = this.database;
    const thin: { told: Awaited<ReturnType<typeof thinned>> } = { told: null };
    const well = await this.database.write(async () => {
      const old = await db.drills.where('phrase').equals(drill.phrase).primaryKeys();
      await db.drills.bulkDelete(old.filter((id) => id !== drill.id));
      await db.drills.put({ ...(drill.phase === 'done' ? over(drill) : drill), at: now() });
      const fresh = await logTries(db, drill.phrase, drill.attempts);
      thin.told = fresh > 0 ? await thinned(db) : null;
    }, `drill ${drill.id}`);
    if (well && thin.told) this.health.tell(thinWords(thin.told));
    return well;
  }

  forget(phrase: string): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      const found = await db.drills.where('phrase').equals(phrase).toArray();
      await db.drills.bulkPut(found.map((d) => ({ ...over(d), at: now() })));
    });
  }
}

function over(drill: DrillState): DrillState {
  return {
    ...drill,
    phase: 'done',
    rung: Math.min(drill.rung, drill.rungs.length - 1),
    attempts: [],
    tryBegan: null,
  };
}

function thinWords({ gone }: { readonly gone: number }): string {
  return `The log holds ${SHELF_LIMITS.attempts.toLocaleString('en')} tries, as many as it can. Of the phrase with the most tries the oldest ${gone} were thinned to the best of each day. A backup under Kit keeps them all.`;
}
