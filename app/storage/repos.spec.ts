import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { TestBed } from '@angular/core/testing';
import Dexie from 'dexie';
import { MOST_STATES, REMOVED_FOR, SHELF_LIMITS } from '@core/shelf';
import { drillStep, newDrill, TRIES_A_PAGE, type DrillState } from '@core/drill';
import { readShelf, RULES, shelfLines } from '@core/formats/shelf-file';
import type { Phrase } from '@core/recipe';
import { attemptOf, phraseOf, typed, until } from '../testing/fixtures';
import { clearShelf, log, logged, untilAsked } from '../testing/shelf';
import { freshTestBed } from '../testing/test-bed';
import { BoardsRepo } from './boards.repo';
import { Database } from './database';
import { ShelfDb } from './db';
import { DraftsRepo } from './drafts.repo';
import { DrillsRepo } from './drills.repo';
import { HealthService } from './health.service';
import { LogEdits } from './log-edits.repo';
import { PhrasesRepo } from './phrases.repo';
import { SettingsRepo } from './settings.repo';
import { ShelfFiles } from './files/shelf-files.service';
import { isFull, storageWords } from './storage-words';
import { ALL_TRIES, thinned, triesByParts, triesOf } from './tries';

interface Then {
  readonly phrases: readonly { readonly id: string }[];
  readonly attempts: readonly { readonly phrase: string }[];
  readonly drills: readonly object[];
  readonly takes: readonly object[];
}

async function shelf() {
  freshTestBed();
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await clearShelf(db);
  return {
    db,
    phrases: TestBed.inject(PhrasesRepo),
    drills: TestBed.inject(DrillsRepo),
    files: TestBed.inject(ShelfFiles),
    health: TestBed.inject(HealthService),
  };
}
const fileOf = (text: string): Blob => new Blob([text]);
const ALL = {
  without: [],
  log: true,
  boards: true,
  shows: true,
  lessons: true,
  named: ['settings', 'profile', 'kits'],
};

describe('phrases', () => {
  it('one is followed as it changes; a row that is no phrase is set aside and told', async () => {
    const { db, phrases } = await shelf();
    const seen: (string | null)[] = [];
    const following = phrases.of$('a').subscribe((p) => seen.push(p?.name ?? null));
    await until(() => seen.length > 0);
    await phrases.save(phraseOf('a'));
    await until(() => seen.at(-1) === 'Phrase a');
    following.unsubscribe();
    const raw = db.backendDB();
    raw.transaction('phrases', 'readwrite').objectStore('phrases').put({ id: 'broken', name: 5 });
    await untilAsked(async () => (await phrases.get('broken')) === null && (await db.aside.count()) === 1);
    expect(await db.aside.toArray()).toMatchObject([
      { table: 'phrases', key: 'broken', row: { id: 'broken', name: 5 } },
    ]);
    expect(await db.phrases.toCollection().primaryKeys()).toEqual(['a']);
  });

  it('what must not be kept is refused as a whole, in words', async () => {
    const { db, phrases, health } = await shelf();
    expect(await phrases.save({ ...phraseOf('a'), tempo: 1e308 })).toEqual({ kind: 'failed' });
    expect(health.trouble()?.words).toContain('cannot be kept as it is');
    expect(await db.phrases.count()).toBe(0);
  });

  it('what it was before is remembered, twenty times, and a keeping is taken back alone', async () => {
    const { phrases } = await shelf();
    for (let i = 0; i < 25; i++) await phrases.save(phraseOf('a', { name: `Name ${i}`, changed: 1000 + i }));
    const states = await phrases.statesOf('a');
    expect(states).toHaveLength(MOST_STATES);
    expect(states[0]?.state.name).toBe('Name 23');
    const kept = await phrases.save(phraseOf('a', { name: 'Mistake', changed: 2000 }));
    if (kept.kind !== 'kept') throw new Error(kept.kind);
    await kept.undo?.();
    expect((await phrases.get('a'))?.name).toBe('Name 24');
    // What was kept since is not taken back.
    await phrases.save(phraseOf('a', { name: 'Later', changed: 3000 }));
    await kept.undo?.();
    expect((await phrases.get('a'))?.name).toBe('Later');
  });

  it('where another was kept meanwhile nothing is written over', async () => {
    const { phrases } = await shelf();
    const base = phraseOf('a');
    expect((await phrases.save(base, null)).kind).toBe('kept');
    const theirs = await phrases.save({ ...base, name: 'Theirs', changed: 2000 }, base);
    const mine = await phrases.save({ ...base, name: 'Mine', changed: 3000 }, base);
    expect([theirs.kind, mine.kind]).toEqual(['kept', 'elsewhere']);
    expect(mine.kind === 'elsewhere' && mine.theirs?.name).toBe('Theirs');
    expect((await phrases.get('a'))?.name).toBe('Theirs');
  });

  it('taken off with log, drill and takes, all of it comes back, never over a newer one', async () => {
    const { db, phrases, drills } = await shelf();
    await phrases.save(phraseOf('a'));
    await log(db, attemptOf('1', 'a'), attemptOf('2', 'other'));
    await drills.keep(newDrill('d', 'a', { start: 60, goal: 100, step: 5, loops: 4 }));
    const back = await phrases.remove(['a']);
    expect(await phrases.get('a')).toBeNull();
    expect(await back?.()).toBe(true);
    expect([(await phrases.get('a'))?.name, await logged(db, 'a'), (await drills.of('a'))?.id]).toEqual([
      'Phrase a',
      1,
      'd',
    ]);
    const again = await phrases.remove(['a']);
    await phrases.save(phraseOf('a', { name: 'Newer' }), null);
    await again?.();
    expect((await phrases.get('a'))?.name).toBe('Newer');
    expect(await phrases.remove(['gone'])).toBeNull();
  });

  it('kept again after it was taken off elsewhere, it is not among those taken off any more', async () => {
    const { phrases } = await shelf();
    await phrases.save(phraseOf('a'));
    await phrases.remove(['a']);
    await phrases.save(phraseOf('a', { name: 'Again' }), null);
    let removed: readonly unknown[] = ['?'];
    const following = phrases.removed$.subscribe((all) => (removed = all));
    await until(() => removed.length === 0);
    following.unsubscribe();
  });

  it('a taking back that took nothing back says so', async () => {
    const { db, phrases } = await shelf();
    const undo = await phrases.add([phraseOf('a'), phraseOf('b')]);
    if (undo === null || undo === 'full') throw new Error('not added');
    await log(db, attemptOf('1', 'a'));
    expect(await undo()).toBe(false);
    expect(await db.phrases.toCollection().primaryKeys()).toEqual(['a']);
  });

  it('after 30 days what was taken off is forgotten, and that it was is remembered', async () => {
    const { db, phrases } = await shelf();
    await phrases.save(phraseOf('a'));
    await log(db, attemptOf('1', 'a'));
    await phrases.remove(['a']);
    await db.removals.update('a', { at: Date.now() - REMOVED_FOR - 1 });
    expect(await phrases.forgetOld()).toBe(1);
    expect([await logged(db, 'a'), (await db.removals.get('a'))?.phrase]).toEqual([0, null]);
    expect(await phrases.forgetOld()).toBe(0);
  });

  it('a clock that was set back does not make the newer the older', async () => {
    const { phrases } = await shelf();
    await phrases.save(phraseOf('a', { changed: 5_000_000 }));
    const kept = await phrases.save(phraseOf('a', { name: 'Newer', changed: 10 }));
    expect(kept.kind === 'kept' && kept.phrase.changed).toBe(5_000_001);
  });

  it('one more than a shelf holds is refused in words', async () => {
    const { db, phrases } = await shelf();
    jest.spyOn(db.phrases, 'count').mockReturnValue(Dexie.Promise.resolve(SHELF_LIMITS.phrases));
    const kept = await phrases.save(phraseOf('a'), null);
    expect(kept.kind === 'full' && kept.words).toContain('10,000 phrases');
    expect(await phrases.add([phraseOf('b')])).toBe('full');
    jest.restoreAllMocks();
  });
});

