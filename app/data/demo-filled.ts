import { liveQuery } from 'dexie';
import { filter, firstValueFrom, from } from 'rxjs';
import type { ShelfDb } from './db';

/** Whether a demo database was filled, whatever has become of it since. */
export async function isFilled(db: ShelfDb): Promise<boolean> {
  return (await db.phrases.count()) > 0 || (await db.kept.get('demo-filled')) !== undefined;
}

/** Waits until a demo database is filled, by whichever tab. Rejects when it is closed before. */
export async function untilFilled(db: ShelfDb): Promise<void> {
  await firstValueFrom(from(liveQuery(() => isFilled(db))).pipe(filter((is) => is)));
}
