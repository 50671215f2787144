import type { Type } from '@angular/core';
import { chooses, facetsOf } from '@core/selection';
import { TestBed } from '@angular/core/testing';
import { of } from 'rxjs';
import {
  build,
  describeMove,
  MOVE_NAMES,
  newMove,
  type MoveEntry,
  type MoveName,
  type MoveParams,
  type Recipe,
} from '@core/recipe';
import { PhrasesRepo } from '../../../../storage/phrases.repo';
import { ShelfIndex } from '../../../../knowledge/shelf-index.service';
import { SettingsRepo } from '../../../../storage/settings.repo';
import { phraseOf, typed, until } from '../../../../testing/fixtures';
import { heard, mount, type Mounted } from '../../../../testing/mount';
import { MoveEditorComponent } from './move-editor.component';
import { wholesOf } from './values';
import { freshTestBed } from '../../../../testing/test-bed';

const joined: Recipe = {
  ...typed('R'),
  moves: [{ id: 'j', on: true, move: 'join', params: { other: { source: typed('L').source, moves: [] }, name: 'x' } }],
};
const before = build({
  ...typed('R! l l R K', '4/4'),
  moves: [
    {
      id: 'f',
      on: true,
      move: 'fit',
      params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' } },
    },
  ],
}).pattern;
const cell = build(typed('R l l K', '5/4')).pattern;

it('numbers of a field: how many of one size is understood', () => {
  expect(wholesOf('4 × 8, 2x16 and 32', 1, 64)).toEqual([8, 8, 8, 8, 16, 16, 32]);
  expect(wholesOf('3 3 + 2', 1, 64)).toEqual([3, 3, 2]);
});

const shelf = [phraseOf('a', { name: 'Other' }), phraseOf('b', { name: 'Twice', recipe: joined })];

/** An open card: what it tells comes back as its parameters, as the Bench does it. */
function card<N extends MoveName>(
  move: N,
  params: MoveParams[N],
  pattern = before,
): Mounted<unknown> & { readonly now: () => MoveParams[N]; readonly told: MoveEntry[] } {
  freshTestBed();
  TestBed.configureTestingModule({
    providers: [
      {
        provide: ShelfIndex,
        useValue: {
          names$: () => of(shelf.map(({ id, name }) => ({ id, name }))),
          changed: () => 0,
          lessons: () => Promise.resolve([]),
        },
      },
      { provide: PhrasesRepo, useValue: { get: (id: string) => Promise.resolve(shelf.find((p) => p.id === id)) } },
    ],
  });
  const m = mount(MoveEditorComponent as Type<MoveEditorComponent>, {
    entry: { id: 'm', on: true, move, params },
    before: pattern,
  });
  const told = heard(m.component.changed);
  m.component.changed.subscribe((entry) => m.set('entry', entry));
  return { ...m, told, now: () => (told.at(-1)?.params ?? params) as MoveParams[N] };
}

it('an ending is kept whole by its box, also when it is typed anew', () => {
  const close = { kind: 'strokes' as const, text: 'R L' };
  const c = card('fit', { space: { bars: 1 }, start: '1', mirrored: false, close });
  c.check('Keep all of the ending');
  expect(c.now().close).toEqual({ ...close, whole: true });
  c.check('Keep all of the ending');
  expect(c.now().close).toEqual(close);
});

it('a part stays on its count by its box, and lets go of it again', () => {
  const c = card('only', { select: { is: 'beat', beats: [3] } });
  c.check('It stays on its count');
  expect(c.now()).toEqual({ select: { is: 'beat', beats: [3] }, stays: true });
  c.check('It stays on its count');
  expect(c.now()).toEqual({ select: { is: 'beat', beats: [3] } });
});

it('hands round a line: a sticking by one press, over the line and anew by their boxes', () => {
  const c = card('round', { select: { is: 'limb', limbs: ['K'] }, text: 'R L' });
  const ways = [...c.host.querySelectorAll<HTMLButtonElement>('.ways button')];
  expect(ways.length).toBeGreaterThan(2);
  expect(ways.filter((b) => b.getAttribute('aria-pressed') === 'true')).toHaveLength(1);
  ways.find((b) => b.getAttribute('aria-pressed') === 'false')!.click();
  expect(c.now().text).not.toBe('R L');
  c.check('Over the line too');
  c.check('From the start again after each');
  expect(c.now()).toMatchObject({ over: true, anew: true });
  c.check('Over the line too');
  expect(c.now()).not.toHaveProperty('over');
});

