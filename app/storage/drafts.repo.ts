import { inject, Injectable } from '@angular/core';
import type { Draft, TabDraft } from '@core/formats/shelf-file';
import { now } from '../environment/clock';
import { Database } from './database';
import { freshUuid } from '../environment/ids';
import { NewestWrite } from './newest-write';
import { livingTabs, thisTab } from '../environment/tab';
import { UnkeptRepo } from './unkept.repo';

/** Drafts of tabs that are gone are kept so long, in milliseconds: 30 days; and so many of them. */
const KEPT_FOR = 30 * 24 * 60 * 60 * 1000;
const MOST_KEPT = 30;

/** What is on the Bench of each tab, kept at every change: closing a tab loses nothing. */
@Injectable({ providedIn: 'root' })
export class DraftsRepo {
  private readonly database = inject(Database);
  private readonly unkept = inject(UnkeptRepo);
  /** Another name than the tab's, where what is kept under that one could not be read. */
  private own: string | null = null;
  private readonly writes = new NewestWrite<Draft>((draft) => this.put(draft));

  /**
   * This tab's draft. A tab that never had one takes over the newest of a tab that is gone, as after the browser was
   * closed. Null when there is none; a failure to read is told, and is null too.
   */
  async get(): Promise<{ readonly draft: Draft | null; readonly read: boolean }> {
    const id = await thisTab();
    return this.database.read<{ draft: Draft | null; read: boolean }>({ draft: null, read: false }, async () => {
      const own = await this.database.db.drafts.get(id);
      if (own) return { draft: own.draft, read: true };
      const [left] = await this.left();
      // Where the browser does not tell which tabs live, that one may: its draft stays its own.
      if (!left || (await livingTabs()) === null) return { draft: null, read: true };
      await this.database.write(async () => {
        await this.database.db.drafts.delete(left.id);
        await this.database.db.drafts.put({ ...left, id, at: now() });
      });
      return { draft: left.draft, read: true };
    });
  }

  /** Drafts with something on them of tabs that are gone, the newest first. */
  async left(): Promise<readonly TabDraft[]> {
    const [id, living] = [await thisTab(), await livingTabs()];
    const all = await this.database.read([], () => this.database.db.drafts.toArray());
    const left = all.filter((d) => d.id !== id && !living?.has(d.id) && d.draft.recipe !== null);
    return left.sort((a, b) => b.at - a.at);
  }

  /** Takes a draft that was left; no other tab finds it any more, where it is known that its own is gone. */
  async take(left: TabDraft): Promise<boolean> {
    if ((await livingTabs()) === null) return true;
    return this.database.write(() => this.database.db.drafts.delete(left.id));
  }

  /** Keeps a draft; only the newest is worth keeping. */
  keep(draft: Draft): Promise<boolean> {
    return this.writes.keep(draft);
  }

  /** From here on what is made is kept beside the draft that could not be read. */
  renew(): void {
    this.own = freshUuid();
  }

  private async put(draft: Draft): Promise<boolean> {
    const id = this.own ?? (await thisTab());
    const { db } = this.database;
    return this.database.write(() => db.drafts.put({ id, at: now(), draft }), 'draft');
  }

  /** Drafts that were left long ago go with their steps; what in them was never kept stays as unkept work. */
  async forgetOld(): Promise<void> {
    const left = await this.left();
    const old = left.filter((d, i) => i >= MOST_KEPT || d.at < now() - KEPT_FOR);
    if (old.length > 0) await this.unkept.move(old);
  }
}
