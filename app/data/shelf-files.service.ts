import { inject, Injectable } from '@angular/core';
import {
  readShelf,
  SHELF_LIMITS,
  tooLarge,
  validateKits,
  validateProfile,
  validateSettings,
  writeShelf,
  type ShelfCode,
  type ShelfFile,
} from '@core/formats';
import type { Read } from '@core/base';
import { ShelfFileWorker } from '../workers/shelf-file.service';
import { Database } from './database';

/** What reading a file into the shelf would do. */
export interface Incoming {
  readonly file: ShelfFile;
  readonly fresh: number;
  readonly replaced: number;
}

/**
 * The shelf as a file, out and in. Large files are read in a worker; nothing changes before the whole file is known to
 * be good.
 */
@Injectable({ providedIn: 'root' })
export class ShelfFiles {
  private readonly database = inject(Database);
  private readonly worker = inject(ShelfFileWorker);

  async text(): Promise<string> {
    const { db } = this.database;
    await this.database.ready;
    const settings = (await db.kept.get('settings'))?.value;
    const kits = (await db.kept.get('kits'))?.value;
    const profile = (await db.kept.get('profile'))?.value;
    return writeShelf({
      phrases: await db.phrases.toArray(),
      attempts: await db.attempts.toArray(),
      drills: await db.drills.toArray(),
      ...(validateSettings(settings) ? { settings } : {}),
      ...(validateKits(kits) ? { kits } : {}),
      ...(validateProfile(profile) ? { profile } : {}),
    });
  }

  /** Reads a file of a given size; `text` is only called when the size is bearable. */
  async read(bytes: number, text: () => Promise<string>): Promise<Read<Incoming, ShelfCode>> {
    if (bytes > SHELF_LIMITS.bytes) return tooLarge(bytes);
    const read = await this.readText(await text());
    if (!read.ok) return read;
    const here = new Set(await this.database.db.phrases.toCollection().primaryKeys());
    const replaced = read.value.phrases.filter((p) => here.has(p.id)).length;
    return {
      ok: true,
      value: { file: read.value, fresh: read.value.phrases.length - replaced, replaced },
      problems: [],
    };
  }

  private readText(text: string): Promise<Read<ShelfFile, ShelfCode>> {
    const small = 64 * 1024;
    return text.length < small ? Promise.resolve(readShelf(text)) : this.worker.read(text);
  }

  /**
   * Puts a file that was read onto the shelf, in one transaction. Gives back what takes it off again; null when it
   * could not be kept.
   */
  take(file: ShelfFile): Promise<(() => Promise<boolean>) | null> {
    return this.database.during(() => this.putOn(file));
  }

  private async putOn(file: ShelfFile): Promise<(() => Promise<boolean>) | null> {
    const { db } = this.database;
    const before = await Promise.all([
      db.phrases.toArray(),
      db.attempts.toArray(),
      db.drills.toArray(),
      db.kept.toArray(),
    ]);
    const kept = await this.database.write(async () => {
      await db.phrases.bulkPut(file.phrases);
      await db.attempts.bulkPut(file.attempts);
      const drilled = new Set(file.drills.map((d) => d.phrase));
      await db.drills.filter((d) => drilled.has(d.phrase)).delete();
      await db.drills.bulkPut(file.drills);
      if (file.settings) await db.kept.put({ key: 'settings', value: file.settings });
      if (file.kits) await db.kept.put({ key: 'kits', value: file.kits });
      if (file.profile) await db.kept.put({ key: 'profile', value: file.profile });
    });
    if (!kept) return null;
    return () =>
      this.database.write(async () => {
        await Promise.all([db.phrases.clear(), db.attempts.clear(), db.drills.clear(), db.kept.clear()]);
        const [phrases, attempts, drills, rest] = before;
        await db.phrases.bulkPut(phrases);
        await db.attempts.bulkPut(attempts);
        await db.drills.bulkPut(drills);
        await db.kept.bulkPut(rest);
      });
  }
}
