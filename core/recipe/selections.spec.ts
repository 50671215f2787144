import fc from 'fast-check';
import { anyFacets, anyGrid, anyNodes, anyRecipe, anySelection, METERS } from '../testing/arbitraries';
import { selectEarlier } from '../testing/earlier-select';
import { GRID, meter, ticks, USUAL_SCHOOLS } from '../time';
import { parseStrokeText } from '../stroke';
import { countingOf, patternOfText, type Pattern } from '../pattern';
import { build, type Recipe } from '.';
import {
  chooses,
  describeStrokes,
  facetsOf,
  readSelection,
  select,
  selectionWords,
  withSelections,
  type Facets,
  type Selection,
} from '../selection';

function pattern(text: string): Pattern {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(text);
  return patternOfText(read.value, meter(4, 4), GRID.sixteenths);
}
const p = pattern('R! l l R K R L L R R L! l K+R - r l H');
const filled = build({
  source: { kind: 'typed', text: 'R l l R K', meter: '4/4', grid: 1260 },
  moves: [
    {
      id: 'f',
      on: true,
      move: 'fit',
      params: { space: { bars: 2 }, start: '1', mirrored: false, close: { kind: 'cut' } },
    },
  ],
}).pattern;

const placing = (on: Pattern) => ({ counting: countingOf(on, USUAL_SCHOOLS), start: on.start });

/** Patterns of every kind: meters, grids, starts off the bar line, filled, landed. */
const anyPattern: fc.Arbitrary<Pattern> = fc.oneof(
  fc
    .tuple(anyNodes, fc.constantFrom(...METERS), anyGrid, fc.nat({ max: 6 }))
    .map(([nodes, m, grid, later]) => ({ ...patternOfText(nodes, m, grid), start: ticks(later * grid) })),
  anyRecipe
    .map((recipe) => build({ ...recipe, moves: recipe.moves.slice(0, 3) }).pattern)
    .filter((q) => q.strokes.length <= 200),
);

