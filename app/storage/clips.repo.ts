import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { CLIP_LIMITS, type Clip } from '@core/listen';
import { Database } from './database';

/** A clip as it is listed: of which phrase, where it was heard, and how many bytes it takes. */
export interface ClipLine {
  readonly id: string;
  readonly name: string;
  readonly from: string;
  readonly bytes: number;
}

/** Bars of records that are kept with phrases. */
@Injectable({ providedIn: 'root' })
export class ClipsRepo {
  private readonly database = inject(Database);

  of$(phrase: string): Observable<Clip | null> {
    return this.database.live<Clip | null>(null, async () => (await this.database.db.clips.get(phrase)) ?? null);
  }

  /** All of them, by the names of their phrases. */
  all$(): Observable<readonly ClipLine[]> {
    const { db } = this.database;
    return this.database.live<readonly ClipLine[]>([], async () => {
      const clips = await db.clips.toArray();
      const phrases = await db.phrases.bulkGet(clips.map((c) => c.id));
      return clips
        .map(({ id, from, samples }, i) => ({ id, from, bytes: samples.length, name: phrases[i]?.name ?? '' }))
        .sort((a, b) => a.name.localeCompare(b.name));
    });
  }

  get(phrase: string): Promise<Clip | null> {
    return this.database.read<Clip | null>(null, async () => (await this.database.db.clips.get(phrase)) ?? null);
  }

  /** Keeps a clip. 'full' where there are as many as a shelf holds. */
  async keep(clip: Clip): Promise<boolean | 'full'> {
    const { db } = this.database;
    const there = await this.database.read<readonly unknown[]>([], () => db.clips.toCollection().primaryKeys());
    if (there.length >= CLIP_LIMITS.clips && !there.includes(clip.id)) return 'full';
    return this.database.write(() => db.clips.put(clip));
  }

  remove(phrase: string): Promise<boolean> {
    return this.database.write(() => this.database.db.clips.delete(phrase));
  }
}
