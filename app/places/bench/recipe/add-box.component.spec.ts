import { ViewStore } from '../document/view.store';
import { OrdersStore } from './orders.store';
import { TestBed } from '@angular/core/testing';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { phraseOf, typed, until } from '../../../testing/fixtures';
import { mount } from '../../../testing/mount';
import { untilAsked } from '../../../testing/shelf';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { emptyPlace, key } from '../../../testing/place';
import { AddBoxComponent } from './add-box.component';
import { BenchStore } from '../document/bench.store';
import { PreviewStore } from '../document/preview.store';
import { NamedStore } from './named.store';
import { CursorStore } from '../ribbon/cursor.store';
import { SoundStore } from '../ribbon/sound.store';

async function box() {
  await emptyPlace([OrdersStore, ViewStore]);
  const store = TestBed.inject(BenchStore);
  await until(() => store.ready());
  store.setSource(typed('R l l K').source);
  const m = mount(AddBoxComponent);
  const field = m.host.querySelector('input')!;
  const say = (text: string): void => {
    field.value = text;
    field.dispatchEvent(new Event('input'));
    m.fixture.detectChanges();
  };
  return { store, m, field, say };
}

describe('the box that takes words', () => {
  it('takes a line of one meaning by Enter, all of its parts as one step, and is empty for the next', async () => {
    const { store, m, field, say } = await box();
    say('accent the rights, ghost the lefts and swap the hands');
    expect([...m.host.querySelectorAll('[role=option] span')].map((e) => e.textContent)).toEqual([
      'Accent rights, then Ghost lefts, then Swap the hands',
    ]);
    expect(m.host.querySelectorAll('[role=option] svg')).toHaveLength(1);
    key('Enter', field);
    expect(store.recipe()?.moves.map((x) => x.move)).toEqual(['level', 'level', 'mirror']);
    expect(new Set(store.recipe()?.moves.map((x) => x.id)).size).toBe(3);
    m.fixture.detectChanges();
    expect(field.value).toBe('');
    store.undo();
    expect(store.recipe()?.moves).toEqual([]);
  });
  it('undoes and does again on the Bench while nothing is typed, and leaves what is typed alone', async () => {
    const { store, field, say } = await box();
    say('accent 1');
    key('Enter', field);
    expect(store.recipe()?.moves).toHaveLength(1);
    const control = (shiftKey: boolean): boolean =>
      field.dispatchEvent(
        new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, shiftKey, bubbles: true, cancelable: true }),
      );
    expect(control(false)).toBe(false);
    expect(store.recipe()?.moves).toEqual([]);
    control(true);
    expect(store.recipe()?.moves).toHaveLength(1);
    say('ghost');
    expect(control(false)).toBe(true);
    expect(store.recipe()?.moves).toHaveLength(1);
  });
  it('of several meanings Enter takes none before one is chosen', async () => {
    const { store, m, field, say } = await box();
    say('leave out 1');
    expect(m.host.querySelectorAll('[role=option]')).toHaveLength(2);
    expect(m.text()).toContain('This has 2 meanings.');
    key('Enter', field);
    expect(store.recipe()?.moves).toEqual([]);
    key('ArrowDown', field);
    key('ArrowDown', field);
    m.fixture.detectChanges();
    expect(m.host.querySelector('[aria-selected=true]')?.textContent).toContain('in beat 1');
    key('Enter', field);
    expect(store.recipe()?.moves).toMatchObject([{ id: 'm1', move: 'drop' }]);
  });
  it('offers the lines near one that is not understood, and takes none by itself', async () => {
    const { store, m, field, say } = await box();
    say('flibber the rights');
    m.fixture.detectChanges();
    const lines = [...m.host.querySelectorAll('[role=option] span')].map((o) => o.textContent?.trim());
    expect(lines.length).toBeGreaterThan(1);
    expect(m.host.querySelector('[role=option][aria-selected=true]')).toBeNull();
    key('Enter', field);
    expect(store.recipe()?.moves).toEqual([]);
    key('ArrowDown', field);
    key('ArrowDown', field);
    key('Enter', field);
    expect(store.recipe()?.moves).toHaveLength(1);
    // The line that was taken comes back, and walking on leaves it.
    key('ArrowUp', field);
    expect(field.value).toBe(lines[1]);
    key('ArrowDown', field);
    expect(field.value).toBe('');
  });
  it('underlines what it does not understand, says what cannot be met, and adds nothing', async () => {
    const { store, m, field, say } = await box();
    say('accent the purple ones with the right');
    expect([...m.host.querySelectorAll('u')].map((u) => u.textContent)).toEqual(['purple']);
    expect(m.text()).toContain('“purple” is not known here.');
    key('Enter', field);
    say('accent 7');
    expect(m.host.querySelector('u')?.textContent).toBe('7');
    expect(m.text()).toContain('There is no 7 here.');
    key('Enter', field);
    say('louder click please');
    expect(m.text()).toContain('set in the bar below');
    key('Enter', field);
    expect(store.recipe()?.moves).toEqual([]);
    key('Escape', field);
    m.fixture.detectChanges();
    expect(field.value).toBe('');
  });
  it('does what is said to the player by Enter, and says beforehand what that is', async () => {
    const { store, m, field, say } = await box();
    const sound = TestBed.inject(SoundStore);
    const cursor = TestBed.inject(CursorStore);
    store.setTempo(90);
    const order = (words: string, says: string): void => {
      say(words);
      expect(m.text()).toContain(says);
      key('Enter', field);
      m.fixture.detectChanges();
      expect(field.value).toBe('');
    };
    order('slower by 10', 'Play it at 80');
    expect(store.tempo()).toBe(80);
    order('half speed', 'Play it at half speed');
    expect(sound.half()).toBe(true);
    order('only hands', 'Hear only the hands');
    expect(sound.mute().limbs).toEqual(['K', 'J', 'H']);
    order('hear everything', 'Hear everything');
    expect(sound.mute().limbs).toEqual([]);
    order('swing the 16ths by 58', 'Swing 16ths by 58%');
    expect(store.recipe()?.source.swing).toEqual({ on: '16ths', ratio: 0.58 });
    order('straight', 'Play it straight');
    expect(store.recipe()?.source.swing).toBeUndefined();
    order('loop beat 1', 'Loop beat 1');
    expect(cursor.range()).toEqual({ from: 0, until: 5040 });
    expect(store.recipe()?.moves).toEqual([]);
  });
  it('a card that was taken back into the box is said anew where it stands, as one step', async () => {
    const { store, m, field, say } = await box();
    for (const line of ['accent the rights', 'fill a bar', 'swap the hands']) {
      say(line);
      key('Enter', field);
      m.fixture.detectChanges();
    }
    const before = store.recipe()?.moves ?? [];
    m.fixture.componentInstance.sayAnew(before[0]!.id, 'Accent rights');
    m.fixture.detectChanges();
    expect(m.text()).toContain('replaces this card');
    // It is said of what stood before the card: there one cell of four strokes.
    say('ghost the last two and accent the first');
    key('Enter', field);
    m.fixture.detectChanges();
    expect(store.recipe()?.moves.map((x) => x.move)).toEqual(['level', 'level', 'fit', 'mirror']);
    expect(store.recipe()?.moves.slice(2)).toEqual(before.slice(1));
    store.undo();
    expect(store.recipe()?.moves).toEqual(before);
    expect(m.text()).not.toContain('takes the place');
  });
  it('what would be taken is shown beforehand while the keyboard is in the box, and only then', async () => {
    const { store, field, say } = await box();
    const preview = TestBed.inject(PreviewStore);
    field.dispatchEvent(new Event('focus'));
    say('accent the rights');
    await until(() => preview.words() === 'Preview: Accent rights');
    expect(preview.pattern()?.strokes.map((s) => s.level)).toEqual(['accent', 'ghost', 'ghost', 'tap']);
    expect(preview.changed()).toEqual([0]);
    expect(store.recipe()?.moves).toEqual([]);
    // Of several none is shown before one is chosen.
    say('leave out 1');
    await until(() => preview.pattern() === null);
    key('ArrowDown', field);
    await until(() => (preview.pattern()?.strokes.length ?? 9) < 4);
    field.dispatchEvent(new Event('blur'));
    await until(() => preview.words() === null);
  });
  it('a phrase of the shelf is named, written to its end by Tab, joined, opened, and asked for its like', async () => {
    const { store, m, field, say } = await box();
    await TestBed.inject(PhrasesRepo).save(phraseOf('rope', { name: 'Cold rope', recipe: typed('(K L)x8') }));
    const named = TestBed.inject(NamedStore);
    // The index follows what is kept in its own time, and is asked when the box gets the keyboard.
    await untilAsked(async () => (await TestBed.inject(ShelfIndex).names('all')).length === 1);
    field.dispatchEvent(new Event('focus'));
    await until(() => named.names().includes('Cold rope'));
    say('then col');
    expect(m.host.querySelector('.endings')?.textContent).toContain('Cold rope');
    key('Tab', field);
    expect(field.value).toBe('then Cold rope');
    await until(() => named.here().length === 1);
    m.fixture.detectChanges();
    expect(m.text()).toContain('Join “Cold rope”');
    key('Enter', field);
    m.fixture.detectChanges();
    expect(store.recipe()?.moves).toMatchObject([{ move: 'join', params: { name: 'Cold rope' } }]);
    expect(store.build()?.pattern.strokes.filter((s) => s.limb === 'K')).toHaveLength(9);
    // The card opens as its words, though the phrase is off the shelf by now.
    await TestBed.inject(PhrasesRepo).remove(['rope']);
    m.fixture.componentInstance.sayAnew(store.recipe()!.moves[0]!.id, 'Join “Cold rope”');
    m.fixture.detectChanges();
    expect(m.text()).toContain('Join “Cold rope”');
    expect(m.host.querySelectorAll('[role=option]')).toHaveLength(1);
  });
  it('writes a word to its end by Tab, and brings lines back with the arrow up', async () => {
    const { m, field, say } = await box();
    say('rights to the flo');
    expect(m.host.querySelector('.endings')?.textContent).toContain('floor');
    key('Tab', field);
    m.fixture.detectChanges();
    expect(field.value).toBe('rights to the floor');
    key('Enter', field);
    m.fixture.detectChanges();
    key('ArrowUp', field);
    expect(field.value).toBe('rights to the floor');
    key('ArrowDown', field);
    expect(field.value).toBe('');
  });
});
