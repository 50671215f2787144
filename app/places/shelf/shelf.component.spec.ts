import { TestBed } from '@angular/core/testing';
import { BoardsRepo } from '../../storage/boards.repo';
import type { ShelfRow } from '../../knowledge/index/entry';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { attemptOf, phraseOf, typed, until } from '../../testing/fixtures';
import { mount } from '../../testing/mount';
import { emptyPlace, key } from '../../testing/place';
import { log, logged, untilAsked } from '../../testing/shelf';
import { KinDialogComponent } from './kin-dialog.component';
import { ShelfActs } from './shelf.acts';
import { ShelfComponent } from './shelf.component';
import { StripComponent } from './strip.component';

/** The shelf with some phrases, every one of them worked out. */
async function filled() {
  const place = await emptyPlace();
  const repo = TestBed.inject(PhrasesRepo);
  await repo.save(phraseOf('oar', { name: 'Broken oar', recipe: typed('R L R L R L K', '7/8'), goal: 120 }));
  await repo.save(phraseOf('chain', { name: 'Anchor chain', note: 'fives', recipe: typed('(R l)x8') }));
  await repo.save(phraseOf('pump', { name: 'Bilge pump', family: 'groove', recipe: typed('(R l)x8') }));
  await log(
    place.db,
    attemptOf('1', 'oar', { bpm: 80 }),
    attemptOf('2', 'oar', { bpm: 95, verdict: 'messy', at: 2000 }),
  );
  const m = mount(ShelfComponent);
  await until(() => m.component.shelf.answer()?.unread === 0 && m.component.shelf.answer()?.all === 3);
  m.fixture.detectChanges();
  const names = (): string[] =>
    m.component.shelf.lines().map((l) => {
      const head = m.component.shelf.headOf(l);
      return head ? `${head.family} ${head.many}` : (m.component.shelf.row(l)?.name ?? '?');
    });
  const ask = async (words: string): Promise<string[]> => {
    m.fill('Ask the shelf', words);
    const before = m.component.shelf.answer();
    await until(() => m.component.shelf.answer() !== before);
    return names();
  };
  const row = (id: string): ShelfRow =>
    m.component.shelf
      .lines()
      .flatMap((l) => m.component.shelf.row(l) ?? [])
      .find((r) => r.id === id)!;
  return { ...place, m, repo, names, ask, row };
}

