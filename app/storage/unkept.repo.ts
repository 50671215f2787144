import { inject, Injectable } from '@angular/core';
import { map, switchMap, type Observable } from 'rxjs';
import { stableJson } from '@core/base';
import type { TabDraft, Unkept } from '@core/formats/shelf-file';
import type { Phrase, Recipe } from '@core/recipe';
import { now } from '../environment/clock';
import { Database } from './database';
import { freshUuid } from '../environment/ids';
import { livingTabs, thisTab } from '../environment/tab';

/** What lies on a Bench: a recipe, its tempo, and the phrase that it is a change of. */
export interface BenchWork {
  readonly phrase: string | null;
  readonly recipe: Recipe;
  readonly tempo: number;
  readonly base?: Phrase | null;
}

/** Unkept work with where it is: left, or lying on the Bench of this tab; and whether its phrase is on the shelf. */
export interface FoundUnkept extends Unkept {
  readonly here: boolean;
  readonly stands: boolean;
}

/** So much unkept work is held; of more the oldest goes. */
export const MOST_UNKEPT = 200;

/**
 * Work that left the Bench without being kept. It stays with its phrase, or as something new, until it is kept, gone on
 * with, or put aside by hand. What still lies on the Bench of a tab is that tab's draft.
 */
@Injectable({ providedIn: 'root' })
export class UnkeptRepo {
  private readonly database = inject(Database);

  /** Work that was left on one phrase, followed, the newest first. */
  of$(phrase: string): Observable<readonly Unkept[]> {
    return this.database.live<readonly Unkept[]>([], async () =>
      (await this.database.db.unkept.where('phrase').equals(phrase).toArray()).sort(newestFirst),
    );
  }

  /**
   * All unkept work, followed, the newest first: what was left, what lies on the Bench of this tab, and what tabs that
   * are gone had on theirs. Work that is what the shelf holds by now is none.
   */
  readonly all$: Observable<readonly FoundUnkept[]> = this.database
    .live<{ left: readonly Unkept[]; drafts: readonly TabDraft[]; stands: readonly Phrase[] }>(
      { left: [], drafts: [], stands: [] },
      async () => {
        const { db } = this.database;
        const [left, drafts] = [await db.unkept.toArray(), await db.drafts.toArray()];
        const ids = new Set(
          [...left.map((u) => u.phrase), ...drafts.map((d) => d.draft.phrase)].flatMap((p) => p ?? []),
        );
        const stands = (await db.phrases.bulkGet([...ids])).filter((p) => p !== undefined);
        return { left, drafts, stands };
      },
    )
    .pipe(
      switchMap(async (all) => ({ ...all, own: await thisTab(), living: await livingTabs() })),
      map(({ left, drafts, stands, own, living }) => {
        const open = drafts.filter((d) => d.id === own || !living?.has(d.id));
        const byId = new Map(stands.map((p) => [p.id, p]));
        return [...left, ...open.flatMap((d) => asUnkept(d))]
          .filter((u) => !isSameWork(u, byId.get(u.phrase ?? '')))
          .map((u): FoundUnkept => ({ ...u, here: u.id === own, stands: byId.has(u.phrase ?? '') }))
          .sort(newestFirst);
      }),
    );

  /** Work leaves the Bench. */
  leave({ phrase, recipe, tempo, base }: BenchWork): Promise<boolean> {
    const { db } = this.database;
    const row: Unkept = { id: freshUuid(), at: now(), phrase, recipe, tempo, base: base ?? null };
    return this.database.write(async () => {
      await db.unkept.put(row);
      const over = (await db.unkept.count()) - MOST_UNKEPT;
      if (over > 0) await db.unkept.bulkDelete(await db.unkept.orderBy('at').limit(over).primaryKeys());
    });
  }

  /** Work that lies on the Bench again, or was kept, is not left any more. */
  settle({ phrase, recipe, tempo }: BenchWork): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      const rows =
        phrase === null ? await db.unkept.toArray() : await db.unkept.where('phrase').equals(phrase).toArray();
      const same = rows.filter((u) => u.phrase === phrase && isSameWork(u, { recipe, tempo }));
      if (same.length > 0) await db.unkept.bulkDelete(same.map((u) => u.id));
    });
  }

  /** Takes work up: it is not left any more. Null where it is gone, as another tab took it up. */
  async take(id: string): Promise<Unkept | null> {
    const { db } = this.database;
    const found: { it: Unkept | null } = { it: null };
    const lives = (await livingTabs())?.has(id) ?? true;
    const well = await this.database.write(async () => {
      found.it = (await db.unkept.get(id)) ?? null;
      await db.unkept.delete(id);
      if (found.it) return;
      const draft = await db.drafts.get(id);
      found.it = (draft && asUnkept(draft)[0]) ?? null;
      // Where it is not known that its tab is gone, that tab goes on with its own.
      if (found.it && !lives) await db.drafts.delete(id);
    });
    return well ? found.it : null;
  }

  /** Work of tabs that are gone on a phrase becomes work that was left on it. */
  async gather(phrase: string): Promise<void> {
    const living = await livingTabs();
    if (living === null) return;
    const own = await thisTab();
    const { db } = this.database;
    const drafts = await this.database.read([], () => db.drafts.toArray());
    const gone = drafts.filter((d) => d.id !== own && !living.has(d.id) && d.draft.phrase === phrase);
    if (gone.length > 0) await this.move(gone);
  }

  /** Drafts of tabs that are gone go; what in them is not kept is left work from then on. */
  move(drafts: readonly TabDraft[]): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      const left = drafts.flatMap((d) => asUnkept(d));
      const ids = left.flatMap((u) => u.phrase ?? []);
      const stands = new Map((await db.phrases.bulkGet(ids)).flatMap((p) => (p ? [[p.id, p]] : [])));
      await db.unkept.bulkPut(left.filter((u) => !isSameWork(u, stands.get(u.phrase ?? ''))));
      await db.drafts.bulkDelete(drafts.map((d) => d.id));
    });
  }

  /** Puts work aside for good. Gives back what puts it back; null where it could not be put aside. */
  async putAside(id: string): Promise<(() => Promise<boolean>) | null> {
    const work = await this.take(id);
    return work && (() => this.database.write(() => this.database.db.unkept.put(work)));
  }
}

/** What a draft holds, as work that was left; none where there is nothing on it. */
function asUnkept({ id, at, draft }: TabDraft): readonly Unkept[] {
  const { phrase, recipe, tempo, base } = draft;
  return recipe ? [{ id, at, phrase, recipe, tempo, base: base ?? null }] : [];
}

/** Whether work is what stands somewhere, to the letter. */
export function isSameWork(
  work: Pick<Unkept, 'recipe' | 'tempo'>,
  other: { readonly recipe: Recipe | null; readonly tempo: number } | null | undefined,
): boolean {
  return !!other && work.tempo === other.tempo && stableJson(work.recipe) === stableJson(other.recipe);
}

function newestFirst(a: Unkept, b: Unkept): number {
  return b.at - a.at;
}
