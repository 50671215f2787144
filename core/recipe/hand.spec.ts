import fc from 'fast-check';
import { chooses } from '../selection';
import { anyRecipe } from '../testing/arbitraries';
import { report } from '../pattern';
import { barTicks, GRID, USUAL_SCHOOLS } from '../time';
import { LEVELS, LIMBS, usualVoice } from '../stroke';
import {
  build,
  clipOf,
  cursorStops,
  displaceEdits,
  effectOf,
  inRange,
  levelEdits,
  limbEdits,
  ornamentEdits,
  pasteEdits,
  remediesFor,
  restEdits,
  voiceEdits,
  withEdits,
  withTyped,
  writeEdits,
  type Edit,
  type MoveEntry,
  type Recipe,
} from '.';

const typed = (text: string, moves: Recipe['moves'] = [], meter = '4/4'): Recipe => ({
  source: { kind: 'typed', text, meter, grid: GRID.sixteenths },
  moves,
});
const after = (recipe: Recipe, edits: readonly Edit[]): Recipe => withEdits(build(recipe), edits) ?? recipe;
const line = (recipe: Recipe): string =>
  build(recipe)
    .pattern.strokes.map((s) => `${s.at / 1260}${s.limb}${s.level === 'accent' ? '!' : s.level === 'ghost' ? '.' : ''}`)
    .join(' ');