it('another phrase in place of this one: nothing is said then of bars of this one', () => {
  const other = { source: typed('L').source, moves: [] };
  const c = card('join', { other, name: 'x', own: { from: 1, bars: 1 } });
  c.check('in place of this one');
  expect(c.now()).toEqual({ other, name: 'x', alone: true });
  expect(c.host.textContent).not.toContain('all of this one');
  c.check('in place of this one');
  expect(c.now()).toEqual({ other, name: 'x' });
});

describe('every card', () => {
  it.each(MOVE_NAMES)('%s has an editor that keeps id and switch', (name) => {
    const entry = newMove(name, 'id', before);
    const c = card(name, entry.params as never);
    expect(c.host.querySelector('ls-move-editor > *, button, input, select')).not.toBeNull();
    c.host.querySelector<HTMLElement>('button:not([disabled]), input[type=checkbox]')?.click();
    c.told.forEach((t) => expect([t.id, t.on, t.move]).toEqual(['m', true, name]));
  });
});

describe('grid', () => {
  it('offers the grids of the meter, for all slots or some', () => {
    const c = card('grid', { grid: 840 });
    expect(c.button('sextuplets').getAttribute('aria-pressed')).toBe('true');
    c.press('32nds');
    expect(c.now()).toEqual({ grid: 630 });
    c.pick('What', 'some slots, the rest moves up');
    expect(c.now()).toEqual({ grid: 630, part: { from: 1, to: 1 } });
    c.fill('from', '3');
    c.fill('to', '0');
    expect(c.now()).toEqual({ grid: 630, part: { from: 3, to: 1 } });
    c.pick('What', 'all of it, in the same time');
    expect(c.now()).toEqual({ grid: 630, fill: true });
    c.press('triplets');
    expect(c.now()).toEqual({ grid: 1680, fill: true });
    c.pick('What', 'a part, in the same time');
    expect(c.now()).toEqual({ grid: 1680, within: { select: { is: 'beat', beats: ['last'] }, by: 'order' } });
    c.press('each in its place');
    expect(c.now().within?.by).toBe('place');
    c.pick('What', 'all of it, slower or faster');
    expect(c.now()).toEqual({ grid: 1680 });
  });
});

describe('rate', () => {
  it('knows the usual ones', () => {
    const c = card('rate', { times: 1, by: 2 });
    expect(c.button('half').getAttribute('aria-pressed')).toBe('true');
    c.press('one and a half');
    expect(c.now()).toEqual({ times: 3, by: 2 });
  });
});

describe('insert', () => {
  it('tells only what can be read; the problem stands below', () => {
    const c = card('insert', { text: 'K', where: { kind: 'end' } });
    c.fill('Strokes', 'K Q');
    expect(c.told).toEqual([]);
    expect(c.text()).toContain('Column 3');
    c.fill('Strokes', 'K K');
    expect(c.now().text).toBe('K K');
    expect(c.text()).not.toContain('Column');
  });
  it('puts it at the end, after a slot, after every few; on a grid of its own', () => {
    const c = card('insert', { text: 'K', where: { kind: 'end' } });
    c.pick('Where', 'after slot');
    c.fill('Slot', '3');
    expect(c.now().where).toEqual({ kind: 'after', slot: 3 });
    c.pick('Where', 'after every');
    c.fill('Slots', '99999');
    expect(c.now().where).toEqual({ kind: 'every', slots: 2048 });
    c.pick('Subdivision of the added strokes', '32nds');
    expect(c.now().grid).toBe(630);
    c.pick('Subdivision of the added strokes', 'the same subdivision');
    expect(c.now()).toEqual({ text: 'K', where: { kind: 'every', slots: 2048 } });
    c.pick('Where', 'at the end');
    expect(c.now().where).toEqual({ kind: 'end' });
  });
});

