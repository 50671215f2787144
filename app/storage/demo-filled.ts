import { liveQuery } from 'dexie';
import { filter, firstValueFrom, from, map, NEVER, race, timer } from 'rxjs';
import type { ShelfDb } from './db';

/** Whether a demo database was filled, whatever has become of it since. */
export async function isFilled(db: ShelfDb): Promise<boolean> {
  return (await db.phrases.count()) > 0 || (await db.kept.get('demo-filled')) !== undefined;
}

/** Waits until a demo database is filled by whoever does it: for ever, or for so long. Resolves to whether it is. */
export async function untilFilled(db: ShelfDb, patience?: number): Promise<boolean> {
  const filled = from(liveQuery(() => isFilled(db))).pipe(filter((is) => is));
  const late = patience === undefined ? NEVER : timer(patience).pipe(map(() => false));
  return firstValueFrom(race(filled, late));
}
