import { inject, Injectable } from '@angular/core';
import type { Attempt, TriesPage } from '@core/drill';
import type { ShelfDb } from './db';
import { Database } from './database';
import { countAll, countAnew, pagesRange } from './tries';

/** What takes an edit back; resolves to whether it could. */
export type TakeBack = () => Promise<boolean>;

/** Corrections of the log: each is one transaction, with what takes it back and nothing else. */
@Injectable({ providedIn: 'root' })
export class LogEdits {
  private readonly database = inject(Database);

  /** Another verdict or note of a try. Null when it is not in the log any more, or could not be kept. */
  change(phrase: string, id: string, part: Pick<Partial<Attempt>, 'verdict' | 'note'>): Promise<TakeBack | null> {
    return this.edit(phrase, id, (t) => {
      const next = { ...t, ...part };
      if (next.note === '') delete next.note;
      return next;
    });
  }

  /** Takes a try out of the log. */
  remove(phrase: string, id: string): Promise<TakeBack | null> {
    return this.edit(phrase, id, () => null);
  }

  private async edit(phrase: string, id: string, how: (t: Attempt) => Attempt | null): Promise<TakeBack | null> {
    const { db } = this.database;
    const was: { it: Attempt | null } = { it: null };
    const well = await this.database.write(async () => {
      const page = await pageOf(db, phrase, id);
      const old = page?.tries.find((t) => t.id === id);
      if (!page || !old) return;
      was.it = old;
      await putTry(db, page, id, how(old));
    });
    const old = was.it;
    if (!well || !old) return null;
    return () => this.putBack(phrase, old);
  }

  /** The try as it was; one that was removed goes where it stood. */
  private async putBack(phrase: string, old: Attempt): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      const page = await pageOf(db, phrase, old.id);
      if (page) return putTry(db, page, old.id, old);
      const pages = await pagesRange(db, phrase).toArray();
      // In the page it was in, or the last that began before it; a page may have one more for that.
      const home = pages.findLast((p) => (p.tries[0]?.at ?? 0) <= old.at) ?? pages[0];
      if (home) await db.tries.put({ ...home, tries: inTime([...home.tries, old]) });
      else await db.tries.put({ phrase, n: 0, tries: [old] });
      await countAnew(db, phrase);
      await countAll(db, 1);
    });
  }
}

async function pageOf(db: ShelfDb, phrase: string, id: string): Promise<TriesPage | undefined> {
  return (await pagesRange(db, phrase).toArray()).find((p) => p.tries.some((t) => t.id === id));
}

/** A try of a page changed, or out of it; a drill under way does not log it anew. */
async function putTry(db: ShelfDb, page: TriesPage, id: string, next: Attempt | null): Promise<void> {
  const tries = page.tries.flatMap((t) => (t.id === id ? (next ?? []) : t));
  if (tries.length > 0) await db.tries.put({ ...page, tries });
  else await db.tries.delete([page.phrase, page.n]);
  const drills = await db.drills.where('phrase').equals(page.phrase).toArray();
  for (const d of drills)
    if (d.attempts.some((t) => t.id === id))
      await db.drills.put({ ...d, attempts: d.attempts.flatMap((t) => (t.id === id ? (next ?? []) : t)) });
  await countAnew(db, page.phrase);
  if (!next) await countAll(db, -1);
}

function inTime(tries: readonly Attempt[]): Attempt[] {
  return [...tries].sort((a, b) => a.at - b.at);
}
