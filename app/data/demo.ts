import { readShelf, shiftedShelf, validateSettings } from '@core/formats';
import type { ShelfDb } from './db';

const DAY = 24 * 60 * 60 * 1000;

/** Fills an empty demo database with The Salt Lantern, its log moved so that it ends yesterday. */
export async function fillDemo(db: ShelfDb): Promise<void> {
  if ((await db.phrases.count()) > 0 || (await db.kept.get('demo-filled'))) return;
  const read = readShelf(await (await fetch('/demo/salt-lantern.json')).text());
  if (!read.ok) throw new Error(read.problems[0].message);
  const newest = Math.max(...read.value.attempts.map((a) => a.at));
  const days = Math.floor(Date.now() / DAY) - Math.floor(newest / DAY) - 1;
  const file = shiftedShelf(read.value, days * DAY);
  await db.transaction('rw', [db.phrases, db.attempts, db.drills, db.kept], async () => {
    await db.phrases.bulkPut(file.phrases);
    await db.attempts.bulkPut(file.attempts);
    await db.drills.bulkPut(file.drills);
    await db.kept.put({ key: 'demo-filled', value: true });
    if (validateSettings(file.settings)) await db.kept.put({ key: 'settings', value: file.settings });
  });
}
