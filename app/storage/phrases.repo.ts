import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { moment, stableJson } from '@core/base';
import type { Phrase } from '@core/recipe';
import {
  keptStates,
  MOST_REMOVALS,
  REMOVED_FOR,
  SHELF_LIMITS,
  stateOf,
  type KeptState,
  type Removal,
} from '@core/shelf';
import { now } from '../environment/clock';
import { Database } from './database';
import { FULL } from './phrases.words';
import { pagesRange } from './tries';

/** What came of keeping a phrase. */
export type Keeping =
  | { readonly kind: 'kept'; readonly phrase: Phrase; readonly undo: (() => Promise<boolean>) | null }
  /** It was kept elsewhere since it was put here: `theirs` is what stands there, null where it was taken off. */
  | { readonly kind: 'elsewhere'; readonly theirs: Phrase | null }
  /** It is beyond what a shelf holds. */
  | { readonly kind: 'full'; readonly words: string }
  /** The browser could not keep it: that is shown, and can be tried again. */
  | { readonly kind: 'failed' };

/** The most removed phrases that are listed to be brought back. */
const MOST_REMOVED = 500;

/** The phrases of the shelf, what they were before, and those that were taken off. */
@Injectable({ providedIn: 'root' })
export class PhrasesRepo {
  private readonly database = inject(Database);

  async get(id: string): Promise<Phrase | null> {
    return this.database.read(null, async () => (await this.database.db.phrases.get(id)) ?? null);
  }

  async some(ids: readonly string[]): Promise<readonly Phrase[]> {
    const rows = await this.database.read([], () => this.database.db.phrases.bulkGet([...ids]));
    return rows.filter((p) => p !== undefined);
  }

  /** One phrase, followed: null once it is not on the shelf. */
  of$(id: string): Observable<Phrase | null> {
    return this.database.live<Phrase | null>(null, async () => (await this.database.db.phrases.get(id)) ?? null);
  }

  /** How many there are, followed; null until it is known. */
  readonly many$: Observable<number | null> = this.database.live<number | null>(0, () =>
    this.database.db.phrases.count(),
  );

  /** The grooves of the shelf, up to a number of them. */
  grooves$(most: number): Observable<readonly Phrase[] | null> {
    return this.database.live<readonly Phrase[] | null>([], () =>
      this.database.db.phrases.where('family').equals('groove').limit(most).toArray(),
    );
  }

  /** What a phrase was before, the latest first. */
  statesOf(id: string): Promise<readonly KeptState[]> {
    return this.database.read([], async () => {
      const [stands, states] = [await this.get(id), await this.database.db.states.where('phrase').equals(id).toArray()];
      return keptStates(states, stands);
    });
  }

  /** Phrases that were taken off and can still be brought back, the last one first. */
  readonly removed$: Observable<readonly (Removal & { readonly phrase: Phrase })[]> = this.database.live<
    readonly (Removal & { readonly phrase: Phrase })[]
  >([], async () => {
    const rows = await this.database.db.removals
      .where('at')
      .above(now() - REMOVED_FOR)
      .toArray();
    return rows
      .flatMap((r) => (r.phrase ? [{ ...r, phrase: r.phrase }] : []))
      .sort((a, b) => b.at - a.at)
      .slice(0, MOST_REMOVED);
  });

  /**
   * Keeps a phrase. What stood there before is among its earlier states.
   * @param base the phrase as it was when the work on it began, null for a new one: when another stands there by now,
   * nothing is kept and that one is told, as nothing is written over in silence. Absent to keep it whatever stands
   * there.
   */
  async save(phrase: Phrase, base?: Phrase | null): Promise<Keeping> {
    const { db } = this.database;
    let answer: Keeping = { kind: 'failed' };
    const well = await this.database.write(async () => {
      const stands = (await db.phrases.get(phrase.id)) ?? null;
      const removal = await db.removals.get(phrase.id);
      if (base !== undefined && stableJson(stands) !== stableJson(base)) {
        answer = { kind: 'elsewhere', theirs: stands };
        return;
      }
      if (!stands && (await db.phrases.count()) >= SHELF_LIMITS.phrases) {
        answer = { kind: 'full', words: FULL };
        return;
      }
      const changed = moment(phrase.changed, Math.max(stands?.changed ?? -1, removal?.at ?? -1));
      const kept = { ...phrase, changed };
      await this.put(kept, stands);
      // It lies on the shelf again: it is not among those taken off any more.
      if (removal?.phrase) await db.removals.put({ ...removal, phrase: null });
      answer = { kind: 'kept', phrase: kept, undo: () => this.takeBack(kept, stands) };
    }, `phrase ${phrase.id}`);
    return well ? answer : { kind: 'failed' };
  }

  /** Phrases that are new, all or none of them. Resolves to what takes them off again. */
  async add(phrases: readonly Phrase[]): Promise<(() => Promise<boolean>) | 'full' | null> {
    const { db } = this.database;
    const room = { full: false };
    const well = await this.database.write(async () => {
      room.full = (await db.phrases.count()) + phrases.length > SHELF_LIMITS.phrases;
      if (!room.full) await db.phrases.bulkPut([...phrases]);
    });
    if (room.full) return 'full';
    return well
      ? () => this.tookBack(async () => (await Promise.all(phrases.map((p) => this.dropIfSame(p)))).every(Boolean))
      : null;
  }