describe('the Shelf', () => {
  it('empty, it shows one thing to do', async () => {
    const { went } = await emptyPlace();
    const m = mount(ShelfComponent);
    await until(() => m.component.shelf.many() !== null);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Nothing here yet. Make your first fill.');
    key('n');
    expect(went).toEqual(['/bench {"fresh":1}']);
  });

  it('lies in families, by name, each with its number, and answers words', async () => {
    const { m, ask, names } = await filled();
    expect(names()).toEqual(['fill 2', 'Anchor chain', 'Broken oar', 'groove 1', 'Bilge pump']);
    expect(await ask('oar')).toEqual(['fill 1', 'Broken oar']);
    expect(await ask('fives')).toEqual(['fill 1', 'Anchor chain']);
    expect(await ask('1 bar no kick')).toEqual(['fill 1', 'Anchor chain', 'groove 1', 'Bilge pump']);
    expect(m.component.shelf.chips().map((c) => [c.words, c.leaves])).toEqual([
      ['1 bar', 2],
      ['no kick', 2],
    ]);
    m.fixture.detectChanges();
    m.press('no kick, leaves 2. Remove it');
    expect(m.component.shelf.words()).toBe('1 bar');
    await ask('half bar zebra');
    m.fixture.detectChanges();
    expect(m.text()).toContain('No phrase matches “half bar zebra”');
    expect(m.text()).toContain('half a bar finds 1');
    expect(m.text()).toContain('“zebra” in a name, tag or note finds 0');
    m.press('Show all 3');
    await until(() => names().length === 5);
  });

  it('says what nothing answers only of what was answered, not of what is asked meanwhile', async () => {
    const { m, ask, names } = await filled();
    await ask('zebra');
    m.fixture.detectChanges();
    expect(m.text()).toContain('No phrase matches “zebra”');
    const asked = m.fill.bind(m, 'Ask the shelf');
    asked('oar');
    expect(m.text()).not.toContain('No phrase matches “oar”');
    await until(() => names().includes('Broken oar'));
    // A board that is asked for is not said to be empty either.
    await ask('zebra');
    const board = await m.component.acts.newBoard('Tonight', null, ['oar']);
    await until(() => TestBed.inject(BoardsRepo).all()?.length === 1);
    m.component.shelf.words.set('');
    m.component.shelf.boardId.set(board);
    m.fixture.detectChanges();
    expect(m.text()).not.toContain('Nothing on “Tonight”');
    await until(() => names().join() === 'Broken oar');
  });

  it('says of a strip what matters in one line, and sorts by it', async () => {
    const { m, row, names } = await filled();
    // What is believed of the player is worked out after the shelf was read.
    await until(() => (row('oar').believed ?? null) !== null);
    const strip = mount(StripComponent, { row: row('oar'), pattern: null, scale: 20160 });
    expect(strip.component.said()).toMatch(/^ready: too early to say, best 80 · \d+ years ago$/);
    expect(strip.component.wants()).toMatch(/^goal 120/);
    expect(strip.component.share()).toBeCloseTo(80 / 120);
    const fresh = mount(StripComponent, { row: row('pump'), pattern: null, scale: 20160 });
    expect(fresh.component.said()).toMatch(/^not drilled yet$/);
    m.component.shelf.sort.set('goal');
    m.component.shelf.descending.set(true);
    m.fixture.detectChanges();
    await until(() => names()[0] === 'Broken oar');
    expect(names()).toEqual(['Broken oar', 'Anchor chain', 'Bilge pump']);
  });

  it('hears, stops, takes off and puts back, with what was played', async () => {
    const { m, transport, db, row } = await filled();
    m.component.pointedAt.set(row('oar'));
    key(' ');
    await until(() => transport.requests.length === 1);
    expect(m.component.isHeard(row('oar'))).toBe(true);
    key(' ');
    expect(m.component.isHeard(row('oar'))).toBe(false);
    const oar = row('oar');
    m.component.act(oar, 'remove');
    await untilAsked(async () => (await db.phrases.count()) === 2);
    await until(() => m.component.removed().length === 1);
    key('z', document.body, { ctrlKey: true });
    await untilAsked(async () => (await db.phrases.count()) === 3);
    expect(await logged(db, 'oar')).toBe(2);
  });

  it('duplicates: the next number, the parent remembered; the kin are a tree, and the same turned are named', async () => {
    const { m, db, row } = await filled();
    m.component.pointedAt.set(row('oar'));
    key('+');
    key('+');
    await untilAsked(async () => (await db.phrases.count()) === 5);
    const copies = (await db.phrases.toArray()).filter((p) => p.name.startsWith('Broken oar '));
    expect(copies.map((p) => [p.name, p.parent?.id]).sort()).toEqual([
      ['Broken oar 2', 'oar'],
      ['Broken oar 3', 'oar'],
    ]);
    await until(() => m.component.shelf.answer()?.all === 5 && m.component.shelf.answer()?.unread === 0);
    const kin = await TestBed.inject(ShelfIndex).kin('oar');
    expect(kin.tree.map((l) => [l.depth, l.name, l.change])).toEqual([
      [0, 'Broken oar', ''],
      [1, 'Broken oar 2', 'a duplicate'],
      [1, 'Broken oar 3', 'a duplicate'],
    ]);
    expect((await TestBed.inject(ShelfIndex).kin('chain')).same.map((s) => s.words)).toEqual([
      'the same as Bilge pump',
    ]);
    const dialog = mount(KinDialogComponent, { row: row('chain') });
    await until(() => dialog.component.kin() !== null);
  });

  it('many at once: tagged, put on a board, taken off, each with its way back', async () => {
    const { m, db, row } = await filled();
    const acts = m.fixture.debugElement.injector.get(ShelfActs);
    m.component.choose(row('chain'), false);
    m.component.choose(row('pump'), true);
    expect([...m.component.chosen()].sort()).toEqual(['chain', 'oar', 'pump']);
    m.component.choose(row('oar'), false);
    const ids = [...m.component.chosen()];
    await acts.tag(ids, '#Brushes!');
    expect((await db.phrases.bulkGet(['chain', 'oar', 'pump'])).map((p) => p?.tags?.join())).toEqual([
      'brushes!',
      undefined,
      'brushes!',
    ]);
    await acts.undo();
    expect((await db.phrases.get('chain'))?.tags).toEqual([]);
    const board = await acts.newBoard('Show', null, ids);
    const boards = TestBed.inject(BoardsRepo);
    await until(() => boards.all()?.length === 1);
    m.component.shelf.boardId.set(board);
    m.fixture.detectChanges();
    await until(() => m.component.shelf.found() === 2);
    await m.component.moveOnBoard(row('pump'), -1);
    await until(() => boards.all()?.[0]?.phrases.join() === 'pump,chain');
    await acts.undo();
    await until(() => boards.all()?.[0]?.phrases.join() === 'chain,pump');
    await acts.remove(ids);
    expect(await db.phrases.count()).toBe(1);
    await acts.undo();
    expect(await db.phrases.count()).toBe(3);
  });

  it('a saved search is a board that answers anew', async () => {
    const { m, repo } = await filled();
    await m.component.acts.newBoard('No kicks', 'no kick', []);
    const boards = TestBed.inject(BoardsRepo);
    await until(() => boards.all()?.length === 1);
    m.component.shelf.boardId.set(boards.all()![0]!.id);
    m.fixture.detectChanges();
    await until(() => m.component.shelf.found() === 2);
    await repo.save(phraseOf('more', { recipe: typed('R L') }));
    await until(() => m.component.shelf.found() === 3);
  });

  it('boards stand in the player’s order', async () => {
    const { m } = await filled();
    const boards = TestBed.inject(BoardsRepo);
    for (const name of ['A', 'B', 'C']) await m.component.acts.newBoard(name, null, []);
    await until(() => boards.all()?.length === 3);
    const [a, b, c] = boards.all()!;
    await boards.place(c!.id, a!.id);
    await until(
      () =>
        boards
          .all()
          ?.map((x) => x.name)
          .join('') === 'CAB',
    );
    await boards.place(c!.id, null);
    await until(
      () =>
        boards
          .all()
          ?.map((x) => x.name)
          .join('') === 'ABC',
    );
    await m.component.acts.dropBoard(b!.id);
    await until(
      () =>
        boards
          .all()
          ?.map((x) => x.name)
          .join('') === 'AC',
    );
    await m.component.acts.undo();
    await until(() => boards.all()?.length === 3);
  });
});
