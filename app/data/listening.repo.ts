import { inject, Injectable } from '@angular/core';
import type { HeardWork, Listening } from '@core/listen';
import { now } from './clock';
import { Database } from './database';
import { NewestWrite } from './newest-write';

/** The recording that is listened to and what was worked out from it; one to a browser. */
const ID = 'now';
/** A larger file is not kept over a reload, in bytes. */
const MOST_KEPT = 60_000_000;

/** Keeps the recording that is listened to, so that a reload loses nothing. */
@Injectable({ providedIn: 'root' })
export class ListeningRepo {
  private readonly database = inject(Database);
  private readonly works = new NewestWrite<HeardWork>((work) => this.putWork(work));

  /** What was left; null for nothing, or where it cannot be read. */
  async get(): Promise<(Omit<Listening, 'sound'> & { readonly sound: Blob }) | null> {
    const row = await this.database.read(undefined, () => this.database.db.listening.get(ID));
    return row && row.sound instanceof Blob ? { ...row, sound: row.sound } : null;
  }

  /** Keeps another recording in place of the one before. Resolves to whether it was kept, with its size. */
  async begin(name: string, sound: Blob, work: HeardWork): Promise<boolean> {
    if (sound.size > MOST_KEPT) return false;
    return this.database.write(
      () => this.database.db.listening.put({ id: ID, at: now(), name: name.slice(0, 300), sound, work }),
      'listening',
    );
  }

  keep(work: HeardWork): Promise<boolean> {
    return this.works.keep(work);
  }

  forget(): Promise<boolean> {
    return this.database.write(() => this.database.db.listening.delete(ID));
  }

  private putWork(work: HeardWork): Promise<boolean> {
    return this.database.write(async () => {
      const row = await this.database.db.listening.get(ID);
      if (row) await this.database.db.listening.put({ ...row, at: now(), work });
    }, 'listening');
  }
}
