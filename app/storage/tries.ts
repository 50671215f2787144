import Dexie, { type Collection } from 'dexie';
import { bestOf, NO_BEST, pagesOf, withTry, type Attempt, type Best, type TriesPage } from '@core/drill';
import { SHELF_LIMITS } from '@core/shelf';
import { now } from '../environment/clock';
import type { ShelfDb } from './db';

/** Under this id the tallies hold how many tries there are in all: it can be no phrase's. */
export const ALL_TRIES = '#';

/** The pages of a phrase's tries, in order. */
export function pagesRange(db: ShelfDb, phrase: string): Collection<TriesPage, [string, number]> {
  return db.tries.where('[phrase+n]').between([phrase, Dexie.minKey], [phrase, Dexie.maxKey]);
}

/** Every try of one phrase, oldest first, without those that were taken out of the log. */
export async function triesOf(db: ShelfDb, phrase: string): Promise<readonly Attempt[]> {
  return (await everyTryOf(db, phrase)).filter((t) => !t.off);
}

/** Every try of one phrase, oldest first, those that were taken out of the log too. */
export async function everyTryOf(db: ShelfDb, phrase: string): Promise<readonly Attempt[]> {
  const pages = await pagesRange(db, phrase).toArray();
  return pages.flatMap((p) => p.tries).sort((a, b) => a.at - b.at);
}

/** So many pages are read at once where the page of the browser waits: each is held against its rule. */
const PAGES_AT_ONCE = 5;

/**
 * Every try of one phrase, oldest first, without those that were taken out of the log: read a few pages at a time, so
 * that thousands hold nobody up. Not for inside a transaction.
 */
export async function triesByParts(db: ShelfDb, phrase: string): Promise<readonly Attempt[]> {
  const keys = await pagesRange(db, phrase).primaryKeys();
  const tries: Attempt[] = [];
  for (let at = 0; at < keys.length; at += PAGES_AT_ONCE)
    for (const page of await db.tries.bulkGet(keys.slice(at, at + PAGES_AT_ONCE)))
      tries.push(...(page?.tries ?? []).filter((t) => !t.off));
  return tries.sort((a, b) => a.at - b.at);
}

/** The newest tries of a phrase, oldest first: its last two pages, however many there are. */
export async function lastTries(db: ShelfDb, phrase: string): Promise<readonly Attempt[]> {
  const newest = (await pagesRange(db, phrase).primaryKeys()).slice(-2);
  const pages = await db.tries.bulkGet(newest);
  return pages
    .flatMap((p) => p?.tries ?? [])
    .filter((t) => !t.off)
    .sort((a, b) => a.at - b.at);
}

/**
 * Logs new tries of one phrase inside a transaction. What is logged is never written over: a try that stands on the
 * newest page is left as it stands there. Resolves to how many were new.
 */
export async function logTries(db: ShelfDb, phrase: string, tries: readonly Attempt[]): Promise<number> {
  if (tries.length === 0) return 0;
  const newestPage = (await pagesRange(db, phrase).primaryKeys()).at(-1);
  const last = (newestPage && (await db.tries.get(newestPage))) ?? null;
  const known = new Set(last?.tries.map((t) => t.id));
  const fresh = tries.filter((t) => !known.has(t.id));
  if (fresh.length === 0) return 0;
  await db.tries.bulkPut([...pagesOf(phrase, fresh, last)]);
  const tally = (await db.tallies.get(phrase)) ?? NO_BEST;
  await db.tallies.put({ ...fresh.reduce(withTry, tally), id: phrase });
  await countAll(db, fresh.length);
  return fresh.length;
}

/** Tries as the log has them by now: corrected, and without those that were taken out of it. */
export async function asLogged(db: ShelfDb, phrase: string, tries: readonly Attempt[]): Promise<Attempt[]> {
  if (tries.length === 0) return [];
  const logged = new Map((await everyTryOf(db, phrase)).map((t) => [t.id, t]));
  return tries.map((t) => logged.get(t.id) ?? t).filter((t) => !t.off);
}

/**
 * Works out anew what the tries of a phrase add up to. It asks the database itself: the deeper functions that wait
 * stand in each other, the sooner a transaction is lost.
 */
export async function countAnew(db: ShelfDb, phrase: string): Promise<void> {
  const tries = (await pagesRange(db, phrase).toArray()).flatMap((p) => p.tries);
  if (tries.every((t) => t.off)) await db.tallies.delete(phrase);
  else await db.tallies.put({ ...bestOf(tries), id: phrase, edited: now() });
}

/** Changes how many there are in all. */
export async function countAll(db: ShelfDb, by: number): Promise<number> {
  const all = await db.tallies.get(ALL_TRIES);
  const attempts = Math.max(0, (all?.attempts ?? 0) + by);
  await db.tallies.put({ ...NO_BEST, attempts, id: ALL_TRIES });
  return attempts;
}

/** Tries of a phrase in the log, those that are kept apart too. */
const logged = ({ attempts, apart = 0 }: Best): number => attempts + apart;

const DAY = 24 * 60 * 60 * 1000;

/**
 * Where the log holds more than it may: the oldest pages of the phrase with the most tries are thinned, inside a
 * transaction, to the best try of each day. Resolves to how many went, and of which phrase; null when there was room.
 */
export async function thinned(
  db: ShelfDb,
  most: number = SHELF_LIMITS.attempts,
): Promise<{ readonly gone: number; readonly phrase: string } | null> {
  if (((await db.tallies.get(ALL_TRIES))?.attempts ?? 0) <= most) return null;
  const tallies = (await db.tallies.toArray()).filter((t) => t.id !== ALL_TRIES);
  const [longest] = tallies.sort((a, b) => logged(b) - logged(a));
  if (!longest) return null;
  const phrase = longest.id;
  let gone = 0;
  for (const page of await pagesRange(db, phrase).toArray()) {
    const best = new Map<number, Attempt>();
    const stand = page.tries.filter((t) => !t.off);
    for (const t of stand) {
      const day = Math.floor(t.at / DAY);
      const other = best.get(day);
      if (!other || rank(t) > rank(other)) best.set(day, t);
    }
    gone += stand.length - best.size;
    // What was taken out of the log is forgotten with what was thinned.
    if (best.size > 0) await db.tries.put({ ...page, tries: [...best.values()] });
    else await db.tries.delete([page.phrase, page.n]);
    if (gone >= page.tries.length / 2 && gone > 0) break;
  }
  await countAnew(db, phrase);
  await countAll(db, -gone);
  return { gone, phrase };
}

/** Clean before messy, then the faster. */
function rank({ verdict, bpm }: Attempt): number {
  return (verdict === 'clean' ? 1000 : 0) + bpm;
}
