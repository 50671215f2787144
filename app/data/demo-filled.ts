import type { ShelfDb } from './db';

/** Whether a demo database was filled, whatever has become of it since. */
export async function isFilled(db: ShelfDb): Promise<boolean> {
  return (await db.phrases.count()) > 0 || (await db.kept.get('demo-filled')) !== undefined;
}