describe('what a selection chooses', () => {
  it.each<[string, Facets, number[]]>([
    ['everything', {}, [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16]],
    ['a limb', { limbs: ['K', 'H'] }, [4, 13, 16]],
    ['a level', { levels: ['accent'] }, [0, 10]],
    ['places of the cell', { places: [1, 5] }, [0, 4]],
    ['counts', { counts: ['2', '4'] }, [4, 12, 13]],
    ['a count of any bar', { counts: ['1'], bars: [2] }, [16]],
    ['firsts of doubles', { inRun: 1 }, [1, 6, 8, 10]],
    ['seconds of doubles', { inRun: 2 }, [2, 7, 9, 11]],
    ['every third slot', { every: { n: 3, offset: 0, of: 'slot' } }, [0, 3, 6, 9, 12, 13, 15]],
    ['every second left', { limbs: ['L'], every: { n: 2, offset: 1, of: 'stroke' } }, [2, 7, 11]],
    ['primary', { roles: ['primary'] }, [0, 4, 10, 13]],
    ['nothing', { voices: ['ride'] }, []],
  ])('%s', (_, facets, expected) => expect(select(p, chooses(facets))).toEqual(expected));

  it.each<[string, Selection, number[]]>([
    [
      'the last right of each beat',
      { is: 'order', of: { is: 'limb', limbs: ['R'] }, which: { last: 1 }, within: 'beat' },
      [3, 5, 9, 14],
    ],
    ['the first of every beat', { is: 'slots', which: { first: 1 }, within: 'beat' }, [0, 4, 8, 12, 13, 16]],
    ['the middle of every beat', { is: 'slots', which: { middle: true }, within: 'beat' }, [2, 6, 10, 14, 16]],
    ['all of beat 3', { is: 'beat', beats: [3] }, [8, 9, 10, 11]],
    ['the &s', { is: 'count', counts: ['*&'] }, [2, 6, 10, 14]],
    [
      'kicks with a right',
      { is: 'beside', of: { is: 'limb', limbs: ['K'] }, how: 'with', what: { is: 'limb', limbs: ['R'] } },
      [13],
    ],
    ['kicks alone', { is: 'alone', of: { is: 'limb', limbs: ['K'] } }, [4]],
    [
      'lefts just before a kick',
      { is: 'beside', of: { is: 'limb', limbs: ['L'] }, how: 'before', what: { is: 'limb', limbs: ['K'] } },
      [2, 11],
    ],
    [
      'rights but those on 2 and 4',
      { is: 'but', of: { is: 'limb', limbs: ['R'] }, not: { is: 'count', counts: ['1', '4'] } },
      [3, 5, 8, 9, 14],
    ],
    ['singles', { is: 'part', part: 'single' }, [0, 3, 5, 12, 14, 15]],
    ['from the & of 4 on', { is: 'stretch', edge: 'from', count: '4&' }, [14, 15]],
    [
      'up to 1e',
      {
        is: 'and',
        all: [
          { is: 'stretch', edge: 'to', count: '1e' },
          { is: 'bar', bars: [1] },
        ],
      },
      [0, 1],
    ],
  ])('%s', (_, selection, expected) => expect(select(p, selection)).toEqual(expected));

  it('an order counts as plain loops do', () => {
    fc.assert(
      fc.property(anyPattern, anySelection, fc.integer({ min: 1, max: 5 }), (q, of, n) => {
        const own = select(q, of);
        const moments = [...new Set(own.map((i) => q.strokes[i]!.at))];
        const on = (wanted: readonly number[]) => own.filter((i) => wanted.includes(q.strokes[i]!.at));
        const by = (which: Parameters<typeof select>[1] extends never ? never : object) =>
          select(q, { is: 'order', of, which, within: 'phrase' } as Selection);
        expect(by({ first: n })).toEqual(on(moments.slice(0, n)));
        expect(by({ last: n })).toEqual(on(moments.slice(-n)));
        expect(by({ nth: [n] })).toEqual(on(moments.slice(n - 1, n)));
        expect(by({ every: n, from: 1 })).toEqual(on(moments.filter((_, k) => k % n === 0)));
      }),
    );
  });

  it('and, or, but are those of sets', () => {
    fc.assert(
      fc.property(anyPattern, anySelection, anySelection, (q, a, b) => {
        const [one, two] = [select(q, a), select(q, b)];
        expect(select(q, { is: 'or', any: [a, b] })).toEqual([...new Set([...one, ...two])].sort((x, y) => x - y));
        // A landing that only the other names is named for both.
        const landed = q.groups.some((g) => g.kind === 'land');
        if (!landed) {
          expect(select(q, { is: 'and', all: [a, b] })).toEqual(one.filter((i) => two.includes(i)));
          expect(select(q, { is: 'but', of: a, not: b })).toEqual(one.filter((i) => !two.includes(i)));
        }
      }),
    );
  });
});

