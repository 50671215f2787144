import { TestBed } from '@angular/core/testing';
import fc from 'fast-check';
import { MOVE_NAMES } from '@core/recipe';
import { RUDIMENTS } from '@core/rudiments';
import { Database } from '../../../storage/database';
import { DraftsRepo } from '../../../storage/drafts.repo';
import { HealthService } from '../../../storage/health.service';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { UnkeptRepo } from '../../../storage/unkept.repo';
import { phraseOf, until } from '../../../testing/fixtures';
import { BenchStore } from './bench.store';
import { awaitWritesOf, clearShelf, untilAsked, writesLanded } from '../../../testing/shelf';
import { freshTestBed } from '../../../testing/test-bed';

async function fresh(): Promise<BenchStore> {
  freshTestBed();
  await writesLanded();
  const database = TestBed.inject(Database);
  await database.ready;
  await clearShelf(database.db);
  awaitWritesOf(TestBed.inject(HealthService));
  const store = TestBed.inject(BenchStore);
  await until(() => store.ready());
  return store;
}
const sentences = (store: BenchStore): string[] => store.build()?.trail.map((s) => s.sentence) ?? [];

describe('the Bench', () => {
  it('is empty at first; a rudiment gives a pattern and its sums', async () => {
    const store = await fresh();
    expect(store.build()).toBeNull();
    store.useRudiment(RUDIMENTS[0]!);
    expect(store.build()?.pattern.strokes).toHaveLength(8);
    expect(store.findings().map((f) => f.code)).toEqual(
      expect.arrayContaining(['fit', 'round', 'linear', 'balance', 'density']),
    );
  });

  it('adds, changes, switches, duplicates, moves and removes, one undo each', async () => {
    const store = await fresh();
    store.setSource({ kind: 'typed', text: 'R l l R', meter: '4/4', grid: 1260 });
    store.addMove('insert');
    store.addMove('fit');
    expect(sentences(store)).toEqual(['Add a kick at the end', 'Fill 1 bar, cut the last one']);
    expect(store.openCard()).toBe('m2');
    store.reorder(1, 0);
    expect(sentences(store)[0]).toBe('Fill 1 bar');
    store.duplicateMove('m1');
    expect(store.recipe()?.moves.map((m) => m.id)).toEqual(['m2', 'm1', 'm3']);
    store.switchMove('m3');
    expect(store.recipe()?.moves[2]?.on).toBe(false);
    store.removeMove('m2');
    expect(store.openCard()).toBeNull();
    for (let i = 0; i < 5; i++) store.undo();
    expect(sentences(store)).toEqual(['Add a kick at the end']);
    for (let i = 0; i < 5; i++) store.redo();
    expect(store.recipe()?.moves.map((m) => m.id)).toEqual(['m1', 'm3']);
  });

  it('undo and redo of 50 random actions come back to the same recipe', async () => {
    const store = await fresh();
    store.useRudiment(RUDIMENTS[15]!);
    const start = store.recipe();
    const rolls = fc.sample(fc.tuple(fc.nat(5), fc.nat(1000)), { numRuns: 50, seed: 3 });
    let done = 0;
    for (const [what, n] of rolls) {
      const before = store.recipe();
      const moves = before?.moves ?? [];
      const id = moves[n % Math.max(1, moves.length)]?.id ?? '';
      if (what < 2) store.addMove(MOVE_NAMES[n % MOVE_NAMES.length]!);
      else if (what === 2) store.switchMove(id);
      else if (what === 3) store.duplicateMove(id);
      else if (what === 4) store.reorder(n % Math.max(1, moves.length), (n * 7) % Math.max(1, moves.length));
      else store.removeMove(id);
      if (store.recipe() !== before) done++;
    }
    const end = store.recipe();
    for (let i = 0; i < done; i++) store.undo();
    expect(store.recipe()).toEqual(start);
    for (let i = 0; i < done; i++) store.redo();
    expect(store.recipe()).toEqual(end);
  });

  it('keeps a phrase, knows that it is kept, and that it was changed since', async () => {
    const store = await fresh();
    store.useRudiment(RUDIMENTS[0]!);
    expect(store.suggestedName()).toBe('Single stroke roll');
    const phrase = await store.keep({ name: 'Mine', family: 'lick', goal: 120, note: 'n' }, 5);
    expect(phrase.kind === 'kept' && phrase.phrase).toMatchObject({
      name: 'Mine',
      family: 'lick',
      goal: 120,
      created: 5,
      changed: 5,
    });
    expect(store.isKept()).toBe(true);
    store.setTempo(91);
    expect(store.isKept()).toBe(false);
    const again = await store.keep({ name: 'Mine', family: 'lick', goal: 120, note: 'n' }, 9);
    expect(again.kind === 'kept' && again.phrase).toMatchObject({
      id: store.phrase()?.id,
      created: 5,
      changed: 9,
      tempo: 91,
    });
  });

  it('opening a phrase puts what lay there one undo away; one that is gone leaves it', async () => {
    const store = await fresh();
    await TestBed.inject(PhrasesRepo).save(phraseOf('p'));
    store.useRudiment(RUDIMENTS[0]!);
    const lay = store.recipe();
    expect(await store.open('p')).toBe(true);
    expect(store.phrase()?.id).toBe('p');
    store.undo();
    expect(store.recipe()).toEqual(lay);
    expect(await store.open('gone')).toBe(false);
    expect(store.recipe()).toEqual(lay);
  });

  it('keeps a draft of every change', async () => {
    const store = await fresh();
    store.useRudiment(RUDIMENTS[3]!);
    TestBed.tick();
    let kept: unknown = null;
    for (let i = 0; i < 50 && !kept; i++) {
      await new Promise((r) => setTimeout(r, 10));
      kept = (await TestBed.inject(DraftsRepo).get()).draft?.recipe ?? null;
    }
    expect(kept).toEqual(store.recipe());
  });

  it('refuses the 65th move in words, by whatever way it comes, and keeps what is there', async () => {
    const store = await fresh();
    store.setSource({ kind: 'typed', text: 'R l l R', meter: '4/4', grid: 1260 });
    store.addMove('mirror');
    for (let i = 0; i < 63; i++) store.duplicateMove('m1');
    expect([store.recipe()?.moves.length, store.refused()]).toEqual([64, null]);
    const full = store.recipe();
    const one = full!.moves[0]!;
    for (const more of [
      () => store.duplicateMove('m1'),
      () => store.addMove('fit'),
      () => store.addVariant(one),
      () => store.take(one),
      () => store.replace({ ...full!, moves: [...full!.moves, one] }),
    ]) {
      more();
      expect(store.recipe()).toBe(full);
      expect(store.refused()?.words).toContain('at most 64 moves');
    }
  });

  it('kept elsewhere: taken over where it lies unchanged, told where it was changed, never written over', async () => {
    const store = await fresh();
    const phrases = TestBed.inject(PhrasesRepo);
    await phrases.save(phraseOf('p'));
    await store.open('p');
    TestBed.tick();
    await phrases.save(phraseOf('p', { tempo: 111, changed: 2000 }));
    await until(() => {
      TestBed.tick();
      return store.tempo() === 111;
    });
    expect(store.elsewhere()).toBeNull();
    store.setTempo(70);
    await phrases.save(phraseOf('p', { tempo: 120, changed: 3000 }));
    await until(() => {
      TestBed.tick();
      return store.elsewhere() !== null;
    });
    expect((await store.keep(phraseOf('p'), 4000)).kind).toBe('elsewhere');
    expect((await phrases.get('p'))?.tempo).toBe(120);
    const asNew = await store.keep({ ...phraseOf('p'), name: 'Mine' }, 4000, true);
    expect(asNew.kind === 'kept' && [asNew.phrase.parent?.id, asNew.phrase.tempo]).toEqual(['p', 70]);
    expect(store.elsewhere()).toBeNull();
  });

  const typedSource = (text: string) => ({ kind: 'typed' as const, text, meter: '4/4', grid: 1260 });
  const label = { family: 'fill' as const, goal: 100, note: '' };
  const leftWork = () => TestBed.inject(Database).db.unkept.toArray();

  it('after the first keeping every step before and after is that phrase’s: keeping or drilling again makes no second', async () => {
    const store = await fresh();
    store.setSource(typedSource('R L'));
    store.addMove('mirror');
    store.setTempo(101);
    store.undo();
    await store.keep({ ...label, name: 'Mine' }, 5);
    const { id } = store.phrase()!;
    store.redo();
    expect([store.phrase()?.id, store.isKept()]).toEqual([id, false]);
    store.undo();
    store.undo();
    expect([store.phrase()?.id, store.isKept(), store.recipe()?.moves]).toEqual([id, false, []]);
    await store.keep({ ...label, name: 'Mine' }, 6);
    store.undo();
    expect([store.phrase(), store.recipe()]).toEqual([null, null]);
    expect(await TestBed.inject(Database).db.phrases.count()).toBe(1);
  });

  it('something else that lies further back stays its own: only what was kept is owned', async () => {
    const store = await fresh();
    store.setSource(typedSource('R L'));
    await store.clear();
    store.setSource(typedSource('K K'));
    store.addMove('mirror');
    await store.keep({ ...label, name: 'Second' }, 5);
    const { id } = store.phrase()!;
    store.undo();
    expect(store.phrase()?.id).toBe(id);
    store.undo();
    store.undo();
    expect([store.phrase(), store.recipe()?.source]).toEqual([null, typedSource('R L')]);
  });

  it('says what undo does not undo, and where unkept work went', async () => {
    const store = await fresh();
    const noted: string[] = [];
    const ears = store.noted$.subscribe((n) => noted.push(`${n.kind} ${n.phrase?.name ?? '-'}`));
    store.useRudiment(RUDIMENTS[0]!);
    store.addMove('mirror');
    await store.keep({ ...store.suggestedLabel(), name: 'Mine' }, 5);
    expect(noted).toEqual([]);
    store.undo();
    expect(noted).toEqual(['behind-keep Mine']);
    // It is that phrase still, and keeping it again asks nothing and makes no second one.
    expect(store.phrase()?.name).toBe('Mine');
    store.redo();
    store.undo();
    expect(noted).toHaveLength(2);
    await TestBed.inject(PhrasesRepo).save(phraseOf('p'));
    await store.open('p');
    expect(noted.at(-1)).toBe('left Mine');
    ears.unsubscribe();
  });
  it('unkept work that leaves the Bench waits with its phrase, or as something new, until it is back or kept', async () => {
    const store = await fresh();
    const phrases = TestBed.inject(PhrasesRepo);
    const repo = TestBed.inject(UnkeptRepo);
    await phrases.save(phraseOf('a'));
    await phrases.save(phraseOf('b'));
    store.setSource(typedSource('R L K'));
    await store.open('a');
    await untilAsked(async () => (await leftWork()).length === 1);
    expect(await leftWork()).toMatchObject([{ phrase: null, recipe: { source: { text: 'R L K' } } }]);
    store.addMove('mirror');
    await store.open('b');
    await untilAsked(async () => (await leftWork()).length === 2);
    expect((await leftWork()).find((u) => u.phrase === 'a')).toMatchObject({ base: { id: 'a' }, tempo: store.tempo() });
    // 125 changes of another phrase, or a tab that closes, take nothing of it away.
    for (let i = 0; i < 125; i++) store.switchMove(i % 2 ? 'm1' : 'gone');
    expect(await leftWork()).toHaveLength(2);
    await store.open('a');
    expect(store.isKept()).toBe(true);
    const work = (await leftWork()).find((u) => u.phrase === 'a')!;
    await store.goOn((await repo.take(work.id))!);
    expect([store.phrase()?.id, store.isKept(), store.recipe()?.moves.map((m) => m.move)]).toEqual([
      'a',
      false,
      ['mirror'],
    ]);
    expect(await leftWork()).toHaveLength(1);
    await store.keep({ ...label, name: 'A' }, 9);
    expect((await leftWork()).map((u) => u.phrase)).toEqual([null]);
    await store.open('b');
    await new Promise((r) => setTimeout(r, 30));
    expect(await leftWork()).toHaveLength(1);
  });

  it('undo and redo across works: what is left waits, what is back does not', async () => {
    const store = await fresh();
    store.setSource(typedSource('R L K'));
    await store.clear();
    await untilAsked(async () => (await leftWork()).length === 1);
    store.undo();
    await untilAsked(async () => (await leftWork()).length === 0);
    expect(store.recipe()?.source).toEqual(typedSource('R L K'));
    store.redo();
    await untilAsked(async () => (await leftWork()).length === 1);
    store.setSource(typedSource('K'));
    store.undo();
    await new Promise((r) => setTimeout(r, 30));
    expect(await leftWork()).toHaveLength(1);
  });

  it('another goal or name on the shelf is no other work: no word, and keeping goes on', async () => {
    const store = await fresh();
    const phrases = TestBed.inject(PhrasesRepo);
    await phrases.save(phraseOf('p'));
    await store.open('p');
    TestBed.tick();
    store.setTempo(71);
    await phrases.save(phraseOf('p', { goal: 155, name: 'Renamed', changed: 3000 }));
    await until(() => {
      TestBed.tick();
      return store.phrase()?.goal === 155;
    });
    expect([store.elsewhere(), store.tempo()]).toEqual([null, 71]);
    expect((await store.keep({ ...store.phrase()! }, 4000)).kind).toBe('kept');
    expect(await phrases.get('p')).toMatchObject({ goal: 155, name: 'Renamed', tempo: 71 });
  });

  it('a keeping that is taken back leaves the Bench as it is, as unkept changes', async () => {
    const store = await fresh();
    await TestBed.inject(PhrasesRepo).save(phraseOf('p'));
    await store.open('p');
    TestBed.tick();
    store.setTempo(71);
    const kept = await store.keep({ ...store.phrase()! }, 4000);
    if (kept.kind !== 'kept') throw new Error(kept.kind);
    expect((await store.takeBack(kept))?.tempo).toBe(phraseOf('p').tempo);
    await new Promise((r) => setTimeout(r, 60));
    TestBed.tick();
    expect([store.tempo(), store.isKept(), store.elsewhere(), store.phrase()?.id]).toEqual([71, false, null, 'p']);
  });

  it('a first keeping that failed and works when it is tried again is known here: no second phrase', async () => {
    const store = await fresh();
    const { db } = TestBed.inject(Database);
    store.setSource(typedSource('R L K'));
    const full = jest.spyOn(db.phrases, 'put').mockRejectedValue(new DOMException('full', 'QuotaExceededError'));
    expect((await store.keep({ ...label, name: 'Mine' }, 5)).kind).toBe('failed');
    full.mockRestore();
    TestBed.inject(HealthService).trouble()?.retry?.();
    await until(() => store.isKept());
    expect(store.phrase()?.name).toBe('Mine');
    store.setTempo(99);
    await store.keep({ ...label, name: 'Mine' }, 6);
    expect(await db.phrases.count()).toBe(1);
  });

  it('one that was taken off elsewhere is not kept any more, though nothing of it was changed here', async () => {
    const store = await fresh();
    const phrases = TestBed.inject(PhrasesRepo);
    await phrases.save(phraseOf('p'));
    await store.open('p');
    TestBed.tick();
    expect(store.isKept()).toBe(true);
    await phrases.remove(['p']);
    await until(() => {
      TestBed.tick();
      return store.elsewhere() !== null;
    });
    expect([store.isKept(), store.phrase()?.id]).toEqual([false, 'p']);
    expect((await store.keep({ ...store.phrase()! }, 9000)).kind).toBe('kept');
    expect([store.isKept(), (await phrases.get('p'))?.id]).toEqual([true, 'p']);
  });

  it('other work that is laid here while a keeping waits stays whose it is; what was kept is its phrase', async () => {
    const store = await fresh();
    const phrases = TestBed.inject(PhrasesRepo);
    await phrases.save(phraseOf('b'));
    store.setSource(typedSource('R L K'));
    store.addMove('mirror');
    const keeping = store.keep({ ...label, name: 'Mine' }, 5);
    await store.open('b');
    store.setTempo(77);
    await keeping;
    expect([store.phrase()?.id, store.tempo(), store.isKept()]).toEqual(['b', 77, false]);
    store.undo();
    store.undo();
    expect([store.phrase()?.name, store.isKept()]).toEqual(['Mine', true]);
    store.undo();
    expect([store.phrase()?.name, store.isKept()]).toEqual(['Mine', false]);
    await untilAsked(async () => (await leftWork()).every((u) => u.phrase !== null));
    expect(await TestBed.inject(Database).db.phrases.count()).toBe(2);
  });

  it('a step that is made while a keeping as a new one waits belongs to the new one, what lay before to the old', async () => {
    const store = await fresh();
    await TestBed.inject(PhrasesRepo).save(phraseOf('p'));
    await store.open('p');
    store.addMove('mirror');
    const keeping = store.keep({ ...label, name: 'Other' }, 9, true);
    store.addMove('insert');
    await keeping;
    expect([store.phrase()?.name, store.isKept()]).toEqual(['Other', false]);
    store.undo();
    expect([store.phrase()?.name, store.isKept()]).toEqual(['Other', true]);
    store.undo();
    expect([store.phrase()?.id, store.isKept()]).toEqual(['p', true]);
  });
});