describe('fit', () => {
  const start: MoveParams['fit'] = { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' } };
  it('shows the sum while it is set', () => {
    const c = card('fit', start, build(typed('R l l R K', '7/8')).pattern);
    expect(c.text()).toContain('14 = 2 × 5 + 4');
    c.fill('How many bars or beats', '2');
    expect(c.now().space).toEqual({ bars: 2 });
    expect(c.text()).toContain('28 = 5 × 5 + 3');
    c.pick('Bars or beats', 'beats');
    expect(c.now().space).toEqual({ beats: 2 });
    c.pick('Start count', '3&');
    expect(c.now().start).toBe('3&');
    c.check('Swap hands');
    expect(c.now().mirrored).toBe(true);
  });
  it('ends on a count of its own, which stays when something else is set; the sum is the one of the move', () => {
    const c = card('fit', start, build(typed('R l l K')).pattern);
    c.fill('How many bars or beats', '2');
    c.pick('Count of its last stroke', '3&');
    expect(c.now()).toEqual({ ...start, space: { bars: 2 }, end: '3&' });
    expect(c.text()).toContain('27 = 6 × 4 + 3');
    c.check('Swap hands');
    c.pick('Start count', '2');
    expect(c.now()).toEqual({ ...start, space: { bars: 2 }, start: '2', end: '3&', mirrored: true });
    expect(c.text()).toContain('23 = 5 × 4 + 3');
    c.pick('Count of its last stroke', 'the end');
    expect(c.now()).toEqual({ ...start, space: { bars: 2 }, start: '2', mirrored: true });
  });
  it('offers the counts as the user says them, and knows those of the other school', async () => {
    const triplets = build({ source: { kind: 'typed', text: 'R L R', meter: '4/4', grid: 1680 }, moves: [] }).pattern;
    const c = card('fit', { ...start, start: '1trip', end: '4let' }, triplets);
    await TestBed.inject(SettingsRepo).change({ triplets: 'and-a' });
    c.fixture.detectChanges();
    expect([c.shown('Start count'), c.shown('Count of its last stroke')]).toEqual(['1&', '4a']);
    expect(c.text()).toContain('11 = 3 × 3 + 2');
    c.pick('Count of its last stroke', '4&');
    expect(
      build({
        source: { kind: 'typed', text: 'R L R', meter: '4/4', grid: 1680 },
        moves: [{ id: 'f', on: true, move: 'fit', params: c.now() }],
      }).pattern.strokes,
    ).toHaveLength(10);
  });
  it('closes with a rest, with strokes, or in groups; the groups are listed, most even first', () => {
    const c = card('fit', start, cell);
    c.press('rest');
    expect(c.now().close).toEqual({ kind: 'rest' });
    c.press('strokes');
    c.fill('Close with', 'L R');
    expect(c.now().close).toEqual({ kind: 'strokes', text: 'L R' });
    c.press('groups');
    expect(c.now().close).toEqual({ kind: 'groups', groups: [5, 5, 5, 5] });
    c.pick('Groups', '4 + 4 + 4 + 4 + 4');
    expect(c.now().close).toEqual({ kind: 'groups', groups: [4, 4, 4, 4, 4] });
    c.fill('Sizes allowed', '6 8');
    expect(() => c.pick('Groups', '6 + 6 + 8')).not.toThrow();
  });
});

describe('shift', () => {
  it('goes slot by slot, wraps or cuts, from a count on, in every n-th group', () => {
    const c = card('shift', { slots: 1, mode: 'wrap' });
    c.press('One slot later');
    c.press('are removed');
    expect(c.now()).toEqual({ slots: 2, mode: 'push' });
    c.fill('from count', '2&');
    c.pick('groups', 'every 2nd');
    expect(c.now()).toEqual({ slots: 2, mode: 'push', from: '2&', groups: 2 });
    c.fill('from count', ' ');
    c.pick('groups', 'all as one');
    c.press('One slot earlier');
    expect(c.now()).toEqual({ slots: 1, mode: 'push' });
  });
});

describe('selections', () => {
  it('are built by pressing, and say themselves with how many they choose', () => {
    const c = card('drop', { select: chooses({}) });
    expect(c.text()).toContain('in words: 16 strokes');
    c.press('left hand');
    c.press('ghosts');
    expect(c.now().select).toEqual(chooses({ limbs: ['L'], levels: ['ghost'] }));
    expect(c.text()).toContain('in words: 6 strokes');
    c.press('place 2 of every group');
    c.press('place 1 of every group');
    expect(facetsOf(c.now().select)?.places).toEqual([1, 2]);
    c.press('place 1 of every group');
    c.press('place 2 of every group');
    c.pick('every', '3rd slot');
    c.fill('on counts', '2, 4&, ');
    expect(facetsOf(c.now().select)).toEqual({
      limbs: ['L'],
      levels: ['ghost'],
      every: { n: 3, offset: 0, of: 'slot' },
      counts: ['2', '4&'],
    });
    c.pick('every', 'slot');
    c.fill('on counts', '');
    c.press('left hand');
    c.press('ghosts');
    expect(c.now().select).toEqual({ is: 'all' });
  });
  it('are read from words; what is not understood changes nothing', () => {
    const c = card('drop', { select: chooses({}) });
    c.fill('in words', 'left ghosts in bar 1');
    expect(c.now().select).toEqual(chooses({ limbs: ['L'], levels: ['ghost'], bars: [1] }));
    const n = c.told.length;
    c.fill('in words', 'left ghosts on purple');
    expect(c.told).toHaveLength(n);
    expect(c.text()).toContain('is not understood');
  });
});

describe('a selection that says more than chips can', () => {
  it('stands in words alone, and is an exception still when the words are changed', () => {
    const c = card('drop', { select: chooses({}) });
    c.fill('in words', 'lefts except on 2');
    expect(c.now().select).toEqual({
      is: 'but',
      of: { is: 'limb', limbs: ['L'] },
      not: { is: 'count', counts: ['2'] },
    });
    expect(c.text()).not.toContain('on counts');
    c.fill('in words', 'the last left of each beat');
    expect(c.now().select).toMatchObject({ is: 'order', which: { last: 1 }, within: 'beat' });
    c.fill('in words', 'lefts');
    expect(c.text()).toContain('on counts');
  });
});

describe('what chosen strokes become', () => {
  it('level: how high, and displaced', () => {
    const c = card('level', { select: chooses({ places: [1] }), level: 'accent' });
    c.press('ghost');
    c.fill('Displaced by slots', '2');
    expect(c.now()).toEqual({ select: chooses({ places: [1] }), level: 'ghost', shift: 2 });
    c.fill('Displaced by slots', '0');
    expect(c.now()).toEqual({ select: chooses({ places: [1] }), level: 'ghost' });
  });
  it('voice: taken in turn, never none, with a foot under', () => {
    const c = card('voice', { select: chooses({}), voices: ['high-tom'] });
    c.press('floor tom');
    expect(c.now().voices).toEqual(['high-tom', 'floor-tom']);
    c.press('high tom');
    c.press('floor tom');
    expect(c.now().voices).toEqual(['floor-tom']);
    c.pick('Foot underneath', 'kick');
    expect(c.now().under).toBe('K');
    c.pick('Foot underneath', 'nothing');
    expect(c.now()).toEqual({ select: chooses({}), voices: ['floor-tom'] });
  });
  it('swap, ornament, mirror', () => {
    const s = card('swap', { select: chooses({}), limb: 'K' });
    s.press('other hand');
    expect(s.now().limb).toBe('other');
    const o = card('ornament', { select: chooses({}), ornament: 'flam' });
    o.press('none');
    expect(o.now().ornament).toBe('none');
    const m = card('mirror', { feet: false });
    m.check('The kick feet too');
    expect(m.now()).toEqual({ feet: true });
  });
  it('route: stops, strokes to a stop, order', () => {
    const c = card('route', {
      select: chooses({}),
      stations: [{ right: 'snare', left: 'snare' }],
      order: [],
      sizes: [2],
    });
    expect(c.button('Remove stop 1').disabled).toBe(true);
    c.press('Add a stop');
    c.pick('Stop 2, left hand', 'high tom');
    expect(c.now().stations[1]).toEqual({ right: 'floor-tom', left: 'high-tom' });
    c.fill('Strokes to a stop', '3 3, 2');
    expect(c.now().sizes).toEqual([3, 3, 2]);
    c.fill('Strokes to a stop', 'none');
    expect(c.now().sizes).toEqual([3, 3, 2]);
    c.fill('Order of the stops', '2 1');
    expect(c.now().order).toEqual([2, 1]);
    c.press('Remove stop 1');
    expect(c.now().stations).toHaveLength(1);
  });
});

describe('layer and land', () => {
  const foot: MoveParams['layer'] = {
    limb: 'H',
    voice: 'hat-foot',
    level: 'tap',
    on: { kind: 'grid', grid: 5040 },
    clash: 'keep',
  };
  it('a limb plays what it can reach', () => {
    const c = card('layer', foot);
    c.pick('Limb', 'right hand');
    expect(c.now()).toMatchObject({ limb: 'R', voice: 'snare' });
    c.pick('Piece', 'ride');
    c.pick('Limb', 'kick foot');
    expect(c.now()).toMatchObject({ limb: 'K', voice: 'kick' });
  });
  it('every slot of a grid, on counts, or as typed; in some bars; hands give way', () => {
    const c = card('layer', foot);
    c.pick('Every', 'eighths');
    expect(c.now().on).toEqual({ kind: 'grid', grid: 2520 });
    c.press('on counts');
    c.fill('Counts', '1, 3&');
    expect(c.now().on).toEqual({ kind: 'counts', counts: ['1', '3&'] });
    c.press('as typed');
    c.fill('Where a stroke is', 'K - K');
    expect(c.now().on).toEqual({ kind: 'text', text: 'K - K' });
    c.fill('Bars', '1 3');
    c.press('hands move');
    c.press('accent');
    expect(c.now()).toMatchObject({ bars: [1, 3], clash: 'move', level: 'accent' });
    c.fill('Bars', '');
    expect('bars' in c.now()).toBe(false);
  });
  it('lands with or without a hand', () => {
    const c = card('land', { voice: 'crash-right', hand: 'R', kick: true });
    c.pick('On the next 1', 'no hand');
    c.check('Kick with it');
    expect(c.now()).toEqual({ hand: 'R', kick: false });
    c.pick('On the next 1', 'left crash');
    c.pick('Hand', 'left');
    expect(c.now()).toEqual({ voice: 'crash-left', hand: 'L', kick: false });
  });
});

describe('join', () => {
  it('offers the shelf; what is joined itself cannot be taken, and why is said', async () => {
    const c = card('join', { other: { source: typed('R').source, moves: [] }, name: 'four singles' });
    expect(c.shown('Then comes')).toBe('four singles');
    c.pick('Then comes', 'Twice');
    await until(() => {
      c.fixture.detectChanges();
      return c.text().includes('already joined from others');
    });
    c.pick('Then comes', 'Other');
    await until(() => 'name' in c.now() && c.now().name === 'Other');
    expect(c.now()).toMatchObject({ name: 'Other', other: { source: { text: 'R l l R K' } } });
  });
  it('takes all bars, or some of each', () => {
    const c = card('join', { other: { source: typed('R').source, moves: [] }, name: 'x' });
    c.check('all of the other');
    c.fill('from bar', '2');
    expect(c.now().their).toEqual({ from: 2, bars: 1 });
    expect(c.now().own).toBeUndefined();
    c.check('all of this one');
    expect(c.now().own).toEqual({ from: 1, bars: 1 });
    c.check('all of the other');
    expect('their' in c.now()).toBe(false);
  });
});

describe('touch', () => {
  it('a place goes round rest, ghost, tap, accent; back where it was is no edit', () => {
    const c = card('touch', { edits: [] });
    c.press('kick foot, beat 1, rest');
    expect(c.now().edits).toEqual([{ at: 0, limb: 'K', stroke: { level: 'ghost' } }]);
    for (const level of ['ghost', 'tap', 'accent']) c.press(`kick foot, beat 1, ${level}`);
    expect(c.now().edits).toEqual([]);
    c.press('right hand, beat 1, accent');
    expect(c.now().edits).toEqual([{ at: 0, limb: 'R', stroke: null }]);
    c.press('Undo all 1');
    expect(c.now().edits).toEqual([]);
  });
});

it('a sentence follows every change', () => {
  const c = card('shift', { slots: 1, mode: 'wrap' });
  c.press('One slot later');
  const last = c.told.at(-1);
  expect(last && describeMove(last)).toBe('Displace it 2 slots later');
});