describe('drills', () => {
  it('kept twice, a try is logged once; of a drill that is done only that is kept', async () => {
    const { db, drills } = await shelf();
    let state = newDrill('d', 'a', { start: 90, goal: 90, step: 5, loops: 1 });
    for (const kind of ['start', 'counted-in'] as const) state = drillStep(state, { kind, at: 1 });
    state = drillStep(state, { kind: 'loop', id: 'try-1', at: 1 });
    await drills.keep(state);
    expect(await drills.of('a')).toMatchObject(state);
    const done = drillStep(state, { kind: 'clean', id: 'try-2', at: 2 });
    await drills.keep(done, done.attempts[0]);
    await drills.keep(done, done.attempts[0]);
    await drills.keep(done);
    expect(done.phase).toBe('done');
    expect([await logged(db, 'a'), await drills.of('a')]).toEqual([1, null]);
    expect(await db.drills.toArray()).toMatchObject([{ id: 'd', phase: 'done', attempts: [] }]);
  });
  it('one phrase has one drill: a new one takes the place of the old', async () => {
    const { db, drills } = await shelf();
    const plan = { start: 60, goal: 100, step: 5, loops: 4 };
    await drills.keep(newDrill('one', 'a', plan));
    await drills.keep(newDrill('two', 'a', plan));
    expect((await db.drills.toArray()).map((d) => d.id)).toEqual(['two']);
    await drills.forget('a');
    expect(await drills.of('a')).toBeNull();
  });
  it('tries lie in pages, in order, and add up beside them as plain counting does', async () => {
    const { db, drills } = await shelf();
    const many = 2 * TRIES_A_PAGE + 7;
    const tries = Array.from({ length: many }, (_, i) =>
      attemptOf(`t${i}`, 'a', { at: 1000 + ((i * 37) % many), bpm: 60 + (i % 50), verdict: i % 3 ? 'messy' : 'clean' }),
    );
    for (let at = 0; at < many; at += 60) await log(db, ...tries.slice(at, at + 60));
    const all = await triesOf(db, 'a');
    expect(all.map((t) => t.at)).toEqual([...all.map((t) => t.at)].sort((x, y) => x - y));
    expect(new Set(all.map((t) => t.id)).size).toBe(many);
    let [clean, lastAt, lastClean] = [0, 0, 0];
    for (const t of all) {
      lastAt = Math.max(lastAt, t.at);
      if (t.verdict === 'clean') {
        clean = Math.max(clean, t.bpm);
        lastClean = t.bpm;
      }
    }
    expect(await drills.bestOf('a')).toMatchObject({ clean, lastAt, lastClean, attempts: many });
    expect((await db.tallies.get(ALL_TRIES))?.attempts).toBe(many);
  });
  it('read by parts, the tries are those that are read at once: all pages, in order, none that was taken out', async () => {
    const { db } = await shelf();
    const many = 11 * TRIES_A_PAGE + 7;
    const tries = Array.from({ length: many }, (_, i) => attemptOf(`t${i}`, 'a', { at: 1000 + ((i * 37) % many) }));
    await log(db, ...tries, attemptOf('x', 'b'));
    await db.tries.toCollection().modify((page) => {
      page.tries = page.tries.map((t) => (t.id.endsWith('3') ? { ...t, off: true } : t));
    });
    const parts = await triesByParts(db, 'a');
    expect(parts).toEqual(await triesOf(db, 'a'));
    expect(parts).toHaveLength(tries.filter((t) => !t.id.endsWith('3')).length);
    expect(await triesByParts(db, 'nobody')).toEqual([]);
  });
  it('a try is written once: what the log says of it stands, and a drill that goes on adds only what is new', async () => {
    const { db, drills } = await shelf();
    const tries = [attemptOf('1', 'a'), attemptOf('2', 'a', { at: 2000, bpm: 90 })] as const;
    const state = { ...newDrill('d', 'a', { start: 90, goal: 90, step: 5, loops: 1 }), attempts: [...tries] };
    await drills.keep({ ...state, attempts: [tries[0]] }, tries[0]);
    await drills.keep(state, tries[1]);
    await drills.keep({ ...state, attempts: [tries[0], { ...tries[1], verdict: 'messy' }] });
    await drills.keep(state, { ...tries[1], verdict: 'messy' });
    expect((await triesOf(db, 'a')).map((t) => t.verdict)).toEqual(['clean', 'clean']);
    // Corrected and taken out in another tab: neither comes back with the next try of this one.
    const edits = TestBed.inject(LogEdits);
    await edits.change('a', '2', { verdict: 'messy', note: 'rushed' });
    await edits.remove('a', '1');
    const third = attemptOf('3', 'a', { at: 3000 });
    await drills.keep({ ...state, attempts: [...state.attempts, third] }, third);
    expect((await triesOf(db, 'a')).map((t) => [t.id, t.verdict, t.note])).toEqual([
      ['2', 'messy', 'rushed'],
      ['3', 'clean', undefined],
    ]);
    expect((await drills.of('a'))?.attempts.map((t) => [t.id, t.verdict])).toEqual([
      ['2', 'messy'],
      ['3', 'clean'],
    ]);
    expect(await drills.bestOf('a')).toMatchObject({ clean: 80, attempts: 2 });
  });
  it('taking back one correction of a try leaves what was said of it since, in this tab or another', async () => {
    const { db } = await shelf();
    await log(db, attemptOf('1', 'a', { note: 'first' }));
    const edits = TestBed.inject(LogEdits);
    const backVerdict = await edits.change('a', '1', { verdict: 'messy' });
    const backNote = await edits.change('a', '1', { note: 'rushed' });
    await backVerdict!();
    expect((await triesOf(db, 'a'))[0]).toMatchObject({ verdict: 'clean', note: 'rushed' });
    const putBack = await edits.remove('a', '1');
    await backNote!();
    expect(await logged(db, 'a')).toBe(0);
    await putBack!();
    expect((await triesOf(db, 'a'))[0]).toMatchObject({ verdict: 'clean', note: 'first' });
    expect((await db.tallies.get(ALL_TRIES))?.attempts).toBe(1);
  });
  it('two drills on one state each add their own tries, and neither loses those of the other', async () => {
    const { db, drills } = await shelf();
    let [here, there] = [1, 2].map(() => newDrill('d', 'a', { start: 60, goal: 120, step: 5, loops: 1 }));
    const play = async (state: DrillState, n: number): Promise<DrillState> => {
      const before = drillStep(drillStep(state, { kind: 'start', at: n }), { kind: 'counted-in', at: n });
      const next = drillStep(before, { kind: 'messy', id: `t${n}`, at: n });
      await drills.keep(next, next.attempts.at(-1));
      return next;
    };
    for (let n = 0; n < 6; n++) {
      if (n % 2) there = await play(there!, n);
      else here = await play(here!, n);
    }
    const all = ['t0', 't1', 't2', 't3', 't4', 't5'];
    expect((await triesOf(db, 'a')).map((t) => t.id)).toEqual(all);
    expect((await drills.of('a'))?.attempts.map((t) => t.id)).toEqual(all);
    expect((await db.tallies.get(ALL_TRIES))?.attempts).toBe(6);
  });
  it('a try that could not be written is owed: the next keeping logs both', async () => {
    const { db, drills } = await shelf();
    const [one, two] = [attemptOf('1', 'a'), attemptOf('2', 'a', { at: 2000 })];
    const state = { ...newDrill('d', 'a', { start: 90, goal: 90, step: 5, loops: 1 }), attempts: [one] };
    const full = jest.spyOn(db.drills, 'put').mockRejectedValueOnce(new DOMException('full', 'QuotaExceededError'));
    expect(await drills.keep(state, one)).toBe(false);
    expect(await logged(db, 'a')).toBe(0);
    full.mockRestore();
    expect(await drills.keep({ ...state, attempts: [one, two] }, two)).toBe(true);
    expect((await triesOf(db, 'a')).map((t) => t.id)).toEqual(['1', '2']);
    expect((await drills.of('a'))?.attempts.map((t) => t.id)).toEqual(['1', '2']);
  });
  it('more tries than the log holds are thinned to the best of each day', async () => {
    const { db } = await shelf();
    const day = 86_400_000;
    await log(
      db,
      ...Array.from({ length: 30 }, (_, i) =>
        attemptOf(`t${i}`, 'a', { at: Math.floor(i / 10) * day, bpm: 60 + (i % 10) }),
      ),
    );
    await log(db, attemptOf('x', 'b'));
    const thin = await db.transaction('rw', db.own, () => thinned(db, 20));
    expect(thin).toEqual({ gone: 27, phrase: 'a' });
    expect((await triesOf(db, 'a')).map((t) => t.bpm)).toEqual([69, 69, 69]);
    expect([await logged(db, 'b'), (await db.tallies.get(ALL_TRIES))?.attempts]).toEqual([1, 4]);
  });
});

