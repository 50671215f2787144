import { inject, Injectable } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { moment } from '@core/base';
import { keptSittings, SITTING_LIMITS, type FreeSitting } from '@core/shelf';
import { now } from '../environment/clock';
import { Database } from './database';

/** What was played freely, as it is kept. */
@Injectable({ providedIn: 'root' })
export class SittingsRepo {
  private readonly database = inject(Database);
  /** Those that are there, the newest first. */
  readonly all = toSignal(
    this.database.live<readonly FreeSitting[] | null>([], async () =>
      (await this.database.db.freeSittings.orderBy('at').reverse().toArray()).filter((s) => !s.dropped),
    ),
    { initialValue: null },
  );

  /** One sitting; null when it is not there. */
  of(id: string): Promise<FreeSitting | null> {
    return this.database.read(null, async () => (await this.database.db.freeSittings.get(id)) ?? null);
  }

  /**
   * Keeps a sitting. Of hits beyond what a shelf holds the oldest sittings lose theirs; what came in them stays.
   * Resolves to whether it could be kept, and how many older ones gave up their hits.
   */
  async keep(sitting: FreeSitting): Promise<{ readonly kept: boolean; readonly thinned: number }> {
    const { db } = this.database;
    let thinned = 0;
    const kept = await this.database.write(async () => {
      const own = { ...sitting, hits: sitting.hits.slice(0, SITTING_LIMITS.hits), changed: moment(now()) };
      const before = (await db.freeSittings.toArray()).filter((s) => s.id !== own.id);
      const stay = new Map(keptSittings([own, ...before]).map((s) => [s.id, s]));
      for (const s of before) {
        const next = stay.get(s.id);
        if (!next) await db.freeSittings.delete(s.id);
        else if (next.hits.length < s.hits.length) {
          thinned++;
          await db.freeSittings.put({ ...next, changed: moment(now(), s.changed) });
        }
      }
      await db.freeSittings.put(own);
    });
    return { kept, thinned };
  }

  /** What was read anew of a sitting. Resolves to what takes it back; null when it is gone or could not be kept. */
  async change(id: string, how: (sitting: FreeSitting) => FreeSitting): Promise<(() => Promise<boolean>) | null> {
    const { db } = this.database;
    const done: { was?: FreeSitting } = {};
    const well = await this.database.write(async () => {
      const was = await db.freeSittings.get(id);
      if (!was) return;
      await db.freeSittings.put({ ...how(was), id, changed: moment(now(), was.changed) });
      done.was = was;
    });
    const { was } = done;
    if (!well || !was) return null;
    return () =>
      this.database.write(async () => {
        const stands = await db.freeSittings.get(id);
        await db.freeSittings.put({ ...was, changed: moment(now(), stands?.changed ?? was.changed) });
      });
  }

  /** Drops a sitting: that it is gone is remembered. */
  drop(id: string): Promise<(() => Promise<boolean>) | null> {
    return this.change(id, (s) => ({ ...s, dropped: true, hits: [], came: [], figures: [], calls: [] }));
  }
}
