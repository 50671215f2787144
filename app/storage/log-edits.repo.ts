import { inject, Injectable } from '@angular/core';
import type { Attempt, TriesPage } from '@core/drill';
import type { ShelfDb } from './db';
import { Database } from './database';
import { now } from '../environment/clock';
import { countAll, countAnew, pagesRange } from './tries';

/** What takes an edit back; resolves to whether it could. */
export type TakeBack = () => Promise<boolean>;

/** Corrections of the log: each is one transaction, with what takes it back and nothing else. */
@Injectable({ providedIn: 'root' })
export class LogEdits {
  private readonly database = inject(Database);

  /** Another verdict or note of a try. Null when it is not in the log any more, or could not be kept. */
  change(phrase: string, id: string, part: Pick<Partial<Attempt>, 'verdict' | 'note'>): Promise<TakeBack | null> {
    return this.edit(
      phrase,
      id,
      (t) => noted({ ...t, ...part }),
      (t, old) =>
        noted({
          ...t,
          ...('verdict' in part ? { verdict: old.verdict } : {}),
          ...('note' in part ? { note: old.note ?? '' } : {}),
        }),
    );
  }

  /** Takes a try out of the log. That it is out is remembered, so that a merge does not bring it back. */
  remove(phrase: string, id: string): Promise<TakeBack | null> {
    return this.edit(
      phrase,
      id,
      (t) => ({ ...t, off: true }),
      ({ off, ...t }) => t,
    );
  }

  /** An edit with what takes it back, and nothing that was said of the try since. */
  private async edit(
    phrase: string,
    id: string,
    how: (t: Attempt) => Attempt,
    back: (t: Attempt, old: Attempt) => Attempt,
  ): Promise<TakeBack | null> {
    const was: { it: Attempt | null } = { it: null };
    const well = await this.put(phrase, id, (old) => {
      if (old.off) return null;
      was.it = old;
      return how(old);
    });
    const old = was.it;
    return well && old ? () => this.put(phrase, id, (t) => back(t, old)) : null;
  }

  /** Puts a try in place of the one that stands, in one transaction; false where there is none, or nothing to put. */
  private async put(phrase: string, id: string, how: (old: Attempt) => Attempt | null): Promise<boolean> {
    const { db } = this.database;
    const done = { it: false };
    const well = await this.database.write(async () => {
      const page = (await pagesRange(db, phrase).toArray()).find((p) => p.tries.some((t) => t.id === id));
      const old = page?.tries.find((t) => t.id === id);
      const next = old && how(old);
      if (!page || !next) return;
      await putTry(db, page, { ...next, corrected: now() });
      await countAll(db, (next.off ? 0 : 1) - (old.off ? 0 : 1));
      done.it = true;
    });
    return well && done.it;
  }
}

/** A note that says nothing is none. */
function noted(t: Attempt): Attempt {
  const next = { ...t };
  if (next.note === '') delete next.note;
  return next;
}

/** A try of a page changed; a drill under way does not log it anew. */
async function putTry(db: ShelfDb, page: TriesPage, next: Attempt): Promise<void> {
  await db.tries.put({ ...page, tries: page.tries.map((t) => (t.id === next.id ? next : t)) });
  const drills = await db.drills.where('phrase').equals(page.phrase).toArray();
  for (const d of drills)
    if (d.attempts.some((t) => t.id === next.id))
      await db.drills.put({
        ...d,
        attempts: d.attempts.flatMap((t) => (t.id !== next.id ? t : next.off ? [] : next)),
      });
  await countAnew(db, page.phrase);
}
