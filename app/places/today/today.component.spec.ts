import { TestBed } from '@angular/core/testing';
import type { Attempt } from '@core/drill';
import { today } from '../../environment/clock';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { TodayRepo } from '../../storage/today.repo';
import { attemptOf, phraseOf, typed, until } from '../../testing/fixtures';
import { mount } from '../../testing/mount';
import { emptyPlace, key } from '../../testing/place';
import { log } from '../../testing/shelf';
import { TodayComponent } from './today.component';

const DAY = 864e5;

/** Tries of a phrase on some of the last days. */
const played = (phrase: string, bpm: number, clean: number, many: number, ago: readonly number[]): Attempt[] =>
  ago.flatMap((days) =>
    Array.from({ length: many }, (_, i) =>
      attemptOf(`${phrase}-${days}-${i}`, phrase, {
        at: Date.now() - days * DAY + i * 1000,
        bpm,
        seconds: 40,
        verdict: i < clean ? 'clean' : 'messy',
      }),
    ),
  );

async function filled() {
  const place = await emptyPlace();
  const repo = TestBed.inject(PhrasesRepo);
  const names = ['Anchor chain', 'Broken oar', 'Cold rope', 'Drift net'];
  for (const [i, name] of names.entries())
    await repo.save(phraseOf(`p${i}`, { name, goal: 100, recipe: typed('R l l R K R l l') }));
  await repo.save(phraseOf('warm', { name: 'Even keel', family: 'warm-up', recipe: typed('(R L)x8') }));
  await log(place.db, ...played('p0', 85, 3, 5, [6, 4, 2]), ...played('p1', 88, 4, 5, [5, 3, 1]));
  const m = mount(TodayComponent);
  const { store } = m.component;
  const after = (): void => m.fixture.detectChanges();
  await until(() => (store.plan()?.blocks ?? []).some((b) => b.phrase === 'p0'));
  after();
  const blocks = (): string[] => (store.plan()?.blocks ?? []).map((b) => b.id);
  const sum = (): number => (store.plan()?.blocks ?? []).reduce((s, b) => s + b.minutes, 0);
  return { ...place, m, store, after, blocks, sum, repo: TestBed.inject(TodayRepo) };
}

