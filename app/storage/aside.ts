import { now } from '../environment/clock';
import type { ShelfDb } from './db';
import type { InvalidRow } from './gate';

/**
 * Takes a row that cannot be read out of the way and keeps it, inside a transaction: told, never hidden, never lost.
 */
export async function putAside(db: ShelfDb, { table, key, row, why }: InvalidRow): Promise<void> {
  // It may have been met twice before it was out of the way.
  if (
    (await db
      .table(table)
      .where(':id')
      .equals(key as string)
      .count()) === 0
  )
    return;
  await db.aside.add({ table, key: String(key), row, why, at: now() });
  await db.table(table).delete(key as string);
}

/** What a worker does with rows it cannot read. */
export function asideIn(db: () => ShelfDb, told: () => void): (row: InvalidRow) => void {
  return (row) =>
    void db()
      .transaction('rw', db().own, async () => putAside(db(), row))
      .then(told)
      .catch(() => undefined);
}