describe('the shelf as a file', () => {
  it('goes out and comes into an empty shelf the same; taken back, only what it brought goes', async () => {
    const { db, files, phrases, drills } = await shelf();
    await phrases.save(phraseOf('a'));
    await phrases.save(phraseOf('b'));
    await log(db, attemptOf('1', 'a'), attemptOf('2', 'b'));
    await TestBed.inject(SettingsRepo).change({ triplets: 'and-a' });
    const file = await files.export();
    await clearShelf(db);
    await phrases.save(phraseOf('before'));
    const read = await files.read(file);
    if (!read.ok) throw new Error(read.problems[0].message);
    expect(read.value.groups.map((g) => g.words)).toEqual(['2 new phrases']);
    expect([read.value.tries, read.value.named.map((n) => n.key), read.value.file]).toEqual([
      2,
      ['settings'],
      'as written',
    ]);
    expect(await db.phrases.count()).toBe(1);
    expect(await files.take(ALL)).toMatchObject({
      kind: 'taken',
      words: '2 phrases and 2 tries from the file are on the shelf.',
    });
    expect((await db.phrases.toCollection().primaryKeys()).sort()).toEqual(['a', 'b', 'before']);
    expect(await drills.bestOf('a')).toMatchObject({ clean: 80, attempts: 1 });
    // Read again it changes nothing.
    const again = await files.read(file);
    expect(again.ok && [again.value.groups, again.value.tries, again.value.named]).toEqual([[], 0, []]);
    files.forget();
  });

  it('what was kept and played since stays when an import is taken back', async () => {
    const { db, files, phrases } = await shelf();
    await phrases.save(phraseOf('a', { name: 'Mine' }));
    await log(db, attemptOf('mine', 'a'));
    const text = [
      ...shelfLines({
        phrases: [
          phraseOf('a', { name: 'Theirs', changed: 9000 }),
          phraseOf('new'),
          phraseOf('played'),
          phraseOf('edited'),
        ],
        attempts: [attemptOf('theirs', 'a'), attemptOf('t2', 'new'), attemptOf('t3', 'played')],
      }),
    ].join('');
    await files.read(fileOf(text));
    await files.take(ALL);
    expect((await phrases.get('a'))?.name).toBe('Theirs');
    await log(db, attemptOf('since', 'played'), attemptOf('since-a', 'a'));
    await phrases.save(phraseOf('edited', { note: 'mine now' }));
    await phrases.save(phraseOf('since'));
    expect(await files.undo()).toContain('2 phrases that you changed or played since stay');
    const names = (await db.phrases.toArray()).map((p) => p.name).sort();
    expect(names).toEqual(['Mine', 'Phrase edited', 'Phrase played', 'Phrase since']);
    expect((await triesOf(db, 'a')).map((t) => t.id).sort()).toEqual(['mine', 'since-a']);
    expect((await triesOf(db, 'played')).map((t) => t.id)).toEqual(['since']);
    expect(await logged(db, 'new')).toBe(0);
    files.forget();
  });

  it('a try that was taken out of the log stays out when a file that has it is read; put back, it stands again', async () => {
    const { db, files } = await shelf();
    const edits = TestBed.inject(LogEdits);
    await log(db, attemptOf('1', 'a', { verdict: 'clean' }), attemptOf('2', 'a'));
    const before = await files.export();
    const back = await edits.remove('a', '1');
    const ids = async (): Promise<string[]> => (await triesOf(db, 'a')).map((t) => t.id);
    expect([await ids(), (await db.tallies.get('a'))?.attempts, (await db.tallies.get(ALL_TRIES))?.attempts]).toEqual([
      ['2'],
      1,
      1,
    ]);
    const read = await files.read(before);
    expect(read.ok && read.value.tries).toBe(0);
    await files.take(ALL);
    expect(await ids()).toEqual(['2']);
    // The file of now says that it is out: a shelf that has it yet loses it.
    const after = await files.export();
    expect(await back?.()).toBe(true);
    expect([(await ids()).sort(), (await db.tallies.get(ALL_TRIES))?.attempts]).toEqual([['1', '2'], 2]);
    await files.read(after);
    await files.take(ALL);
    expect((await ids()).sort()).toEqual(['1', '2']);
    await clearShelf(db);
    await files.read(before);
    await files.take(ALL);
    await files.read(after);
    await files.take(ALL);
    expect([await ids(), await logged(db, 'a')]).toEqual([['2'], 1]);
    expect(await edits.remove('a', '1')).toBeNull();
    files.forget();
  });

  it('a try that was corrected elsewhere is put back as it was when the import is taken back', async () => {
    const { db, files } = await shelf();
    await log(db, attemptOf('1', 'a', { verdict: 'clean' }), attemptOf('2', 'a'));
    const text = [...shelfLines({ attempts: [attemptOf('1', 'a', { verdict: 'messy' }), attemptOf('3', 'a')] })].join(
      '',
    );
    await files.read(fileOf(text));
    await files.take(ALL);
    const verdicts = async (): Promise<string> =>
      (await triesOf(db, 'a'))
        .map((t) => t.id + t.verdict)
        .sort()
        .join();
    expect(await verdicts()).toBe('1messy,2clean,3clean');
    await files.undo();
    expect(await verdicts()).toBe('1clean,2clean');
    expect((await db.tallies.get(ALL_TRIES))?.attempts).toBe(2);
    files.forget();
  });

  it('what is kept between the reading of a file and its taking is not written over', async () => {
    const { files, phrases } = await shelf();
    await phrases.save(phraseOf('a', { changed: 1000 }));
    await files.read(fileOf([...shelfLines({ phrases: [phraseOf('a', { name: 'Theirs', changed: 2000 })] })].join('')));
    await phrases.save(phraseOf('a', { name: 'Mine, later', changed: 3000 }));
    await files.take(ALL);
    expect((await phrases.get('a'))?.name).toBe('Mine, later');
    expect((await phrases.statesOf('a')).map((s) => s.state.name)).toEqual(['Theirs', 'Phrase a']);
    files.forget();
  });

  it('a log that would be more than it holds is refused, and nothing of the player’s own is thinned for it', async () => {
    const { db, files } = await shelf();
    await log(db, attemptOf('mine', 'b'));
    const many = Array.from({ length: SHELF_LIMITS.attempts }, (_, i) => attemptOf(`t${i}`, 'a'));
    await files.read(fileOf([...shelfLines({ attempts: many })].join('')));
    const taken = await files.take(ALL);
    expect(taken.kind === 'full' && taken.words).toContain('it would have 200,001');
    expect([await logged(db, 'a'), await logged(db, 'b')]).toEqual([0, 1]);
    files.forget();
  });

  it('what is left out is not taken', async () => {
    const { db, files } = await shelf();
    const text = [
      ...shelfLines({
        phrases: [phraseOf('a'), phraseOf('b')],
        attempts: [attemptOf('1', 'a'), attemptOf('2', 'b')],
        named: [{ key: 'settings', value: { theme: 'dark', triplets: 'and-a', sextuplets: 'ta-la' } }],
      }),
    ].join('');
    await files.read(fileOf(text));
    await files.take({ ...ALL, without: ['b'], named: [] });
    expect([
      (await db.phrases.toArray()).map((p) => p.id),
      await logged(db, 'b'),
      await db.kept.get('settings'),
    ]).toEqual([['a'], 0, undefined]);
    files.forget();
  });

  it('storage that is full in the middle of a merge changes nothing', async () => {
    const { db, files, phrases } = await shelf();
    await phrases.save(phraseOf('mine'));
    const text = [...shelfLines({ phrases: [phraseOf('a')], attempts: [attemptOf('1', 'a')] })].join('');
    await files.read(fileOf(text));
    const put = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(function (
      this: IDBObjectStore,
      ...args
    ) {
      if (this.name === 'tries') throw new DOMException('full', 'QuotaExceededError');
      put.mockRestore();
      const answer = this.put(...args);
      jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
        throw new DOMException('full', 'QuotaExceededError');
      });
      return answer;
    });
    await expect(files.take(ALL)).rejects.toThrow();
    jest.restoreAllMocks();
    expect([(await db.phrases.toArray()).map((p) => p.id), await logged(db, 'a')]).toEqual([['mine'], 0]);
    files.forget();
  });

  it('more than goes into one chunk: every row of every chunk lands, or none where one of them fails', async () => {
    const { db, files } = await shelf();
    const n = 2300;
    const ids = Array.from({ length: n }, (_, i) => `p${String(i).padStart(4, '0')}`);
    const text = [
      ...shelfLines({ phrases: ids.map((id) => phraseOf(id)), attempts: ids.map((id) => attemptOf(`t${id}`, id)) }),
    ].join('');
    const stands = async (): Promise<unknown> => [
      (await db.phrases.toCollection().primaryKeys()).sort(),
      (await db.tries.toArray()).flatMap((p) => p.tries.map((t) => t.id)).sort(),
      (await db.tallies.toCollection().primaryKeys()).filter((id) => id.startsWith('p')).length,
    ];
    await files.read(fileOf(text));
    // The last row of the second chunk of tries.
    const { put } = IDBObjectStore.prototype;
    jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(function (this: IDBObjectStore, ...args) {
      if (this.name === 'tries' && (args[0] as { phrase: string }).phrase === ids[1999])
        throw new DOMException('full', 'QuotaExceededError');
      return put.apply(this, args);
    });
    await expect(files.take(ALL)).rejects.toThrow();
    jest.restoreAllMocks();
    expect(await stands()).toEqual([[], [], 0]);
    await files.read(fileOf(text));
    await files.take(ALL);
    expect(await stands()).toEqual([ids, ids.map((id) => `t${id}`), n]);
    files.forget();
  });

  it('a shelf that would hold too many phrases is refused before anything is written', async () => {
    const { db, files } = await shelf();
    const read = await files.read(
      fileOf(
        [...shelfLines({ phrases: Array.from({ length: SHELF_LIMITS.phrases }, (_, i) => phraseOf(`p${i}`)) })].join(
          '',
        ),
      ),
    );
    expect(read.ok).toBe(true);
    await db.phrases.put(phraseOf('one more'.replace(' ', '-').replace(' ', '-')));
    expect(await files.take(ALL)).toMatchObject({ kind: 'full' });
    expect(await db.phrases.count()).toBe(1);
    files.forget();
  });

  it('an old database opens: tries in pages, the draft a tab’s', async () => {
    const old = new Dexie('loop-shelf-old');
    old.version(1).stores({ phrases: 'id', attempts: 'id, phrase', drills: 'id, &phrase', kept: 'key' });
    old.version(2).stores({ takes: 'id, phrase, at' });
    await old.open();
    await old.table('phrases').put(phraseOf('a'));
    await old
      .table('attempts')
      .bulkPut([attemptOf('2', 'a', { at: 2000, bpm: 90 }), attemptOf('1', 'a'), { id: 'odd', phrase: 'a' }]);
    await old.table('kept').bulkPut([
      { key: 'settings', value: { theme: 'dark', triplets: 'and-a', sextuplets: 'ta-la' } },
      { key: 'draft', value: { phrase: null, recipe: typed('R L'), tempo: 77 } },
    ]);
    old.close();
    const db = new ShelfDb('loop-shelf-old', { rules: RULES });
    expect((await triesOf(db, 'a')).map((t) => t.id)).toEqual(['1', '2']);
    expect(await db.tallies.get('a')).toMatchObject({ attempts: 2, clean: 90 });
    expect((await db.drafts.toArray())[0]?.draft.tempo).toBe(77);
    expect([await db.kept.count(), await db.aside.count()]).toEqual([1, 1]);
    await db.delete();
  });

  it('one from before tallies remembered what was shown opens, and they do', async () => {
    const old = new Dexie('loop-shelf-shown');
    old.version(5).stores({
      phrases: 'id, changed, family',
      tries: '[phrase+n]',
      tallies: 'id, lastAt',
      drills: 'id, &phrase, at',
      kept: 'key',
      takes: 'id, phrase, at',
      states: 'id, phrase',
      removals: 'id, at',
      boards: 'id',
      drafts: 'id, at',
      aside: '++n',
      packs: 'n',
    });
    await old.open();
    await old.table('tries').put({ phrase: 'a', n: 0, tries: [attemptOf('1', 'a', { at: 5, bpm: 88 })] });
    await old.table('tallies').put({ id: 'a', clean: 88, lastClean: 88, attempts: 1, lastAt: 5, cleanAt: 5 });
    old.close();
    const db = new ShelfDb('loop-shelf-shown', { rules: RULES });
    expect((await db.tallies.get('a'))?.shown).toEqual([{ bpm: 88, at: 5, measured: false }]);
    await db.delete();
  });

  it('one from before stages and findings were facts opens, with all of it; the cache of it is made anew', async () => {
    const then = JSON.parse(readFileSync(join(__dirname, '../../core/testing/shelves/version-2.json'), 'utf8')) as Then;
    const old = new Dexie('loop-shelf-facts');
    old.version(8).stores({
      ...{ phrases: 'id, changed, family', tries: '[phrase+n]', tallies: 'id, lastAt', drills: 'id, &phrase, at' },
      ...{ kept: 'key', takes: 'id, phrase, at', states: 'id, phrase', removals: 'id, at', boards: 'id' },
      ...{ drafts: 'id, at', aside: '++n', packs: 'n', clips: 'id', listening: 'id, at', unkept: 'id, phrase, at' },
    });
    await old.open();
    await old.table('phrases').bulkPut(then.phrases);
    await old.table('drills').bulkPut(then.drills);
    await old.table('takes').bulkPut(then.takes);
    for (const { id } of then.phrases)
      await old.table('tries').put({ phrase: id, n: 0, tries: then.attempts.filter((a) => a.phrase === id) });
    await old.table('packs').put({ n: 1, json: '[]' });
    old.close();
    const db = new ShelfDb('loop-shelf-facts', { rules: RULES });
    const tries = (await Promise.all(then.phrases.map((p) => triesOf(db, p.id)))).flat();
    const read = readShelf(JSON.stringify(then));
    if (!read.ok) throw new Error('it is not read');
    const { contents } = read.value;
    const byId = (a: { id: string }, b: { id: string }): number => (a.id < b.id ? -1 : 1);
    expect([...tries].sort(byId)).toEqual([...contents.attempts].sort(byId));
    expect((await db.drills.toArray()).sort(byId)).toEqual([...contents.drills].sort(byId));
    expect((await db.takes.toArray()).sort(byId)).toEqual([...contents.takes].sort(byId));
    expect(tries.every((t) => t.drilled !== undefined && !('stage' in t))).toBe(true);
    expect([await db.packs.count(), await db.aside.count()]).toEqual([0, 0]);
    await db.delete();
  });
});

