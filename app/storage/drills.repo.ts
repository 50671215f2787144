import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { NO_BEST, type Attempt, type Best, type DrillState } from '@core/drill';
import { SHELF_LIMITS } from '@core/shelf';
import { now } from '../environment/clock';
import { Database } from './database';
import { HealthService } from './health.service';
import { asLogged, lastTries, logTries, thinned, triesByParts } from './tries';

/** The most drills under way that are listed, and how many of the newest are looked at for them. */
const MOST_LISTED = 60;
const MOST_LOOKED_AT = 300;

/** Drills under way, one to a phrase, and the log of every try. */
@Injectable({ providedIn: 'root' })
export class DrillsRepo {
  private readonly database = inject(Database);
  private readonly health = inject(HealthService);
  /** Tries that ended and that the log does not hold yet, by their drills: what could not be written is owed. */
  private readonly owed = new Map<string, readonly Attempt[]>();

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
   * Keeps a drill, and logs the try that just ended, in one transaction. Only that try is added: what the log, or
   * another tab, says of those before stands. Of a drill that is over only that is kept, so that no other device brings
   * it back.
   */
  async keep(drill: DrillState, ended?: Attempt): Promise<boolean> {
    const { db } = this.database;
    if (ended) this.owed.set(drill.id, [...(this.owed.get(drill.id) ?? []), ended]);
    const thin: { told: Awaited<ReturnType<typeof thinned>> } = { told: null };
    let logged: readonly Attempt[] = [];
    const well = await this.database.write(async () => {
      logged = this.owed.get(drill.id) ?? [];
      const found = await db.drills.where('phrase').equals(drill.phrase).toArray();
      await db.drills.bulkDelete(found.flatMap((d) => (d.id === drill.id ? [] : d.id)));
      const standing = found.find((d) => d.id === drill.id)?.attempts ?? [];
      const fresh = withoutThose(logged, standing);
      // What does not stand there was taken out of the log, or another device's drill took the place of this one.
      const away = withoutThose(drill.attempts, [...standing, ...fresh]);
      const back = away.length === 0 ? [] : await asLogged(db, drill.phrase, away);
      const attempts = [...standing, ...back, ...withoutThose(fresh, back)].sort((a, b) => a.at - b.at);
      await db.drills.put({ ...(drill.phase === 'done' ? over(drill) : { ...drill, attempts }), at: now() });
      thin.told = (await logTries(db, drill.phrase, logged)) > 0 ? await thinned(db) : null;
    }, `drill ${drill.id}`);
    if (well) this.paid(drill.id, logged);
    if (well && thin.told) this.health.tell(thinWords(thin.told));
    return well;
  }

  private paid(id: string, logged: readonly Attempt[]): void {
    const left = withoutThose(this.owed.get(id) ?? [], logged);
    if (left.length > 0) this.owed.set(id, left);
    else this.owed.delete(id);
  }

  /** Tries of a phrase as the log has them by now; those that were taken out of it are missing. */
  asLogged(phrase: string, tries: readonly Attempt[]): Promise<readonly Attempt[]> {
    return this.database.read(tries, () => asLogged(this.database.db, phrase, tries));
  }

  forget(phrase: string): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      const found = await db.drills.where('phrase').equals(phrase).toArray();
      await db.drills.bulkPut(found.map((d) => ({ ...over(d), at: now() })));
    });
  }
}

function withoutThose(tries: readonly Attempt[], others: readonly Attempt[]): readonly Attempt[] {
  const ids = new Set(others.map((t) => t.id));
  return tries.filter((t) => !ids.has(t.id));
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
  return `The Log is full at ${SHELF_LIMITS.attempts.toLocaleString('en')} tries. Of one phrase, ${gone} old ones were thinned to the best of each day.`;
}