describe('a selection in words', () => {
  it('reads back to what chooses the same, on this phrase and on twenty like it', () => {
    fc.assert(
      fc.property(anySelection, anyPattern, fc.array(anyPattern, { minLength: 20, maxLength: 20 }), (s, on, others) => {
        const words = selectionWords(s, on);
        const read = readSelection(words, placing(on));
        if (!read) throw new Error(`not read: ${words}`);
        for (const q of [on, ...others]) expect([words, select(q, read)]).toEqual([words, select(q, s)]);
      }),
      { numRuns: 600 },
    );
  });
  it('never prints a tick, nor an ordinal above the fourth', () => {
    fc.assert(
      fc.property(anySelection, anyPattern, (s, on) => {
        const words = selectionWords(s, on);
        expect(words).not.toMatch(/\btick|\d(?:st|nd|rd|th)\b|fifth|sixth|seventh/);
        expect(words).not.toMatch(/ {2}|undefined|NaN/);
      }),
      { numRuns: 1000 },
    );
  });
  it.each<[string, Selection]>([
    ['right accents on 2 and 4', chooses({ limbs: ['R'], levels: ['accent'], counts: ['2', '4'] })],
    ['ghosts on the & of 2 and 4', chooses({ levels: ['ghost'], counts: ['2&', '4&'] })],
    [
      'all strokes on 1, every & and the e of 2',
      chooses({}).is === 'all' ? { is: 'count', counts: ['2e', '*&', '1'] } : chooses({}),
    ],
    ['rights except on 2', { is: 'but', of: { is: 'limb', limbs: ['R'] }, not: { is: 'count', counts: ['2'] } }],
    [
      'rights except accents',
      { is: 'but', of: { is: 'limb', limbs: ['R'] }, not: { is: 'height', levels: ['accent'] } },
    ],
    ['the last kick of each bar', { is: 'order', of: { is: 'limb', limbs: ['K'] }, which: { last: 1 }, within: 'bar' }],
    ['every third slot from the second', chooses({ every: { n: 3, offset: 1, of: 'slot' } })],
    [
      'rights on the snare in beats 1 and 2',
      {
        is: 'and',
        all: [
          { is: 'limb', limbs: ['R'] },
          { is: 'piece', voices: ['snare'] },
          { is: 'beat', beats: [1, 2] },
        ],
      },
    ],
    ['kicks alone', { is: 'alone', of: { is: 'limb', limbs: ['K'] } }],
    [
      'lefts just before kicks',
      { is: 'beside', of: { is: 'limb', limbs: ['L'] }, how: 'before', what: { is: 'limb', limbs: ['K'] } },
    ],
    ['the first 2 strokes', { is: 'order', of: { is: 'all' }, which: { first: 2 }, within: 'phrase' }],
  ])('%s', (words, s) => {
    expect(selectionWords(s)).toBe(words);
    expect(selectionWords(readSelection(words)!)).toBe(words);
  });
  it('places pressed by hand are listed by their counts', () => {
    const hand: Selection = { is: 'hand', at: [1260, 3780, 18900] };
    expect(selectionWords(hand, { ...p, length: ticks(16 * 1260) })).toBe('1e, 1a and 4a, by hand');
    expect(selectionWords(hand)).toBe('3 places chosen by hand');
  });
  it('any letters give a selection or null, never an exception', () => {
    const bits =
      'rights every third slot from the first of each beat on in bar ( ) , and except alone accents 2 4&'.split(' ');
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(fc.constantFrom(...bits), { maxLength: 9 }).map((b) => b.join(' ')),
        ),
        (text) => {
          const read = readSelection(text, placing(p));
          if (read) expect(select(p, read).every((i) => i < p.strokes.length)).toBe(true);
        },
      ),
      { numRuns: 2000 },
    );
  });
});

