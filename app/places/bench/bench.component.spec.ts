import type { Provider } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { SHOWN } from '@core/language';
import type { Phrase } from '@core/recipe';
import { RUDIMENTS } from '@core/rudiments';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { phraseOf, typed, until } from '../../testing/fixtures';
import { heard, mount } from '../../testing/mount';
import { emptyPlace, key } from '../../testing/place';
import { STILLNESS } from '../../common/stilled';
import { BenchComponent } from './bench.component';
import { ViewStore } from './document/view.store';
import { OrdersStore } from './recipe/orders.store';
import { TrailStore } from './document/trail.store';
import { KeepingStore } from './document/keeping.store';
import { CursorStore } from './ribbon/cursor.store';
import { SoundStore } from './ribbon/sound.store';
import { BenchStore } from './document/bench.store';
import { KeepDialogComponent } from './document/keep-dialog.component';
import { FindingsComponent } from './answers/findings.component';
import { RecipeColumnComponent } from './recipe/recipe-column.component';
import { SourcePickerComponent } from './recipe/source-picker.component';

async function bench(providers: Provider[] = []) {
  const place = await emptyPlace([OrdersStore, ViewStore, ...providers]);
  const store = TestBed.inject(BenchStore);
  await until(() => store.ready());
  return { ...place, store };
}

describe('what opens by a button opens by words', () => {
  it.each(SHOWN)('%s', async (what) => {
    const { store } = await bench();
    store.useRudiment(RUDIMENTS[0]!);
    const [view, orders] = [TestBed.inject(ViewStore), TestBed.inject(OrdersStore)];
    view.lower.set(null);
    const keeping = TestBed.inject(KeepingStore);
    const open = (): string =>
      JSON.stringify([view.lower(), view.sheet(), view.printing(), view.takingAlong(), keeping.showsStates()]);
    const before = open();
    if (what === 'versions') await store.keep({ ...store.suggestedLabel(), name: 'Kept' }, Date.now());
    orders.carryOut({ kind: 'show', what });
    expect(open()).not.toBe(before);
  });
  it('only the groove is heard, and a loop goes at the tempo that was said', async () => {
    const { store } = await bench();
    store.useRudiment(RUDIMENTS[0]!);
    const orders = TestBed.inject(OrdersStore);
    orders.carryOut({ kind: 'only-groove' });
    expect(TestBed.inject(SoundStore).mute()).toEqual({ limbs: [], roles: ['timekeeping', 'texture'] });
    orders.carryOut({ kind: 'loop', from: 0, until: 5040, at: 71 });
    expect([store.tempo(), TestBed.inject(SoundStore).loopsSelection()]).toEqual([71, true]);
  });
});

describe('the source picker', () => {
  it('shows what can be read, names the column of what cannot, and keeps the last good one drawn', async () => {
    const { store } = await bench();
    const m = mount(SourcePickerComponent);
    expect(m.host.querySelectorAll('.rudiment')).toHaveLength(40);
    expect(m.button('Put it on the Bench').getAttribute('aria-disabled')).toBe('true');
    m.press('Put it on the Bench');
    expect(store.recipe()).toBeNull();
    m.fill('Sticking', 'R l l K');
    expect(m.button('Put it on the Bench').hasAttribute('aria-disabled')).toBe(false);
    expect(m.host.querySelectorAll('.preview .stem')).toHaveLength(3);
    m.fill('Sticking', 'R l l K 5');
    expect(m.text()).toContain('Column 9');
    expect(m.host.querySelectorAll('.preview .stem')).toHaveLength(3);
    m.fill('Sticking', 'R l l K');
    m.pick('Meter', '7/8');
    m.pick('On', '16ths');
    m.press('Put it on the Bench');
    expect(store.recipe()?.source).toEqual({ kind: 'typed', text: 'R l l K', meter: '7/8', grid: 1260 });
  });
  it('Enter straight after the last letter is not lost, though nothing was drawn in between', async () => {
    const { store } = await bench();
    const m = mount(SourcePickerComponent);
    m.component.text.set('R l');
    m.button('Put it on the Bench').click();
    expect(store.recipe()?.source).toMatchObject({ kind: 'typed', text: 'R l' });
  });
  it('unkept work that is gone on with lies on the Bench, and what it was chosen from closes', async () => {
    const { db, store } = await bench();
    await db.unkept.put({ id: 'u', at: 5, phrase: null, recipe: typed('R L K'), tempo: 77, base: null });
    const m = mount(SourcePickerComponent);
    const chosen = jest.fn();
    m.component.chosen.subscribe(chosen);
    await until(() => {
      m.fixture.detectChanges();
      return m.text().includes('Not kept yet');
    });
    m.press('Continue');
    await until(() => chosen.mock.calls.length === 1);
    expect([store.recipe()?.source, store.tempo(), await db.unkept.count()]).toEqual([typed('R L K').source, 77, 0]);
  });
  it('finds rudiments by words, says when there are none, and takes one', async () => {
    const { store } = await bench();
    const m = mount(SourcePickerComponent);
    m.fill('Find a rudiment', 'ratamacue');
    expect(m.host.querySelectorAll('.rudiment')).toHaveLength(3);
    m.fill('Find a rudiment', 'polka');
    expect(m.text()).toContain('No rudiment has all these words.');
    m.fill('Find a rudiment', 'swiss');
    m.press('Swiss army triplet');
    expect(store.recipe()?.source).toMatchObject({ kind: 'rudiment', id: 'swiss-army-triplet' });
  });
});

