import { TestBed } from '@angular/core/testing';
import { traitsOf } from '@core/shelf';
import { build, type Phrase } from '@core/recipe';
import { DraftsRepo } from '../../../storage/drafts.repo';
import { WantedService } from '../../../knowledge/wanted.service';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { attemptOf, phraseOf, typed, until } from '../../../testing/fixtures';
import { mount } from '../../../testing/mount';
import { log } from '../../../testing/shelf';
import { emptyPlace } from '../../../testing/place';
import { ShelfMapComponent } from './shelf-map.component';

const DAY = 86_400_000;

/** A shelf of three phrases, of which one is ready: eight clean tries on four days. */
async function mapped(...more: readonly Phrase[]) {
  const place = await emptyPlace();
  const at = Date.now();
  const created = at - 5 * DAY;
  await place.db.phrases.bulkPut([
    phraseOf('Rope', { name: 'Rope', recipe: typed('R L R L R L R L'), goal: 90, created }),
    phraseOf('Cleat', { name: 'Cleat', recipe: typed('R L R R L R L L'), created }),
    ...more,
    phraseOf('Bilge', { name: 'Bilge', recipe: typed('R L R R L R L L', '4/4', 1680), created }),
  ]);
  const tries = Array.from({ length: 8 }, (_, i) =>
    attemptOf(`t${i}`, 'Rope', { at: at - (4 - Math.floor(i / 2)) * DAY, bpm: 150, goal: 150 }),
  );
  await log(place.db, ...tries);
  const m = mount(ShelfMapComponent, {});
  await until(() => m.component.store.map() !== null);
  await until(() => m.component.store.next() !== null);
  m.fixture.detectChanges();
  return { ...place, m, store: m.component.store };
}

describe('the map of the shelf', () => {
  it('has every phrase in the square of its traits, and a table that says the same', async () => {
    const { m, store } = await mapped();
    expect(store.map()!.squares.map((s) => [s.row, s.column, s.many])).toEqual(
      expect.arrayContaining([
        ['16ths', 'singles', 1],
        ['16ths', 'paradiddle-like', 1],
        ['triplets', 'paradiddle-like', 1],
      ]),
    );
    const cells = [...m.host.querySelectorAll('table tbody td')].map((c) => Number(c.textContent));
    expect(cells.reduce((a, b) => a + b, 0)).toBe(3);
    await store.look({ row: '16ths', column: 'paradiddle-like' });
    m.fixture.detectChanges();
    expect(m.text()).toContain('1 phrase');
    expect(m.text()).toContain('Cleat');
    expect(m.text()).toContain('not played yet');
  });
  it('marks the square of the phrase on the Bench, or says that it would be a first', async () => {
    const { db } = await emptyPlace();
    const drafts = TestBed.inject(DraftsRepo);
    const lay = (text: string, grid = 1260): Promise<boolean> =>
      drafts.keep({ phrase: null, recipe: typed(text, '4/4', grid), tempo: 90 });
    await db.phrases.bulkPut([phraseOf('Rope', { recipe: typed('R L R L R L R L') })]);
    await lay('L R L R');
    const m = mount(ShelfMapComponent, {});
    await until(() => m.component.store.map() !== null && m.component.store.onBench() !== null);
    m.fixture.detectChanges();
    expect(m.host.querySelector('path.bench')).not.toBeNull();
    expect(m.host.querySelector('.square')?.getAttribute('aria-label')).toContain('the phrase on the Bench');
    await lay('R L R L R L', 1680);
    const other = mount(ShelfMapComponent, {});
    await until(() => other.component.store.map() !== null && other.component.store.onBench() !== null);
    other.fixture.detectChanges();
    expect(other.text()).toContain('on the Bench: triplets, singles, a first');
    expect(other.host.querySelector('path.bench')).toBeNull();
  });
  it('an empty square beside what is ready has a step that leads there, which opens on the Bench', async () => {
    const { m, store, went } = await mapped();
    const empty = { row: 'triplets', column: 'singles' };
    expect(store.map()!.empty.map(({ row, column }) => ({ row, column }))).toContainEqual(empty);
    await store.look(empty);
    m.fixture.detectChanges();
    const [step] = store.steps()!;
    expect(step?.from?.name).toBe('Rope');
    const traits = traitsOf(build(step!.recipe).pattern);
    expect([traits.grid, traits.sticking]).toEqual(['triplets', 'singles']);
    expect(m.text()).toContain('This leads here');
    store.hear(step!);
    expect(store.isHeard(step!)).toBe(true);
    await store.open(step!);
    expect(went.at(-1)).toContain('/bench');
    expect(TestBed.inject(WantedService).takeLaid()?.recipe).toEqual(step!.recipe);
    // Or another one is asked for, with what the square wants.
    await m.component.ask();
    expect(TestBed.inject(WantedService).take()).toEqual({ grid: 1680, hand: 1 });
  });
  it('next to learn names squares that are empty, each once, the likeliest first', async () => {
    const { store } = await mapped();
    const next = store.next()!;
    expect(next.length).toBeGreaterThan(0);
    const full = new Set(store.map()!.squares.map((s) => `${s.row}|${s.column}`));
    for (const s of next) expect(full.has(`${s.row}|${s.column}`)).toBe(false);
    expect(new Set(next.map((s) => `${s.row}|${s.column}`)).size).toBe(next.length);
    expect(next.map((s) => s.chance)).toEqual(next.map((s) => s.chance).sort((a, b) => b - a));
  });
  it('other traits make another map; turned, rows are columns', async () => {
    const { m, store } = await mapped();
    m.component.chooseColumn('lead');
    await until(() => store.map() !== null);
    expect(store.map()!.traits).toEqual(['grid', 'lead']);
    m.component.turn();
    await until(() => store.map() !== null);
    expect(store.map()!.traits).toEqual(['lead', 'grid']);
    expect(store.place()).toBeNull();
  });
  it('as of the end of a month it has the phrases that were there by then, and how fast they were clean', async () => {
    const old = Date.now() - 100 * DAY;
    const { m, store } = await mapped(
      phraseOf('Old', { name: 'Old', recipe: typed('R R L L'), created: old, changed: old }),
    );
    expect(store.map()!.squares.some((s) => s.column === 'doubles')).toBe(true);
    const days = m.component.days();
    expect(days).toHaveLength(13);
    expect(days[1]!.words).toMatch(/^end of [A-Z][a-z]+ \d{4}$/);
    m.component.chooseDay(days[2]!.value);
    await until(() => (store.map()?.squares.length ?? 9) === 1);
    expect(store.map()!.squares[0]).toMatchObject({ column: 'doubles', many: 1, readiest: null });
    m.fixture.detectChanges();
    expect(m.text()).toContain('As the shelf was then');
    expect(m.text()).not.toContain('Next to learn');
    m.component.chooseDay(-1);
    await until(() => (store.map()?.squares.length ?? 0) > 2);
  });
  it('the arrows go from square to square', async () => {
    const { m } = await mapped();
    document.body.append(m.host);
    const first = m.host.querySelector<SVGElement>('[data-square="0,0"]')!;
    first.focus();
    first.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
    expect(document.activeElement?.getAttribute('data-square')).toBe('0,1');
    document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    expect(m.component.store.place()).not.toBeNull();
    m.host.remove();
  });
  it('of an empty shelf it says what to do', async () => {
    await emptyPlace();
    const m = mount(ShelfMapComponent, {});
    await until(() => m.component.store.map() !== null);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Keep a phrase first');
    expect(TestBed.inject(ShelfIndex)).toBeDefined();
  });
});