describe('Today', () => {
  it('lays the day in blocks with reasons, and says what was left out', async () => {
    const { m, store, blocks, sum } = await filled();
    expect(blocks()[0]).toBe('warm-up');
    expect(store.plan()?.blocks[0]?.name).toBe('Even keel');
    expect(blocks()).toEqual(expect.arrayContaining(['rise:p0', 'rise:p1']));
    expect(sum() + (store.plan()?.free ?? 0)).toBe(35);
    expect(m.text()).toMatch(/(Over |Under )?\d+% chance at its goal\./);
    // Two were never tried: one a day is enough.
    expect(m.text()).toContain('One new phrase a day is enough');
    expect(m.text()).toContain('doctor or physiotherapist');
  });
  it('answers other minutes, places and orders at once, and takes each back', async () => {
    const { m, store, after, sum } = await filled();
    key('ArrowRight');
    await until(() => sum() + (store.plan()?.free ?? 0) === 40);
    m.press('on a pad');
    await until(() => store.plan()?.notes.some((n) => n.startsWith('On a pad')) === true);
    m.press('taking turns');
    await until(() => store.plan()?.blocks.some((b) => b.round !== null) === true);
    after();
    for (const left of [2, 1, 0]) {
      m.press('Undo');
      await until(() => store.canUndo() === left > 0);
      after();
    }
    expect(store.wishes()).toMatchObject({ minutes: 35, place: 'kit', order: 'in-turn' });
    store.setMinutes(1e9);
    expect(store.wishes().minutes).toBe(240);
    store.setMinutes(-1);
    expect(store.wishes().minutes).toBe(3);
  });
  it('holds, lengthens, lays and leaves out blocks, and the rest is planned round them', async () => {
    const { m, store, after, blocks } = await filled();
    const of = (id: string): { minutes: number; held: boolean } | undefined =>
      store.plan()?.blocks.find((b) => b.id === id);
    const before = of('rise:p0')!.minutes;
    const row = (): HTMLElement => m.host.querySelectorAll<HTMLElement>('ls-block-row')[blocks().indexOf('rise:p0')]!;
    const press = (name: string): void => row().querySelector<HTMLElement>(`[aria-label="${name}"]`)!.click();
    press('Longer');
    await until(() => of('rise:p0')?.minutes === before + 1);
    expect(of('rise:p0')?.held).toBe(true);
    after();
    row()
      .querySelector('.grip')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'h', bubbles: true }));
    await until(() => of('rise:p0')?.held === false);
    after();
    const [first, second] = blocks().filter((id) => id.startsWith('rise'));
    store.move(blocks().indexOf(first!), blocks().indexOf(second!));
    await until(() => blocks().filter((id) => id.startsWith('rise'))[0] === second);
    after();
    row()
      .querySelector('.grip')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'Delete', bubbles: true }));
    await until(() => !blocks().includes('rise:p0'));
    after();
    expect(m.text()).toContain('Not today: you skipped it.');
    m.press('Play it today: Anchor chain');
    await until(() => blocks().includes('rise:p0'));
  });
  it('hands a block to the room, and comes back for the next', async () => {
    const { m, store, after, went, repo, blocks, db } = await filled();
    key(' ');
    await until(() => went.length === 1);
    expect(went[0]).toBe('/drill warm {"block":"warm-up"}');
    expect(repo.now().running).toMatchObject({ id: 'warm-up', kind: 'warm-up', phrase: 'warm' });
    after();
    expect(m.text()).toContain('left of 4 min');
    // It was begun four minutes ago.
    await repo.change({ running: { ...repo.now().running!, began: Date.now() - 4 * 60_000 } });
    await repo.finish();
    await until(() => blocks()[0] !== 'warm-up');
    expect(store.plan()!.blocks[0]!.at).toBe(4);
    expect(blocks()).not.toContain('warm-up');
    expect(repo.planDays()[String(today())]?.planned).toBeGreaterThan(20);
    // A phrase that is taken off the shelf while it is planned is not planned any more.
    await db.phrases.delete('p0');
    await until(() => !blocks().includes('rise:p0'));
  });
  it('what is played taking turns is not over with the first of them', async () => {
    const { store, repo, m, after } = await filled();
    m.press('taking turns');
    await until(() => store.plan()?.blocks.some((b) => b.round !== null) === true);
    after();
    const block = store.plan()!.blocks.find((b) => b.round?.n === 1)!;
    const all = store
      .plan()!
      .blocks.filter((b) => b.id === block.id)
      .reduce((s, b) => s + b.minutes, 0);
    await store.start(block);
    await repo.change({ running: { ...repo.now().running!, began: Date.now() - block.minutes * 60_000 } });
    await repo.finish();
    expect(repo.now().held).toEqual([{ id: block.id, minutes: all - block.minutes }]);
    const left = (): number =>
      (store.plan()?.blocks ?? []).filter((b) => b.id === block.id).reduce((s, b) => s + b.minutes, 0);
    await until(() => left() === all - block.minutes);
  });
  it('says at the end what moved', async () => {
    const { m, store, after, repo, db } = await filled();
    const block = store.plan()!.blocks.find((b) => b.id === 'rise:p0')!;
    await store.start(block);
    const before = repo.now().before[0]!;
    expect(before.id).toBe('p0');
    await log(db, ...played('p0', 96, 5, 5, [0]));
    await repo.change({ running: { ...repo.now().running!, began: Date.now() - block.minutes * 60_000 } });
    await repo.finish();
    await until(() => (store.moved()[0]?.now ?? 0) > before.ready);
    after();
    expect(m.text()).toContain(`ready ${before.ready} → ${store.moved()[0]!.now}`);
  });
  it('of a block that nobody played in nothing counts as played; of one that was, its tries', async () => {
    const { store, repo, db } = await filled();
    const block = (id: string) => store.plan()!.blocks.find((b) => b.id === id)!;
    const over = async (id: string, ...tries: Parameters<typeof log>[1][]): Promise<number | undefined> => {
      await store.start(block(id));
      await repo.change({ running: { ...repo.now().running!, began: Date.now() - 6 * 60_000 } });
      await log(db, ...tries);
      await repo.finish();
      return repo.now().done.at(-1)?.played;
    };
    expect(await over('rise:p0')).toBe(0);
    await until(() => store.plan()?.blocks.some((b) => b.id === 'rise:p1') === true);
    const [one] = played('p1', 96, 1, 1, [0]);
    expect(await over('rise:p1', { ...one!, id: 'now', at: Date.now(), seconds: 120 })).toBe(2);
  });
  it('of an empty shelf says what to do', async () => {
    await emptyPlace();
    const m = mount(TodayComponent);
    await until(() => m.component.store.plan() !== null);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Nothing on the shelf yet');
    expect(m.component.store.plan()?.blocks.every((b) => b.phrase === null)).toBe(true);
  });
});

