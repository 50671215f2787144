import { TestBed } from '@angular/core/testing';
import type { Show } from '@core/shelf';
import { phraseOf, typed, until } from '../../testing/fixtures';
import { clearShelf } from '../../testing/shelf';
import { freshTestBed } from '../../testing/test-bed';
import { NoticesService } from '../../common/notices.service';
import { Database } from '../../storage/database';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { inNights, nightWords, showWords } from './nights';
import { ShowsStore } from './shows.store';

async function shelf() {
  freshTestBed();
  TestBed.configureTestingModule({ providers: [ShowsStore] });
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await clearShelf(db);
  const phrases = TestBed.inject(PhrasesRepo);
  for (const [id, text] of [
    ['a', 'R l R l R l R l'],
    ['b', 'R r L l R r L l'],
    ['c', 'R l l R l l R l'],
  ] as const)
    await phrases.save(phraseOf(id, { name: `Phrase ${id}`, recipe: typed(text) }));
  const store = TestBed.inject(ShowsStore);
  TestBed.tick();
  return { db, store, phrases };
}

const spots = (store: ShowsStore) => store.show()?.cues.flatMap((c) => c.spots) ?? [];
async function withShow() {
  const all = await shelf();
  const { store } = all;
  await store.create('First night');
  await until(() => store.show() !== null);
  await store.add('Nets, 80, 4/4, 16 bars, fill 8:3, fill 16:3');
  await until(() => {
    TestBed.tick();
    return spots(store).length === 2 && (store.answer()?.choices[0]?.fits.length ?? 0) === 3;
  });
  return all;
}

describe('the store of shows', () => {
  it('says what fits, fills, holds what was chosen, and takes each back', async () => {
    const { store } = await withShow();
    await store.fill();
    await until(() => spots(store).every((s) => s.phrase !== null));
    expect(spots(store)[0]?.phrase).not.toBe(spots(store)[1]?.phrase);
    await store.put(spots(store)[0]!.id, 'c');
    await until(() => spots(store)[0]?.phrase === 'c');
    expect(spots(store)[0]?.pinned).toBe(true);
    await until(() => {
      TestBed.tick();
      return store.answer()?.filled.choices[0]?.words === 'You chose it.';
    });
    await store.fill();
    expect(spots(store)[0]?.phrase).toBe('c');
    while (store.canUndo()) await store.undo();
    await until(() => store.show()?.cues.length === 0);
    expect(TestBed.inject(NoticesService).last()).not.toContain('changed elsewhere');
  });

  it('keeps its phrase where a spot is typed anew, and says why it cannot be read', async () => {
    const { store } = await withShow();
    const [cue] = store.show()!.cues;
    await store.put(spots(store)[0]!.id, 'a');
    await until(() => spots(store)[0]?.phrase === 'a');
    expect(store.setSpots(store.show()!.cues[0]!, 'fill 8:9')).toMatch(/not a count of 4\/4/);
    expect(store.setSpots(store.show()!.cues[0]!, 'fill 4, fill 8:3 lands crash')).toBeNull();
    await until(() => spots(store).some((s) => s.lands === 'crash'));
    expect(spots(store).map((s) => s.phrase)).toEqual([null, 'a']);
    expect(store.setFeel(cue!.id, 'loudly')).toMatch(/straight, swung/);
  });

  it('cues for which there is no show yet stay as they were typed', async () => {
    const { store } = await shelf();
    expect(await store.add('Gull, 90\nTern, 96')).toMatchObject([{ text: 'Gull, 90' }, { text: 'Tern, 96' }]);
  });

  it('a groove that is not on the shelf is told, and its line stays', async () => {
    const { store } = await withShow();
    expect(await store.add('Tern, 90, groove Nobody\nGull, 90')).toMatchObject([
      { line: 1, text: 'Tern, 90, groove Nobody', words: 'There is no groove “Nobody” on your shelf.' },
    ]);
    await until(() => store.show()?.cues.length === 2);
  });

  it('a show of two hundred cues takes no more, and nothing is lost', async () => {
    const { store } = await withShow();
    const many = Array.from({ length: 199 }, (_, i) => `Cue ${i}, 90`).join('\n');
    expect(await store.add(many)).toEqual([]);
    await until(() => store.show()?.cues.length === 200);
    const left = await store.add('One more, 90\nAnd another, 91');
    expect(left.map((l) => l.text)).toEqual(['One more, 90', 'And another, 91']);
    expect(store.show()?.cues).toHaveLength(200);
  });

  it('a phrase that was taken off the shelf leaves its spot, told as gone, and comes back with it', async () => {
    const { store, phrases } = await withShow();
    await store.put(spots(store)[0]!.id, 'b');
    await until(() => spots(store)[0]?.phrase === 'b');
    const back = await phrases.remove(['b']);
    await until(() => {
      TestBed.tick();
      return store.answer()?.gone[0] === 'b' && store.nameOf('b') === null;
    });
    expect(store.readyOf(spots(store)[0]!.id)?.chance).toBeNull();
    await back?.();
    await until(() => {
      TestBed.tick();
      return store.answer()?.gone.length === 0;
    });
  });

  it('a copy for another night has no day and nothing of how it went', async () => {
    const { store } = await withShow();
    await store.set({ day: 20_000 });
    await store.went(spots(store)[0]!.id, 'clean');
    await until(() => spots(store)[0]?.went === 'clean');
    await store.copy();
    await until(() => store.show()?.name === 'First night again');
    expect([store.show()?.day, spots(store).map((s) => s.went)]).toEqual([null, [undefined, undefined]]);
  });
});

describe('nights', () => {
  const show = (id: string, day: number | null): Show => ({
    id,
    name: id,
    place: '',
    day,
    most: 2,
    cues: [],
    changed: 1,
  });
  it('come in the order they are wanted: the next first, those without a day, then those past, the last first', () => {
    const all = [
      show('past', 90),
      show('none', null),
      show('late', 140),
      show('soon', 101),
      show('long ago', 10),
      show('today', 100),
    ];
    expect(inNights(all, 100).map((s) => s.id)).toEqual(['today', 'soon', 'late', 'none', 'past', 'long ago']);
  });
  it('are told by their days', () => {
    expect([nightWords(100, 100), nightWords(101, 100), nightWords(107, 100), nightWords(null, 100)]).toEqual([
      'today',
      'tomorrow',
      'in 7 days',
      'no date yet',
    ]);
    expect(nightWords(99, 100)).toBe('was yesterday');
    expect(showWords(show('Nets', 20_800))).toBe('Nets, 13 Dec');
  });
});