describe('edits by hand', () => {
  it('become a touch, and the next ones extend it', () => {
    const one = after(typed('R L R L'), levelEdits(build(typed('R L R L')).pattern, [0], 'accent'));
    expect(one.moves).toEqual([
      {
        id: 'm1',
        on: true,
        move: 'touch',
        params: { edits: [{ at: 0, limb: 'R', stroke: { level: 'accent', voice: 'snare' }, only: 'level' }] },
      },
    ]);
    const two = after(one, restEdits(build(one).pattern, [1]));
    const three = after(two, levelEdits(build(two).pattern, [1], 'ghost'));
    expect(three.moves).toHaveLength(2);
    expect(line(three)).toBe('0R! 2R. 3L');
  });
  it('what is put back as it was leaves no touch behind', () => {
    const recipe = typed('R L');
    const one = after(recipe, levelEdits(build(recipe).pattern, [0], 'accent'));
    expect(after(one, levelEdits(build(one).pattern, [0], 'tap'))).toEqual(recipe);
  });
  it('a touch that is switched off or not last is not extended', () => {
    const one = after(typed('R L'), levelEdits(build(typed('R L')).pattern, [0], 'accent'));
    const off: Recipe = { ...one, moves: one.moves.map((m) => ({ ...m, on: false })) };
    expect(after(off, levelEdits(build(off).pattern, [1], 'ghost')).moves).toHaveLength(2);
  });
  it('a typed letter takes the place of all that is there; with a plus it joins', () => {
    const { pattern } = build(typed('R+K L'));
    expect(line(after(typed('R+K L'), writeEdits(pattern, 0, { limb: 'L', level: 'ghost' }, false)))).toBe('0L. 1L');
    expect(
      line(after(typed('R L'), writeEdits(build(typed('R L')).pattern, 0, { limb: 'K', level: 'tap' }, true))),
    ).toBe('0R 0K 1L');
  });
  it('a hand that takes over keeps the voice that sounded there', () => {
    const recipe = typed('R L', [
      { id: 'a', on: true, move: 'voice', params: { select: chooses({ limbs: ['R'] }), voices: ['ride'] } },
    ]);
    const edited = after(recipe, writeEdits(build(recipe).pattern, 0, { limb: 'L', level: 'tap' }, false));
    expect(build(edited).pattern.strokes[0]).toMatchObject({ limb: 'L', voice: 'ride' });
  });
  it('voices, ornaments and limbs go only where they can', () => {
    const { pattern } = build(typed('R K'));
    expect(voiceEdits(pattern, [0, 1], 'high-tom')).toHaveLength(1);
    expect(ornamentEdits(pattern, [0, 1], 'flam')).toHaveLength(1);
    expect(line(after(typed('R K'), limbEdits(pattern, [0], 'K')))).toBe('0K 1K');
  });
  it('a selection is displaced by whole slots and held inside the phrase', () => {
    const { pattern } = build(typed('R L - -'));
    expect(line(after(typed('R L - -'), displaceEdits(pattern, [0, 1], 1300)))).toBe('1R 2L');
    expect(line(after(typed('R L - -'), displaceEdits(pattern, [0, 1], 99 * 1260)))).toBe('2R 3L');
    expect(displaceEdits(pattern, [0, 1], -1260)).toEqual([]);
    expect(displaceEdits(pattern, [], 1260)).toEqual([]);
  });
  it('what is copied is put down elsewhere, in another phrase too, and replaces what is there', () => {
    const clip = clipOf(build(typed('R! l - K')).pattern, 0, 2 * 1260);
    expect(clip.strokes).toHaveLength(2);
    const other = typed('L L L L');
    expect(line(after(other, pasteEdits(build(other).pattern, 1260, clip)))).toBe('0L 1R! 2L. 3L');
    expect(line(after(other, pasteEdits(build(other).pattern, 3 * 1260, clip)))).toBe('0L 1L 2L 3R!');
  });
  it('typing at the end grows the phrase by one move', () => {
    const one = withTyped(typed('R L'), 'R');
    const two = one && withTyped(one, 'k');
    expect(two?.moves).toHaveLength(1);
    expect(two && line(two)).toBe('0R 1L 2R 3K.');
  });
  it('the cursor stands on every slot and on strokes between them', () => {
    const recipe = typed('R L', [
      { id: 'a', on: true, move: 'insert', params: { text: 'R L', grid: 630, where: { kind: 'end' } } },
    ]);
    expect(cursorStops(build(recipe).pattern)).toEqual([0, 1260, 2520, 3150]);
  });
  it('any edits on any recipe do what they say, and never more', () => {
    fc.assert(
      fc.property(
        anyRecipe,
        fc.nat(),
        fc.constantFrom(...LIMBS),
        fc.option(fc.constantFrom(...LEVELS)),
        (recipe, nth, limb, level) => {
          const built = build({ ...recipe, moves: recipe.moves.slice(0, 4) });
          const stops = cursorStops(built.pattern);
          const at = stops[nth % Math.max(1, stops.length)];
          if (at === undefined) return;
          const edit: Edit = { at, limb, stroke: level === null ? null : { level, voice: usualVoice(limb) } };
          const next = withEdits(built, [edit]);
          const pattern = next && build(next).pattern;
          const there = pattern?.strokes.find((s) => s.at === at && s.limb === limb);
          expect(there?.level ?? null).toBe(level);
          const rest = (p: typeof built.pattern) => p.strokes.filter((s) => s.at !== at || s.limb !== limb);
          expect(pattern && rest(pattern)).toEqual(rest(built.pattern));
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('what a move is worth', () => {
  const recipe = typed('R L', [
    {
      id: 'fill',
      on: true,
      move: 'fit',
      params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' } },
    },
    { id: 'accents', on: true, move: 'level', params: { select: chooses({ places: [1] }), level: 'accent' } },
  ]);
  it('is where the whole would be another without it', () => {
    expect(effectOf(build(recipe), 'accents')).toEqual([0, 2, 4, 6, 8, 10, 12, 14].map((n) => n * 1260));
    expect(effectOf(build(recipe), 'fill')).toHaveLength(14);
  });
  it('is nothing for a move that is off or unknown', () => {
    const off = { ...recipe, moves: recipe.moves.map((m): MoveEntry => ({ ...m, on: false })) };
    expect(effectOf(build(off), 'accents')).toEqual([]);
    expect(effectOf(build(recipe), 'none')).toEqual([]);
  });
});

describe('remedies', () => {
  const mended = (recipe: Recipe, code: 'unison' | 'fit', words = '', at: readonly number[] = []): Recipe | null => {
    const built = build(recipe);
    const [remedy] = remediesFor({ code, weight: 'check', words, at: at as never }, built);
    return remedy ? { ...recipe, moves: [...recipe.moves, { ...remedy.entry, id: 'r' }] } : null;
  };
  it('a unison of hand and foot is mended by leaving the foot out', () => {
    const next = mended(typed('R+K L'), 'unison', '', [0]);
    expect(next && line(next)).toBe('0R 1L');
  });
  it('it is said by count and limb, and taking it leaves out just those', () => {
    const long = typed('(R L R L)x7 R L R L+K');
    const [remedy] = remediesFor({ code: 'unison', weight: 'check', words: '', at: [31 * 1260] as never }, build(long));
    expect(remedy?.words).toBe('Leave out the kick on the a of 4 in bar 2');
    const next = { ...long, moves: [{ ...remedy!.entry, id: 'r' }] };
    expect(build(next).pattern.strokes.filter((s) => s.limb === 'K')).toEqual([]);
    expect(build(next).pattern.strokes).toHaveLength(32);
  });
  it('a flam by itself is together with nothing that could be left out', () => {
    for (const text of ['fR L K R L K', 'R fL K', 'R dL R L']) {
      const at = text.startsWith('f') ? [0] : [1260];
      expect(mended(typed(text), 'unison', '', at)).toBeNull();
    }
  });
  it('what a move put there is asked for: no warning, no remedy', () => {
    const moves: MoveEntry[] = [
      {
        id: 'v',
        on: true,
        move: 'voice',
        params: { select: chooses({ counts: ['3'] }), voices: ['floor-tom'], under: 'K' },
      },
    ];
    const asked = typed('(R L)x8', moves);
    expect(mended(asked, 'unison', '', [8 * 1260])).toBeNull();
    const [unison] = report(build(asked).pattern, 100, USUAL_SCHOOLS).filter((f) => f.code === 'unison');
    expect(unison).toMatchObject({ weight: 'note', words: '1 unison: 3.' });
    const landed = typed('(R L)x8', [
      { id: 'l', on: true, move: 'land', params: { voice: 'crash-right', hand: 'R', kick: true } },
      { id: 's', on: true, move: 'voice', params: { select: chooses({ levels: ['accent'] }), voices: ['snare'] } },
    ]);
    expect(report(build(landed).pattern, 100, USUAL_SCHOOLS).some((f) => f.weight === 'check')).toBe(false);
  });
  it('a crash with the kick under it is meant: only what else is together is mended', () => {
    const landing = typed('R+K L R L R L', [
      { id: 'l', on: true, move: 'land', params: { voice: 'crash-right', hand: 'R', kick: true } },
    ]);
    expect(mended(landing, 'unison', '', [20160])).toBeNull();
    const next = mended(landing, 'unison', '', [0, 20160]);
    expect(next && line(next)).toBe('0R 1L 2R 3L 4R 5L 16R! 16K!');
  });
  it('a groove keeps its backbeat: what falls under the hat is nothing to mend', () => {
    const groove = typed('R+K R R+L R', [
      { id: 'v', on: true, move: 'voice', params: { select: chooses({ limbs: ['R'] }), voices: ['hat-closed'] } },
    ]);
    expect(mended(groove, 'unison', '', [0, 2520])).toBeNull();
  });
  it('silence at the end of a fill is closed with singles that go on from the other hand', () => {
    const recipe = typed('R L R L R', [
      {
        id: 'f',
        on: true,
        move: 'fit',
        params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'rest' } },
      },
    ]);
    const next = mended(recipe, 'fit');
    const built = next && build(next);
    expect(built?.pattern.length).toBe(barTicks(built!.pattern.meter));
    expect(built?.pattern.strokes.at(-1)).toMatchObject({ at: 15 * 1260, limb: 'L' });
  });
  it('each remedy says what it does: singles for silence, the bar for a cell that fills none', () => {
    const rest = typed('R L R L R', [
      {
        id: 'f',
        on: true,
        move: 'fit',
        params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'rest' } },
      },
    ]);
    const said = (recipe: Recipe): string[] =>
      remediesFor({ code: 'fit', weight: 'sum', words: '' }, build(recipe)).map((r) => r.words);
    expect(said(rest)).toEqual(['Close it with singles']);
    expect(said(typed('R l l R K'))).toEqual(['Fill 1 bar, cut the last one']);
  });
  it('what needs no mending has no remedy', () => {
    expect(remediesFor({ code: 'linear', weight: 'note', words: '' }, build(typed('R L')))).toEqual([]);
  });
  it('the chosen range holds what lies in it', () =>
    expect(inRange(build(typed('R L R')).pattern, 1260, 2520)).toEqual([1]));
});
