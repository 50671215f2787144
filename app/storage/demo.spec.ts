import { readFileSync } from 'node:fs';
import { RULES } from '@core/formats/shelf-file';
import { USUAL_KIT } from '@core/kit';
import { USUAL_PROFILE } from '@core/reach';
import { clearShelf } from '../testing/shelf';
import { DEMO_DATABASE } from '../environment/database-names';
import { ShelfDb } from './db';
import { fillDemo } from './demo';
import { untilFilled } from './demo-filled';
import { IndexEngine } from '../knowledge/index/index-engine';

const FILE = JSON.parse(readFileSync('demo/salt-lantern.json', 'utf8')) as {
  readonly phrases: readonly unknown[];
  readonly attempts: readonly unknown[];
};
const before = globalThis.fetch;

/** The demo's file can be fetched, or cannot. */
function fileThere(is: boolean): void {
  globalThis.fetch = (() =>
    is ? Promise.resolve({ json: () => Promise.resolve(FILE) }) : Promise.reject(new TypeError('no network'))) as never;
}

async function emptyDemo(): Promise<ShelfDb> {
  const db = new ShelfDb(DEMO_DATABASE, { rules: RULES });
  await clearShelf(db);
  return db;
}

const triesIn = async (db: ShelfDb): Promise<number> =>
  (await db.tries.toArray()).reduce((n, page) => n + page.tries.length, 0);

describe('the demo', () => {
  afterEach(() => (globalThis.fetch = before));

  it('is filled once, however many try at once, and not again when something was taken off', async () => {
    fileThere(true);
    const db = await emptyDemo();
    await Promise.all([fillDemo(db), fillDemo(db), fillDemo(db)]);
    expect(await db.phrases.count()).toBe(FILE.phrases.length);
    expect(await triesIn(db)).toBe(FILE.attempts.length);
    await db.phrases.clear();
    await fillDemo(db);
    expect(await db.phrases.count()).toBe(0);
    db.close();
  });

  it('is waited for as long as is wished', async () => {
    fileThere(true);
    const db = await emptyDemo();
    expect(await untilFilled(db, 30)).toBe(false);
    const waiting = untilFilled(db);
    await fillDemo(db);
    expect(await waiting).toBe(true);
    db.close();
  });

  it('is filled by the index, which answers nothing before', async () => {
    fileThere(true);
    const db = await emptyDemo();
    const engine = new IndexEngine(DEMO_DATABASE, () => undefined);
    engine.about(USUAL_KIT, USUAL_PROFILE);
    const { all } = await engine.ask({ words: '', board: null, sort: 'name', descending: false, first: 1 });
    expect(all).toBe(FILE.phrases.length);
    engine.end();
    db.close();
  });

  it('that the index cannot fill, it waits for: nothing is not its answer', async () => {
    fileThere(false);
    const db = await emptyDemo();
    const engine = new IndexEngine(DEMO_DATABASE, () => undefined);
    const answers: number[] = [];
    const asked = engine
      .ask({ words: '', board: null, sort: 'name', descending: false, first: 1 })
      .then(({ all }) => answers.push(all));
    await new Promise((r) => setTimeout(r, 100));
    expect(answers).toEqual([]);
    fileThere(true);
    await fillDemo(db);
    await asked;
    expect(answers).toEqual([FILE.phrases.length]);
    engine.end();
    db.close();
  });
});
