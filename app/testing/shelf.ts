import { LONGEST } from './fixtures';
import type { Attempt } from '@core/drill';
import type { ShelfDb } from '../storage/db';
import type { HealthService } from '../storage/health.service';
import { logTries, triesOf } from '../storage/tries';

/** What the test before wrote through. */
let before: HealthService | null = null;

/** The next test waits for what is written through this. */
export function awaitWritesOf(health: HealthService): void {
  before = health;
}

/** Resolves when what the test before still wrote has landed: it must not land on a shelf that was emptied. */
export async function writesLanded(): Promise<void> {
  await new Promise((r) => setTimeout(r, 40));
  await untilAsked(() => Promise.resolve(!before?.writing()));
}

/** Empties a shelf, its index too. */
export async function clearShelf(db: ShelfDb): Promise<void> {
  sessionStorage.clear();
  await Promise.all([...db.own, db.packs].map((table) => table.clear()));
}

/** Logs tries as if they had been played. */
export async function log(db: ShelfDb, ...tries: readonly Attempt[]): Promise<void> {
  await db.transaction('rw', db.own, async () => {
    for (const phrase of new Set(tries.map((t) => t.phrase)))
      await logTries(
        db,
        phrase,
        tries.filter((t) => t.phrase === phrase),
      );
  });
}

/** How many tries of a phrase are logged. */
export async function logged(db: ShelfDb, phrase: string): Promise<number> {
  return (await triesOf(db, phrase)).length;
}

/** Waits until something that is asked for holds. */
export async function untilAsked(holds: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < LONGEST; i++) {
    if (await holds()) return;
    await new Promise((r) => setTimeout(r, 5));
  }
  throw new Error('it never came to hold');
}