describe('what is kept of a day', () => {
  it('of yesterday only minutes, place and order stay, unless a block runs over midnight', async () => {
    await emptyPlace();
    const repo = TestBed.inject(TodayRepo);
    const yesterday = today() - 1;
    const old = { day: yesterday, minutes: 60, place: 'pad', order: 'rounds' } as const;
    const running = {
      id: 'rise:a',
      kind: 'rise',
      phrase: 'a',
      name: 'A',
      bring: [] as { id: string; name: string }[],
      minutes: 8,
      rest: 0,
      from: 80,
      to: 90,
      stage: null,
      began: Date.now() - 600_000,
    } as const;
    await repo.change({ ...old, held: [{ id: 'rise:a', minutes: 9 }], done: [{ id: 'warm-up', minutes: 4 }] });
    expect(repo.now()).toMatchObject({ day: today(), minutes: 60, place: 'pad', held: [], done: [] });
    await repo.change({ ...old, running });
    expect(repo.now()).toMatchObject({ day: yesterday, running: { id: 'rise:a' } });
    // Ten minutes of eight: no more than a few beyond its own count.
    expect(repo.played()).toBe(10);
    await repo.change({ running: { ...running, began: Date.now() - 3 * 3_600_000 } });
    expect(repo.played()).toBe(13);
    await repo.change({ ...old, running: { ...running, began: Date.now() - 20 * 3_600_000 } });
    expect(repo.now().running).toBeNull();
  });
  it('a clock that was set back counts a block as just begun, and what was hardly begun is not done', async () => {
    await emptyPlace();
    const repo = TestBed.inject(TodayRepo);
    TestBed.inject(ShelfIndex);
    const block = {
      id: 'play',
      kind: 'play',
      phrase: null,
      name: 'Play freely',
      bring: [],
      minutes: 3,
      at: 0,
      from: null,
      to: null,
      stage: null,
      words: '',
      held: false,
      round: null,
    } as const;
    await repo.begin(block, null);
    await repo.change({ running: { ...repo.now().running!, began: Date.now() + 9e6 } });
    expect(repo.played()).toBe(0);
    await repo.finish();
    expect(repo.now()).toMatchObject({ running: null, done: [] });
    await repo.begin(block, null);
    await repo.change({ running: { ...repo.now().running!, began: Date.now() - 180_000 } });
    await repo.finish();
    expect(repo.now().done).toEqual([{ id: 'play', minutes: 3 }]);
    expect(repo.planDays()[String(today())]).toEqual({ planned: 0, free: 180 });
  });
});
