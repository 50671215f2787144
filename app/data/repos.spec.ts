import { TestBed } from '@angular/core/testing';
import { readShelf } from '@core/formats';
import { drillStep, newDrill } from '@core/drill';
import { attemptOf, phraseOf, until } from '../testing/fixtures';
import { Database } from './database';
import { DrillsRepo } from './drills.repo';
import { HealthService } from './health.service';
import { PhrasesRepo } from './phrases.repo';
import { SettingsRepo } from './settings.repo';
import { ShelfFiles } from './shelf-files.service';
import { storageWords } from './storage-words';
import { freshTestBed } from '../testing/test-bed';

async function shelf() {
  freshTestBed();
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await Promise.all([db.phrases.clear(), db.attempts.clear(), db.drills.clear(), db.kept.clear()]);
  return {
    db,
    phrases: TestBed.inject(PhrasesRepo),
    drills: TestBed.inject(DrillsRepo),
    files: TestBed.inject(ShelfFiles),
    health: TestBed.inject(HealthService),
  };
}

describe('phrases', () => {
  it('are followed live, newest first; rows that are no phrase are not shown', async () => {
    const { db, phrases } = await shelf();
    const seen: string[][] = [];
    const following = phrases.all$.subscribe((all) => seen.push((all ?? []).map((p) => p.id)));
    await until(() => seen.length > 0);
    await phrases.save(phraseOf('a', { created: 1 }));
    await phrases.save(phraseOf('b', { created: 2 }));
    await db.table('phrases').put({ id: 'broken', name: 5 });
    await until(() => seen.at(-1)?.join() === 'b,a');
    following.unsubscribe();
    expect(await phrases.get('broken')).toBeNull();
    expect(await phrases.get('a')).toMatchObject({ id: 'a' });
  });

  it('taken off with log and drill, all of it can be put back', async () => {
    const { db, phrases, drills } = await shelf();
    await phrases.save(phraseOf('a'));
    await db.attempts.bulkPut([attemptOf('1', 'a'), attemptOf('2', 'other')]);
    await drills.keep(newDrill('d', 'a', { start: 60, goal: 100, step: 5, loops: 4 }));
    const back = await phrases.remove('a');
    expect([await db.phrases.count(), await db.attempts.count(), await db.drills.count()]).toEqual([0, 1, 0]);
    expect(await back?.()).toBe(true);
    expect([await db.phrases.count(), await db.attempts.count(), await db.drills.count()]).toEqual([1, 2, 1]);
    expect(await phrases.remove('gone')).toBeNull();
  });
});

describe('drills', () => {
  it('kept twice, a try is logged once; a drill that is done leaves only its log', async () => {
    const { db, drills } = await shelf();
    let state = newDrill('d', 'a', { start: 90, goal: 90, step: 5, loops: 1 });
    for (const kind of ['start', 'counted-in', 'loop'] as const) state = drillStep(state, { kind, at: 1 });
    await drills.keep(state);
    expect(await drills.of('a')).toEqual(state);
    const done = drillStep(state, { kind: 'clean', at: 2 });
    await drills.keep(done);
    await drills.keep(done);
    expect(done.phase).toBe('done');
    expect([await db.attempts.count(), await db.drills.count()]).toEqual([1, 0]);
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
});

describe('the shelf as a file', () => {
  it('goes out and comes into an empty shelf the same; taking it back leaves what was there', async () => {
    const { db, files, phrases } = await shelf();
    await phrases.save(phraseOf('a'));
    await db.attempts.put(attemptOf('1', 'a'));
    await TestBed.inject(SettingsRepo).change({ triplets: 'and-a' });
    const text = await files.text();
    await Promise.all([db.phrases.clear(), db.attempts.clear(), db.kept.clear()]);
    await phrases.save(phraseOf('before'));
    const read = await files.read(text.length, () => Promise.resolve(text));
    if (!read.ok) throw new Error(read.problems[0].message);
    expect([read.value.fresh, read.value.replaced]).toEqual([1, 0]);
    const back = await files.take(read.value.file);
    expect((await db.phrases.toCollection().primaryKeys()).sort()).toEqual(['a', 'before']);
    await back?.();
    expect(await db.phrases.toCollection().primaryKeys()).toEqual(['before']);
    expect(await db.attempts.count()).toBe(0);
    expect(readShelf(text).ok).toBe(true);
  });
  it('counts what would be replaced, and does not open what is too large', async () => {
    const { files, phrases } = await shelf();
    await phrases.save(phraseOf('a'));
    const text = await files.text();
    const read = await files.read(text.length, () => Promise.resolve(text));
    expect(read.ok && [read.value.fresh, read.value.replaced]).toEqual([0, 1]);
    const large = await files.read(1e9, () => Promise.reject(new Error('never read')));
    expect(large.ok).toBe(false);
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

describe('leaving the page', () => {
  it('is known to be too early while work that ends in a write is under way', async () => {
    const { files, health, phrases } = await shelf();
    const text = await files.text();
    const read = await files.read(text.length, () => Promise.resolve(text));
    if (!read.ok) throw new Error(read.problems[0].message);
    for (const work of [
      () => files.take(read.value.file),
      () => phrases.save(phraseOf('a')),
      () => phrases.remove('a'),
    ]) {
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
    await phrases.remove('a');
    expect([health.trouble(), await db.phrases.count()]).toEqual([null, 0]);
  });
  it('a newer write that goes well makes the older idle', async () => {
    const { health } = await shelf();
    await health.write(() => Promise.reject(new Error('full')), 'draft');
    await health.write(() => Promise.resolve(), 'draft');
    expect(health.trouble()).toBeNull();
  });
  it.each([
    ['QuotaExceededError', 'Free some space'],
    ['MissingAPIError', 'private windows'],
    ['VersionError', 'newer Loop Shelf'],
    ['AbortError', 'Try again'],
  ])('%s says what to do', (name, words) => {
    expect(storageWords(Object.assign(new Error('x'), { name }))).toContain(words);
    expect(storageWords('no error at all')).toContain('safe');
  });
});