describe('the recipe column', () => {
  it('shows a card a move with its sentence, and a finding where one does not fit', async () => {
    const { store } = await bench();
    store.setSource(typed('R R').source);
    const m = mount(RecipeColumnComponent);
    m.press('+ Add a move');
    m.press('Accents and ghosts');
    expect(m.text()).toContain('Accent the first of every group');
    m.fill('in words', 'lefts');
    expect(m.text()).toContain('There are no lefts here');
    m.press('Duplicate');
    expect(m.host.querySelectorAll('.move')).toHaveLength(2);
    m.press('Remove');
    expect(m.host.querySelectorAll('.move')).toHaveLength(1);
  });
  it('moves cards by arrow keys and switches them off', async () => {
    const { store } = await bench();
    store.setSource(typed('R L').source);
    store.addMove('insert');
    store.addMove('mirror');
    const m = mount(RecipeColumnComponent);
    m.button('Move 2 up or down').dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
    expect(store.recipe()?.moves.map((x) => x.move)).toEqual(['mirror', 'insert']);
    await m.fixture.whenStable();
    m.host.querySelector<HTMLElement>('p-toggleswitch')?.click();
    expect(store.recipe()?.moves[0]?.on).toBe(false);
  });
});

describe('findings', () => {
  it('sums first, then checks; what speaks of strokes points at them; where to start to end on a count', async () => {
    const { store } = await bench();
    store.setSource(typed('R+K L R L R L R L R').source);
    const m = mount(FindingsComponent);
    const pointed: (readonly number[])[] = [];
    m.component.pointAt.subscribe((p) => pointed.push(p));
    expect(m.host.querySelector('.fit')?.textContent).toBe('16 = 1 × 9 + 7');
    [...m.host.querySelectorAll('.check')]
      .find((e) => e.textContent.includes('unison'))
      ?.dispatchEvent(new Event('mouseenter'));
    expect(pointed).toEqual([[0]]);
    m.pick('Count of the last stroke', '4&');
    expect(m.text()).toContain('start on the & of 2');
    m.pick('Count of the last stroke', '1');
    expect(m.text()).toContain('start on beat 3');
  });
  it('the load of each limb, in strokes and a second, follows the tempo', async () => {
    const { store } = await bench();
    store.setSource(typed('R l l R K').source);
    store.setTempo(90);
    const m = mount(FindingsComponent);
    const loads = (): string[] =>
      [...m.host.querySelectorAll('.balance div')].map((e) => e.textContent.replaceAll(/\s+/g, ' ').trim());
    expect(m.text()).toContain('6.0 notes per second');
    expect(loads()).toEqual(['R2 2.4/s', 'L2 2.4/s', 'K1 1.2/s']);
    store.setTempo(180);
    m.fixture.detectChanges();
    expect(loads()).toEqual(['R2 4.8/s', 'L2 4.8/s', 'K1 2.4/s']);
  });
});

