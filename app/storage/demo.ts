import { group } from 'd3-array';
import { bestOf, NO_BEST, pagesOf } from '@core/drill';
import { shiftedShelf } from '@core/formats/shelf-file';
import { EMPTY_SHELF, type ShelfContents } from '@core/shelf';
import type { ShelfDb } from './db';
import { isFilled } from './demo-filled';
import { ALL_TRIES } from './tries';

const DAY = 24 * 60 * 60 * 1000;

/**
 * Fills an empty demo database with The Salt Lantern, its log moved so that it ends yesterday. Several may try at once:
 * one of them does it. The file is our own, and its test reads it as any other; here each of its rows is judged by the
 * gate of the database alone.
 */
export async function fillDemo(db: ShelfDb): Promise<void> {
  if (await isFilled(db)) return;
  const contents = { ...EMPTY_SHELF, ...((await (await fetch('/demo/salt-lantern.json')).json()) as ShelfContents) };
  const newest = Math.max(...contents.attempts.map((a) => a.at));
  const days = Math.floor(Date.now() / DAY) - Math.floor(newest / DAY) - 1;
  const shelf = shiftedShelf(contents, days * DAY);
  const byPhrase = group(shelf.attempts, (a) => a.phrase);
  await db.transaction('rw', db.own, async () => {
    if (await isFilled(db)) return;
    await db.phrases.bulkPut([...shelf.phrases]);
    for (const [phrase, tries] of byPhrase) await db.tries.bulkPut([...pagesOf(phrase, tries, null)]);
    await db.tallies.bulkPut([...byPhrase].map(([id, tries]) => ({ ...bestOf(tries), id })));
    await db.tallies.put({ ...NO_BEST, attempts: shelf.attempts.length, id: ALL_TRIES });
    await db.drills.bulkPut([...shelf.drills]);
    await db.shows.bulkPut([...shelf.shows]);
    await db.freeSittings.bulkPut([...shelf.freeSittings]);
    await db.lessons.bulkPut([...shelf.lessons]);
    await db.kept.bulkPut([...shelf.named, { key: 'demo-filled', value: true }]);
  });
}