describe('strokes that were pressed', () => {
  it.each([
    ['all of them', filled.strokes.map((_, i) => i), 'all strokes'],
    ['every right', filled.strokes.flatMap((s, i) => (s.limb === 'R' ? [i] : [])), 'rights'],
    ['every kick', filled.strokes.flatMap((s, i) => (s.limb === 'K' ? [i] : [])), 'kicks'],
    [
      'the first of each',
      filled.strokes.flatMap((s, i) => (s.from.index === 0 ? [i] : [])),
      'the first of every group',
    ],
    ['the last kick', [filled.strokes.map((s) => s.limb).lastIndexOf('K')], 'the last kick'],
    ['nothing', [], 'no strokes'],
  ])('%s', (_, chosen, words) => {
    const found = describeStrokes(filled, chosen);
    expect(select(filled, found)).toEqual(chosen);
    expect(selectionWords(found, filled)).toBe(words);
  });
  it.each<[string, string, readonly number[], string]>([
    ['counts before ordinals', 'R l R l R l R l', [2, 6], 'all strokes on 1& and 2&'],
    ['all but one', 'R r R L r R R R', [0, 2, 5, 6, 7], 'right taps'],
    ['the others', 'R l R L R R R R', [0, 2, 5, 6, 7], 'rights except on 2'],
    ['no rule', 'R L R L R L R L R L R L R L R L', [0, 3, 5, 14], '1, 1a, 2e and 4&, by hand'],
  ])('%s', (_, text, chosen, words) => {
    const q = pattern(text);
    const found = describeStrokes(q, chosen);
    expect(select(q, found)).toEqual(chosen);
    expect(selectionWords(found, q).replace('the & of 1 and 2', '1& and 2&')).toBe(words);
  });
  it('chooses exactly what was pressed, in any phrase, in at most twelve words or by counts', () => {
    fc.assert(
      fc.property(anyPattern, fc.array(fc.nat(), { maxLength: 8 }), (q, picks) => {
        if (q.strokes.length === 0) return;
        const chosen = [...new Set(picks.map((n) => n % q.strokes.length))].sort((a, b) => a - b);
        const found = describeStrokes(q, chosen);
        expect(select(q, found)).toEqual(chosen);
        const words = selectionWords(found, q);
        expect(words.split(' ').length <= 12 || words.includes('by hand')).toBe(true);
      }),
      { numRuns: 250 },
    );
  });
});

describe('recipes of before', () => {
  it('plain restrictions choose what they chose', () => {
    fc.assert(
      fc.property(anyPattern, anyFacets, (q, facets) => {
        expect(select(q, chooses(facets))).toEqual(selectEarlier(q, facets));
      }),
      { numRuns: 2000 },
    );
  });
  it('and are plain restrictions again, where nothing more was said', () => {
    fc.assert(
      fc.property(anyPattern, anyFacets, (q, facets) => {
        const again = facetsOf(chooses(facets));
        if (again) expect(select(q, chooses(again))).toEqual(selectEarlier(q, facets));
        else expect(facets.every?.of).toBe('stroke');
      }),
    );
  });
  it('a row is put into today’s form wherever it holds moves, once', () => {
    const move = { id: 'a', on: true, move: 'drop', params: { select: { limbs: ['K'], counts: ['2:1'] } } };
    const join = { id: 'b', on: true, move: 'join', params: { other: { source: {}, moves: [move] } } };
    const row = { recipe: { moves: [move, join] }, past: [{ recipe: { moves: [move] } }], note: 'move' };
    const now = withSelections(row) as typeof row;
    expect(JSON.stringify(now).match(/"is":"limb"/g)).toHaveLength(3);
    expect(JSON.stringify(now)).not.toContain('2:1');
    expect(withSelections(now)).toBe(now);
    expect(withSelections({ select: { limbs: [] } })).toEqual({ select: { limbs: [] } });
    for (const odd of [null, 3, 'x', [1], { move: 'drop', params: { select: { limbs: 3 } } }])
      expect(withSelections(odd)).toEqual(odd);
  });
  it('an exception holds when the card before it is switched off', () => {
    const recipe = (accents: boolean): Recipe => ({
      source: { kind: 'typed', text: '(R l R l)x4', meter: '4/4', grid: 1260 },
      moves: [
        { id: 'a', on: accents, move: 'level', params: { select: chooses({ counts: ['2'] }), level: 'accent' } },
        {
          id: 'b',
          on: true,
          move: 'voice',
          params: {
            select: { is: 'but', of: { is: 'limb', limbs: ['R'] }, not: { is: 'count', counts: ['2'] } },
            voices: ['hat-closed'],
          },
        },
      ],
    });
    for (const on of [true, false]) {
      const rights = build(recipe(on)).pattern.strokes.filter((s) => s.limb === 'R');
      expect(rights.filter((s) => s.voice === 'snare').map((s) => s.at)).toEqual([5040]);
    }
  });
});