describe('the Bench', () => {
  it('plays and stops by Space, changes tempo by arrows while it plays, and undoes', async () => {
    const { store, transport } = await bench();
    store.useRudiment(RUDIMENTS[0]!);
    const m = mount(BenchComponent);
    key(' ');
    expect(transport.requests).toHaveLength(1);
    expect(transport.requests[0]?.bpm).toBe(90);
    key('ArrowUp');
    key('ArrowUp', document.body, { shiftKey: true });
    m.fixture.detectChanges();
    expect(store.tempo()).toBe(96);
    expect(transport.changes.at(-1)?.bpm).toBe(96);
    key(' ');
    expect(transport.playing()).toBe(false);
    store.addMove('mirror');
    key('z', document.body, { ctrlKey: true });
    expect(store.recipe()?.moves).toEqual([]);
    m.fixture.destroy();
    expect(transport.stops).toBeGreaterThan(1);
  });
  it('a phrase that is on its way is waited for: what an empty Bench offers is not drawn and thrown away', async () => {
    await bench();
    const phrases = TestBed.inject(PhrasesRepo);
    const kept = phraseOf('late', { name: 'Late' });
    let give: (phrase: Phrase | null) => void = () => undefined;
    jest.spyOn(phrases, 'get').mockReturnValue(new Promise((r) => (give = r)));
    const m = mount(BenchComponent, { phrase: kept.id });
    const shows = (): boolean => m.host.querySelector('ls-source-picker') !== null;
    const drawn: boolean[] = [];
    for (let i = 0; i < 5; i++) {
      await new Promise((r) => setTimeout(r));
      m.fixture.detectChanges();
      drawn.push(shows());
    }
    expect(drawn).toEqual([false, false, false, false, false]);
    give(kept);
    await until(() => TestBed.inject(BenchStore).phrase()?.id === kept.id);
    m.fixture.detectChanges();
    expect([shows(), m.text()]).toEqual([false, expect.stringContaining('Late')]);
  });
  it('one that is not on the shelf leaves an empty Bench with what it offers', async () => {
    await bench();
    const m = mount(BenchComponent, { phrase: 'nobody' });
    await until(() => m.component.isEmpty());
    m.fixture.detectChanges();
    expect(m.host.querySelector('ls-source-picker')).not.toBeNull();
  });
  it('a key straight after a rudiment was taken is for the Bench, no longer for what it was taken from', async () => {
    await bench();
    const m = mount(BenchComponent);
    // The browser draws after both of them.
    m.button('Five stroke roll').click();
    key('k');
    expect(m.component.keeping.asking()).toBe('keep');
  });
  it('the keyboard goes to the ribbon, and to the box, before anything of them was drawn', async () => {
    const { store } = await bench();
    const m = mount(BenchComponent);
    document.body.append(m.host);
    // On an empty Bench there is nothing to go to, and it does not go there later.
    m.component.edit();
    m.component.toWords();
    store.useRudiment(RUDIMENTS[0]!);
    expect(document.activeElement).toBe(document.body);
    m.component.edit();
    expect(document.activeElement?.getAttribute('role')).toBe('application');
    await store.clear();
    m.fixture.detectChanges();
    store.useRudiment(RUDIMENTS[0]!);
    m.component.toWords();
    expect(document.activeElement?.getAttribute('role')).toBe('combobox');
    m.host.remove();
  });
  it('where parts come in turns, what the keyboard is asked for does not wait for its turn', async () => {
    const { store } = await bench([{ provide: STILLNESS, useValue: 140 }]);
    const m = mount(BenchComponent);
    document.body.append(m.host);
    store.useRudiment(RUDIMENTS[0]!);
    m.fixture.detectChanges();
    expect(m.host.querySelector('ls-recipe-column')).toBeNull();
    m.component.toWords();
    expect(document.activeElement?.getAttribute('role')).toBe('combobox');
    m.host.remove();
  });
  it('asked for while the phrase is on its way, they have the keyboard when it is there', async () => {
    const { store } = await bench();
    const phrase = phraseOf('rope', { name: 'Rope' });
    await TestBed.inject(PhrasesRepo).save(phrase);
    for (const [ask, is] of [
      [(c: BenchComponent) => c.edit(), 'application'],
      [(c: BenchComponent) => c.toWords(), 'combobox'],
    ] as const) {
      await store.clear();
      const m = mount(BenchComponent, { phrase: phrase.id });
      document.body.append(m.host);
      ask(m.component);
      await until(() => store.recipe() !== null);
      m.fixture.detectChanges();
      expect(document.activeElement?.getAttribute('role')).toBe(is);
      m.fixture.destroy();
      m.host.remove();
    }
  });
  it('asked for of a phrase that is not there, they do not take the keyboard from the next', async () => {
    const { store } = await bench();
    const m = mount(BenchComponent, { phrase: 'nobody' });
    document.body.append(m.host);
    m.component.edit();
    await until(() => m.component.isEmpty());
    m.fixture.detectChanges();
    store.useRudiment(RUDIMENTS[0]!);
    m.fixture.detectChanges();
    expect(document.activeElement).toBe(document.body);
    m.host.remove();
  });
  it('whoever leaves in the middle of stepping through comes back to the whole phrase', async () => {
    const { store } = await bench();
    store.useRudiment(RUDIMENTS[0]!);
    store.addMove('mirror');
    const m = mount(BenchComponent);
    const [trail, cursor] = [TestBed.inject(TrailStore), TestBed.inject(CursorStore)];
    trail.back();
    cursor.put(0);
    expect(trail.isFinished()).toBe(false);
    m.fixture.destroy();
    expect([trail.isFinished(), cursor.at()]).toEqual([true, null]);
  });
  it('Esc closes what lies over the lower half, but not from the ribbon, which leaves itself first', async () => {
    const { store } = await bench();
    store.useRudiment(RUDIMENTS[0]!);
    const m = mount(BenchComponent);
    key('v');
    m.fixture.detectChanges();
    key('Escape', m.host.querySelector('[role=application]')!);
    expect(m.component.view.sheet()).toBe('variants');
    key('Escape');
    expect(m.component.view.sheet()).toBeNull();
  });
  it('counts in half-time and double-time, and shows what is sung', async () => {
    const { store } = await bench();
    store.setSource(typed('(R L)x8').source);
    const m = mount(BenchComponent);
    const beats = (): number => m.host.querySelectorAll('.middle .count.strong').length;
    expect(beats()).toBe(4);
    m.press('Lines');
    m.press('Counts: as written');
    expect(beats()).toBe(2);
    m.press('Counts: half-time');
    expect(beats()).toBe(8);
    m.press('Sung line');
    expect(m.host.querySelector('.sung')?.textContent).toBe('ta');
    m.press('Groove only');
    expect(m.host.querySelector('.middle svg')?.classList).toContain('grooves');
  });
  it('drills what is kept; what is not is kept first, under the name it has or the one that is suggested', async () => {
    const { store, went, messages } = await bench();
    const phrases = TestBed.inject(PhrasesRepo);
    const told: string[] = [];
    messages.messageObserver.subscribe((x) => told.push(Array.isArray(x) ? '' : (x.detail ?? '')));
    store.useRudiment(RUDIMENTS[0]!);
    store.setTempo(96);
    const m = mount(BenchComponent);
    await m.component.keeping.drill();
    const kept = store.phrase()!;
    expect(went.at(-1)).toBe(`/drill ${kept.id} ""`);
    expect(await phrases.get(kept.id)).toMatchObject({ name: RUDIMENTS[0]!.name, goal: 116, tempo: 96 });
    expect(told.at(-1)).toContain('is on the shelf now');
    // Kept as it is, it goes without a word; changed, it is kept as it stands, and what it was can be had again.
    await m.component.keeping.drill();
    expect(told).toHaveLength(1);
    store.addMove('mirror');
    await m.component.keeping.drill();
    expect(told.at(-1)).toContain('is kept as it is');
    expect((await phrases.get(kept.id))?.recipe.moves).toHaveLength(1);
    expect(went.at(-1)).toBe(`/drill ${kept.id} ""`);
    expect(m.component.keeping.asking()).toBeNull();
  });
  it('opens a phrase by its address; one that is gone is said', async () => {
    const { went, messages, store } = await bench();
    await TestBed.inject(PhrasesRepo).save(phraseOf('here', { name: 'Here' }));
    const told: string[] = [];
    messages.messageObserver.subscribe((x) => told.push(Array.isArray(x) ? '' : (x.detail ?? '')));
    const m = mount(BenchComponent, { phrase: 'here' });
    await until(() => store.phrase()?.id === 'here');
    const url = jest.spyOn(TestBed.inject(Router), 'url', 'get').mockReturnValue('/bench/gone');
    m.set('phrase', 'gone');
    await until(() => told.length > 0);
    expect(told[0]).toContain('no longer on the shelf');
    await until(() => went.length > 0);
    expect(went).toEqual(['/bench ""']);
    // Whoever went on to another place meanwhile is not called back.
    url.mockReturnValue('/kit?part=data');
    m.set('phrase', 'gone too');
    await until(() => told.length > 1);
    expect(went).toHaveLength(1);
  });
});

describe('keeping a phrase', () => {
  it('gives it the name that stands there, or the one that was suggested when it was taken out', async () => {
    const { store } = await bench();
    store.setSource({ kind: 'typed', text: 'R l l K', meter: '4/4', grid: 1260 });
    const m = mount(KeepDialogComponent);
    const kept = heard(m.component.kept);
    m.component.name.set('  ');
    m.component.keep(false);
    m.component.name.set(' Pale rope ');
    m.component.keep(false);
    expect(kept.map((k) => k.label.name)).toEqual([store.suggestedName(), 'Pale rope']);
    // A goal that is being typed counts, although the field was never left.
    const field = document.querySelector<HTMLInputElement>('[aria-label="Goal tempo"]')!;
    field.value = '300';
    field.dispatchEvent(new Event('input'));
    m.component.keep(true);
    expect(kept.map((k) => [k.label.goal, k.asNew])).toEqual([
      [110, false],
      [110, false],
      [300, true],
    ]);
    expect(store.suggestedName()).not.toBe('');
  });
});