describe('what was kept before moves chose by expressions', () => {
  const then = JSON.parse(readFileSync(join(__dirname, '../../core/testing/shelves/version-3.json'), 'utf8')) as Then;
  const first = then.phrases[0] as Phrase;
  const rows = [
    ['phrases', then.phrases],
    ['unkept', [{ id: 'u', at: 3, phrase: null, recipe: first.recipe, tempo: 90 }]],
    ['drafts', [{ id: 'tab', at: 3, draft: { phrase: first.id, recipe: first.recipe, tempo: 90, base: first } }]],
  ] as const;
  const whole = readShelf(JSON.stringify(then));
  if (!whole.ok) throw new Error('it is not read');
  const byId = (a: { id: string }, b: { id: string }): number => (a.id < b.id ? -1 : 1);

  it('opens with all of it, in today’s form', async () => {
    const old = new Dexie('loop-shelf-choices');
    old.version(9).stores({
      ...{ phrases: 'id, changed, family', tries: '[phrase+n]', tallies: 'id, lastAt', drills: 'id, &phrase, at' },
      ...{ kept: 'key', takes: 'id, phrase, at', states: 'id, phrase', removals: 'id, at', boards: 'id' },
      ...{ drafts: 'id, at', aside: '++n', packs: 'n', clips: 'id', listening: 'id, at', unkept: 'id, phrase, at' },
    });
    await old.open();
    for (const [table, own] of rows) await old.table(table).bulkPut([...own]);
    old.close();
    const db = new ShelfDb('loop-shelf-choices', { rules: RULES });
    expect((await db.phrases.toArray()).sort(byId)).toEqual([...whole.value.contents.phrases].sort(byId));
    expect(JSON.stringify([await db.unkept.toArray(), await db.drafts.toArray()])).toContain('"is":"limb"');
    expect([await db.aside.count(), await db.unkept.count(), await db.drafts.count()]).toEqual([0, 1, 1]);
    db.close();
    // As it lies in the database, behind the gate.
    const bare = new Dexie('loop-shelf-choices');
    await bare.open();
    const kept = JSON.stringify(await bare.table('phrases').toArray());
    expect(kept.match(/"select":\{"is"/g)?.length).toBe(kept.match(/"select":/g)?.length);
    await bare.delete();
  });
  it('a row of before that an older tab put back is read in today’s form', async () => {
    const { db } = await shelf();
    const bare = new Dexie(db.name);
    await bare.open();
    await bare.table('phrases').bulkPut([...then.phrases]);
    bare.close();
    expect((await db.phrases.toArray()).sort(byId)).toEqual([...whole.value.contents.phrases].sort(byId));
  });
});

describe('boards', () => {
  it('each change is taken back alone, whatever was done to the board since', async () => {
    const { db } = await shelf();
    const boards = TestBed.inject(BoardsRepo);
    const made = await boards.create('Show', null, ['a', 'b', 'c']);
    const { id } = made!;
    const now = async (): Promise<string> => {
      const board = await db.boards.get(id);
      return `${board?.name} ${board?.phrases.join('')}`;
    };
    const added = await boards.add(id, ['d', 'a']);
    const moved = await boards.move(id, 'c', 'a');
    const renamed = await boards.rename(id, 'First night');
    const taken = await boards.take(id, ['b']);
    expect(await now()).toBe('First night cad');
    await added?.();
    expect(await now()).toBe('First night ca');
    await taken?.();
    await renamed?.();
    expect(await now()).toBe('Show cab');
    await moved?.();
    expect(await now()).toBe('Show abc');
    await boards.rename(id, 'Mine');
    await renamed?.();
    expect(await now()).toBe('Mine abc');
  });

  it('of those that were dropped only as many are remembered as a file may hold', async () => {
    const { db } = await shelf();
    const boards = TestBed.inject(BoardsRepo);
    const dropped = Array.from({ length: 400 }, (_, i) => ({
      id: `b${i}`,
      name: 'Gone',
      question: null,
      phrases: [],
      place: i,
      changed: i,
      dropped: true,
    }));
    await db.boards.bulkPut(dropped);
    await boards.create('New', null);
    expect([await db.boards.count(), await db.boards.get('b0'), (await db.boards.get('b399'))?.name]).toEqual([
      400,
      undefined,
      'Gone',
    ]);
  });
});

describe('drafts', () => {
  it('a tab that never had one takes over that of a tab that is gone; a draft that cannot be read is no empty one', async () => {
    const { db } = await shelf();
    const drafts = TestBed.inject(DraftsRepo);
    const locks = {
      query: () => Promise.resolve({ held: [] }),
      request: (_: string, __: object, held: (lock: object) => unknown) => Promise.resolve(held({})),
    };
    Object.defineProperty(navigator, 'locks', { value: locks, configurable: true });
    const draft = { phrase: null, recipe: typed('R L K'), tempo: 80 };
    await db.drafts.put({ id: 'gone', at: 5, draft });
    await db.drafts.put({ id: 'older', at: 4, draft: { ...draft, tempo: 60 } });
    expect(await drafts.get()).toEqual({ draft, read: true });
    expect((await drafts.left()).map((d) => d.draft.tempo)).toEqual([60]);
    await drafts.keep({ ...draft, tempo: 99 });
    expect((await drafts.get()).draft?.tempo).toBe(99);
    jest.spyOn(db.drafts, 'get').mockRejectedValue(new Error('no'));
    expect(await drafts.get()).toEqual({ draft: null, read: false });
    jest.restoreAllMocks();
    // What is made after that lies beside it, not over it.
    drafts.renew();
    await drafts.keep({ ...draft, tempo: 55 });
    expect((await db.drafts.toArray()).map((d) => d.draft.tempo).sort()).toEqual([55, 60, 99]);
    // Where the browser tells of no tabs, the draft of another may be that of one that lives.
    Object.defineProperty(navigator, 'locks', { value: undefined, configurable: true });
    await db.drafts.clear();
    await db.drafts.put({ id: 'lives', at: 5, draft });
    expect((await drafts.get()).draft).toBeNull();
    expect(await db.drafts.count()).toBe(1);
  });
});

describe('settings', () => {
  it('changed before they were read, or in another tab, undo no other', async () => {
    const { db } = await shelf();
    await db.kept.put({ key: 'settings', value: { theme: 'dark', triplets: 'and-a', sextuplets: 'trip-let' } });
    const settings = TestBed.inject(SettingsRepo);
    await settings.change({ sextuplets: 'ta-la' });
    expect((await db.kept.get('settings'))?.value).toEqual({ theme: 'dark', triplets: 'and-a', sextuplets: 'ta-la' });
    await until(() => settings.now().theme === 'dark' && settings.now().sextuplets === 'ta-la');
  });
});

describe('what is kept under a name', () => {
  it('kept unchanged it writes nothing, and what is changed after is written', async () => {
    const { db } = await shelf();
    const settings = TestBed.inject(SettingsRepo);
    expect(await settings.change({ theme: 'light' })).toBe(true);
    expect(await db.kept.get('settings')).toBeUndefined();
    expect(await settings.change({ theme: 'dark' })).toBe(true);
    expect((await db.kept.get('settings'))?.value).toMatchObject({ theme: 'dark' });
  });
});

describe('leaving the page', () => {
  it('is known to be too early while work that ends in a write is under way', async () => {
    const { files, health, phrases } = await shelf();
    await files.read(fileOf([...shelfLines({ phrases: [phraseOf('b')] })].join('')));
    for (const work of [() => files.take(ALL), () => phrases.save(phraseOf('a')), () => phrases.remove(['a'])]) {
      const under = work();
      expect(health.allKept()).toBe(false);
      await under;
      expect(health.allKept()).toBe(true);
    }
  });
});

describe('storage that fails', () => {
  it('is told in words, can be tried again, and is silent once it works', async () => {
    const { health } = await shelf();
    let full = true;
    const write = (): Promise<void> =>
      full ? Promise.reject(Object.assign(new Error('x'), { name: 'QuotaExceededError' })) : Promise.resolve();
    expect(await health.write(write)).toBe(false);
    expect(health.trouble()?.words).toContain('full');
    full = false;
    health.trouble()?.retry?.();
    await until(() => health.trouble() === null);
  });
  it('stays shown when another write goes well, and all that failed is tried again', async () => {
    const { health } = await shelf();
    let full = true;
    const written: string[] = [];
    const write = (name: string) => (): Promise<void> => {
      if (full) return Promise.reject(new Error('full'));
      written.push(name);
      return Promise.resolve();
    };
    await health.write(write('phrase'));
    await health.write(write('old draft'), 'draft');
    await health.write(() => Promise.resolve());
    expect(health.trouble()).not.toBeNull();
    expect(health.allKept()).toBe(false);
    await health.write(write('new draft'), 'draft');
    full = false;
    health.trouble()?.retry?.();
    await until(() => health.trouble() === null);
    expect(written).toEqual(['phrase', 'new draft']);
    expect(health.allKept()).toBe(true);
  });
  it('a phrase that could not be kept and was taken off is not put on by trying again', async () => {
    const { db, health, phrases } = await shelf();
    await phrases.save(phraseOf('a'));
    const put = jest.spyOn(db.phrases, 'put').mockRejectedValueOnce(new Error('full'));
    await phrases.save(phraseOf('a', { name: 'Changed' }));
    put.mockRestore();
    expect(health.allKept()).toBe(false);
    await phrases.remove(['a']);
    expect([health.trouble(), await db.phrases.count()]).toEqual([null, 0]);
  });
  it('a newer write that goes well makes the older idle', async () => {
    const { health } = await shelf();
    await health.write(() => Promise.reject(new Error('full')), 'draft');
    await health.write(() => Promise.resolve(), 'draft');
    expect(health.trouble()).toBeNull();
  });
  it.each([
    ['QuotaExceededError', 'Save a backup, free some space'],
    ['MissingAPIError', '(private?)'],
    ['OpenFailedError', 'full disk or private window'],
    ['UnknownError', 'full disk or private window'],
    ['VersionError', 'newer Loop Shelf'],
    ['AbortError', 'Try again'],
  ])('%s says what to do', (name, words) => {
    expect(storageWords(Object.assign(new Error('x'), { name }))).toContain(words);
    expect(storageWords('no error at all')).toContain('still here');
  });
  it('a disk that is full is known also where the browser says it only in words', () => {
    const inner = new DOMException('Connection is closing because of: FILE_ERROR_NO_SPACE', 'UnknownError');
    const error = Object.assign(new Error('aborted'), { name: 'AbortError', inner });
    expect([isFull(error), storageWords(error)]).toEqual([
      true,
      storageWords(new DOMException('', 'QuotaExceededError')),
    ]);
    expect(isFull(new Error('no'))).toBe(false);
  });
});