  /** Changes something of many phrases at once, as a tag. Resolves to what takes just that back. */
  async changeMany(
    ids: readonly string[],
    change: (phrase: Phrase) => Phrase,
    back: (phrase: Phrase) => Phrase,
  ): Promise<(() => Promise<boolean>) | null> {
    const { db } = this.database;
    const each = (all: readonly string[], how: (phrase: Phrase) => Phrase) => async (): Promise<void> => {
      const found = (await db.phrases.bulkGet([...all])).filter((p) => p !== undefined);
      await db.phrases.bulkPut(
        found.flatMap((p) => {
          const next = how(p);
          return stableJson(next) === stableJson(p) ? [] : [{ ...next, changed: moment(now(), p.changed) }];
        }),
      );
    };
    const well = await this.database.write(each(ids, change));
    return well ? () => this.database.write(each(ids, back)) : null;
  }

  /**
   * Takes phrases off the shelf. They and all that belongs to them stay for 30 days. Gives back what puts them on
   * again; null when nothing was taken off.
   */
  async remove(ids: readonly string[]): Promise<(() => Promise<boolean>) | null> {
    const { db } = this.database;
    let gone: readonly Phrase[] = [];
    const well = await this.database.write(
      async () => {
        gone = (await db.phrases.bulkGet([...ids])).filter((p) => p !== undefined);
        await db.removals.bulkPut(
          gone.map((phrase) => ({ id: phrase.id, at: moment(now(), phrase.changed - 1), phrase })),
        );
        await db.phrases.bulkDelete(gone.map((p) => p.id));
        const over = (await db.removals.count()) - MOST_REMOVALS;
        if (over > 0) await db.removals.bulkDelete(await db.removals.orderBy('at').limit(over).primaryKeys());
      },
      ids.length === 1 ? `phrase ${ids[0] ?? ''}` : undefined,
    );
    return well && gone.length > 0 ? () => this.putBack(gone.map((p) => p.id)) : null;
  }

  /** Puts removed phrases on the shelf again. One that lies there by now is newer, and stays as it is. */
  putBack(ids: readonly string[]): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      const removals = (await db.removals.bulkGet([...ids])).filter((r) => r !== undefined);
      for (const { id, at, phrase } of removals) {
        if (!phrase) continue;
        if (!(await db.phrases.get(id)))
          await db.phrases.put({ ...phrase, changed: moment(now(), Math.max(at, phrase.changed)) });
        await db.removals.put({ id, at, phrase: null });
      }
    });
  }

  /** Forgets for good what was taken off longer ago than it can be brought back. Resolves to how many. */
  async forgetOld(): Promise<number> {
    const { db } = this.database;
    const old = await this.database.read([], () =>
      db.removals
        .where('at')
        .belowOrEqual(now() - REMOVED_FOR)
        .toArray(),
    );
    const over = old.filter((r) => r.phrase);
    if (over.length === 0) return 0;
    await this.database.write(async () => {
      for (const { id, at } of over) {
        await db.removals.put({ id, at, phrase: null });
        // It was kept again since, as from another device.
        if (await db.phrases.get(id)) continue;
        await pagesRange(db, id).delete();
        await db.tallies.delete(id);
        await db.clips.delete(id);
        for (const table of [db.takes, db.drills, db.states]) await table.where('phrase').equals(id).delete();
      }
    });
    return over.length;
  }

  /** Puts a phrase in place of what stands there, inside a transaction: that is an earlier state from then on. */
  async put(phrase: Phrase, stands: Phrase | null): Promise<void> {
    const { db } = this.database;
    await db.phrases.put(phrase);
    if (!stands) return;
    await db.states.put(stateOf(stands));
    await this.trimStates(phrase);
  }

  private async trimStates(phrase: Phrase): Promise<void> {
    const { db } = this.database;
    const all = await db.states.where('phrase').equals(phrase.id).toArray();
    const stay = new Set(keptStates(all, phrase).map((s) => s.id));
    await db.states.bulkDelete(all.filter((s) => !stay.has(s.id)).map((s) => s.id));
  }

  /** Takes one keeping back and only that: what was kept since stays. */
  private takeBack(kept: Phrase, before: Phrase | null): Promise<boolean> {
    return this.tookBack(() => this.backTo(kept, before));
  }

  /** The same inside a transaction. Resolves to whether it was taken back: not where it was kept or played since. */
  async backTo(kept: Phrase, before: Phrase | null): Promise<boolean> {
    if (!before) return this.dropIfSame(kept);
    const stands = await this.database.db.phrases.get(kept.id);
    if (!stands || stableJson(stands) !== stableJson(kept)) return false;
    await this.put({ ...before, changed: moment(now(), kept.changed) }, stands);
    return true;
  }

  /** A taking back in one transaction. Resolves to whether it was taken back: not where it was kept or played since. */
  private async tookBack(run: () => Promise<boolean>): Promise<boolean> {
    const done = { it: false };
    const well = await this.database.write(async () => (done.it = await run()));
    return well && done.it;
  }

  private async dropIfSame(phrase: Phrase): Promise<boolean> {
    const { db } = this.database;
    const stands = await db.phrases.get(phrase.id);
    const played = await db.tallies.get(phrase.id);
    if (!stands || played || stableJson(stands) !== stableJson(phrase)) return false;
    await db.phrases.delete(phrase.id);
    await db.removals.put({ id: phrase.id, at: moment(now(), phrase.changed - 1), phrase });
    return true;
  }
}
