import { inject, Injectable } from '@angular/core';
import type { HeardWork, Listening } from '@core/listen';
import { now } from '../environment/clock';
import { Database } from './database';
import { NewestWrite } from './newest-write';
import { livingTabs, thisTab } from '../environment/tab';

/** A larger file is not kept over a reload, in bytes. */
const MOST_KEPT = 60_000_000;
/** So many recordings are kept in all, the newest; each tab has one and the one before it. */
const MOST_ROWS = 4;
/** What is added to a tab's name for the recording that was listened to before. */
const BEFORE = '~before';

/** A recording that was left, with what was worked out from it. */
export type LeftRecording = Omit<Listening, 'sound'> & { readonly sound: Blob };

/** What became of a recording that was to be kept: too large ones are not, and a disk may be full. */
export type ListeningKept = 'kept' | 'large' | 'full';

/** Keeps the recording that each tab listens to, and the one before it: neither a reload nor another one loses any. */
@Injectable({ providedIn: 'root' })
export class ListeningRepo {
  private readonly database = inject(Database);
  private readonly works = new NewestWrite<HeardWork>((work) => this.putWork(work));

  /** What this tab listened to, else the newest that a tab left which is gone. Null for nothing. */
  async get(): Promise<LeftRecording | null> {
    const id = await thisTab();
    const { listening } = this.database.db;
    const own = soundOf(await this.database.read(undefined, () => listening.get(id)));
    if (own) return own;
    const living = await livingTabs();
    // Where the browser does not tell which tabs live, that one may: what it listens to stays its own.
    if (!living) return null;
    const all = await this.database.read<readonly Listening[]>([], () => listening.orderBy('at').reverse().toArray());
    const left = soundOf(all.find((row) => !row.id.endsWith(BEFORE) && !living.has(row.id)));
    if (!left) return null;
    const taken = await this.database.write(async () => {
      await listening.delete(left.id);
      await listening.put({ ...left, id });
    });
    return taken ? left : null;
  }

  /** Keeps another recording; the one this tab had stays as the one before. */
  async begin(name: string, sound: Blob, work: HeardWork): Promise<ListeningKept> {
    const id = await thisTab();
    const { listening } = this.database.db;
    const isKept = sound.size <= MOST_KEPT;
    const done = await this.database.write(async () => {
      const old = await listening.get(id);
      if (old) await listening.put({ ...old, id: `${id}${BEFORE}` });
      if (isKept) await listening.put({ id, at: now(), name: name.slice(0, 300), sound, work });
      else await listening.delete(id);
      const over = (await listening.count()) - MOST_ROWS;
      if (over > 0) await listening.bulkDelete(await listening.orderBy('at').limit(over).primaryKeys());
    }, 'listening');
    return !done ? 'full' : isKept ? 'kept' : 'large';
  }

  /** The recording that this tab listened to before; null where there is none. */
  async before(): Promise<LeftRecording | null> {
    const id = await thisTab();
    return soundOf(await this.database.read(undefined, () => this.database.db.listening.get(`${id}${BEFORE}`)));
  }

  /** Keeps what was worked out; only the newest is worth keeping. */
  keep(work: HeardWork): Promise<boolean> {
    return this.works.keep(work);
  }

  private async putWork(work: HeardWork): Promise<boolean> {
    const id = await thisTab();
    const { listening } = this.database.db;
    return this.database.write(async () => {
      const row = await listening.get(id);
      if (row) await listening.put({ ...row, at: now(), work });
    }, 'listening work');
  }
}

function soundOf(row: Listening | undefined): LeftRecording | null {
  return row && row.sound instanceof Blob ? { ...row, sound: row.sound } : null;
}
