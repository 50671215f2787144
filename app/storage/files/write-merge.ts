import { group } from 'd3-array';
import { stableJson } from '@core/base';
import { bestOf, NO_BEST, pagesOf, type Attempt } from '@core/drill';
import type { ShelfDb } from '../db';
import { ALL_TRIES, countAnew, everyTryOf, pagesRange } from '../tries';
import { ROWS, type Differences, type RowTable } from './shelf-rows';

/** So many rows are put at once: after each the progress is told. */
const CHUNK = 1000;

/** What one merge wrote, so that it can be taken back, and only that. */
export interface MergeDone {
  readonly rows: Readonly<
    Record<RowTable, readonly { readonly key: string; readonly before: unknown; readonly now: unknown }[]>
  >;
  /** The tries it wrote, phrase by phrase: what stood there before, null for a new one. */
  readonly tries: ReadonlyMap<string, ReadonlyMap<string, Attempt | null>>;
}

/** Writes what a merge came to, inside a transaction. */
export async function writeMerge(
  db: ShelfDb,
  rows: Differences,
  tries: readonly Attempt[],
  had: ReadonlyMap<string, Attempt>,
  tell: (share: number) => void,
): Promise<MergeDone> {
  const byPhrase = group(tries, (t) => t.phrase);
  const total = Math.max(1, byPhrase.size + ROWS.reduce((n, name) => n + rows[name].length, 0));
  let written = 0;
  const step = (n: number): void => {
    written += n;
    tell(written / total);
  };
  for (const name of ROWS) {
    const table = db.table(name);
    const gone = rows[name].flatMap((r) => (r.now === undefined ? [r.key] : []));
    if (gone.length > 0) await table.bulkDelete(gone);
    const put = rows[name].flatMap((r) => (r.now === undefined ? [] : [r.now]));
    await inChunks(put, (some) => table.bulkPut(some), step);
  }
  const phrases = [...byPhrase];
  const known = new Set((await db.tallies.toCollection().primaryKeys()).map(String));
  const byKnown = group(phrases, ([phrase]) => known.has(phrase));
  await inChunks(
    byKnown.get(false) ?? [],
    (some) => {
      for (const [, own] of some) own.sort((a, b) => a.at - b.at);
      return Promise.all([
        db.tries.bulkPut(some.flatMap(([phrase, own]) => [...pagesOf(phrase, own, null)])),
        db.tallies.bulkPut(some.map(([phrase, own]) => ({ ...bestOf(own), id: phrase }))),
      ]);
    },
    step,
  );
  for (const [phrase, own] of byKnown.get(true) ?? []) {
    await addTries(db, phrase, own);
    step(1);
  }
  await countAllAnew(db);
  return {
    rows,
    tries: new Map(phrases.map(([phrase, own]) => [phrase, new Map(own.map((t) => [t.id, had.get(t.id) ?? null]))])),
  };
}

/** Writes rows in chunks. The next one is made ready while the browser writes the one before; no more wait at once. */
async function inChunks<T>(
  rows: readonly T[],
  write: (some: readonly T[]) => PromiseLike<unknown>,
  step: (n: number) => void,
): Promise<void> {
  let before: PromiseLike<unknown> = Promise.resolve();
  for (let at = 0; at < rows.length; at += CHUNK) {
    const some = rows.slice(at, at + CHUNK);
    const [waited, now] = [before, write(some)];
    before = now.then(() => step(some.length));
    // Where the one before fails, this one does too, and nobody waits for it any more.
    void before.then(undefined, () => undefined);
    await waited;
  }
  await before;
}

/**
 * Takes a merge back inside a transaction, row by row where it still stands as it was written. Resolves to how many
 * phrases stay because they were changed or played since.
 */
export async function takeMergeBack(db: ShelfDb, done: MergeDone): Promise<number> {
  let stayed = 0;
  for (const [phrase, befores] of done.tries) {
    for (const page of await pagesRange(db, phrase).toArray()) {
      const tries = page.tries.flatMap((t) => {
        const before = befores.get(t.id);
        return before === undefined ? [t] : before === null ? [] : [before];
      });
      if (tries.length === 0) await db.tries.delete([page.phrase, page.n]);
      else if (page.tries.some((t) => befores.has(t.id))) await db.tries.put({ ...page, tries });
    }
    await countAnew(db, phrase);
  }
  await countAllAnew(db);
  for (const name of ROWS) {
    const table = db.table(name);
    for (const { key, before, now } of done.rows[name]) {
      const stands: unknown = await table.get(key);
      const isAsWritten = stableJson(stands ?? null) === stableJson(now ?? null);
      // A new phrase that was played since stays, with what was played.
      const isPlayed = name === 'phrases' && before === undefined && (await db.tallies.get(key)) !== undefined;
      if (!isAsWritten || isPlayed) {
        if (name === 'phrases') stayed++;
      } else if (before === undefined) await table.delete(key);
      else await table.put(before);
    }
  }
  return stayed;
}

/** Counts anew how many tries there are in all, from the tallies. */
async function countAllAnew(db: ShelfDb): Promise<void> {
  const tallies = await db.tallies.toArray();
  const attempts = tallies.reduce((n, t) => n + (t.id === ALL_TRIES ? 0 : t.attempts), 0);
  await db.tallies.put({ ...NO_BEST, attempts, id: ALL_TRIES });
}

/** Tries that come to a phrase that has some: those that are there already are the same ones, told differently. */
async function addTries(db: ShelfDb, phrase: string, tries: readonly Attempt[]): Promise<void> {
  const other = new Map(tries.map((t) => [t.id, t]));
  const old = await everyTryOf(db, phrase);
  const had = new Set(old.map((t) => t.id));
  const all = [...old.map((t) => other.get(t.id) ?? t), ...tries.filter((t) => !had.has(t.id))];
  all.sort((a, b) => a.at - b.at);
  await pagesRange(db, phrase).delete();
  await db.tries.bulkPut([...pagesOf(phrase, all, null)]);
  await db.tallies.put({ ...bestOf(all), id: phrase });
}
