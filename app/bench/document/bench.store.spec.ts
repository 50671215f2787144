import { TestBed } from '@angular/core/testing';
import fc from 'fast-check';
import { MOVE_NAMES } from '@core/recipe';
import { RUDIMENTS } from '@core/rudiments';
import { Database } from '../../data/database';
import { DraftsRepo } from '../../data/drafts.repo';
import { PhrasesRepo } from '../../data/phrases.repo';
import { phraseOf, until } from '../../testing/fixtures';
import { BenchStore } from './bench.store';
import { clearShelf } from '../../testing/shelf';
import { freshTestBed } from '../../testing/test-bed';

async function fresh(): Promise<BenchStore> {
  freshTestBed();
  const database = TestBed.inject(Database);
  await database.ready;
  await clearShelf(database.db);
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
    expect(sentences(store)[0]).toBe('Fill 1 bar, cut the last one');
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
});
