import fc from 'fast-check';
import { chooses } from '../selection';
import { anyMoveOf, anySource } from '../testing/arbitraries';
import { frozen } from '../testing/freeze';
import { parseCount, USUAL_SCHOOLS } from '../time';
import { compareStrokes, strokeTypes } from '../stroke';
import {
  countingOf,
  differenceWords,
  finestSlot,
  report,
  rolesOf,
  slotsLong,
  unisons,
  voicedText,
  type Pattern,
} from '../pattern';
import {
  build,
  exampleRecipe,
  MOVE_EXAMPLES,
  MOVE_NAMES,
  MOVES,
  type MoveEntry,
  type MoveName,
  type MoveParams,
  type Recipe,
} from '.';

type Written = { [N in MoveName]: readonly [N, MoveParams[N]] }[MoveName];
function recipe(text: string, moves: readonly Written[] = [], meter = '4/4', grid = 1260): Recipe {
  return {
    source: { kind: 'typed', text, meter, grid },
    moves: moves.map(([move, params], i) => ({ id: `m${i}`, on: true, move, params }) as MoveEntry),
  };
}
const built = (text: string, moves: readonly Written[] = [], meter = '4/4', grid = 1260): Pattern =>
  build(recipe(text, moves, meter, grid)).pattern;
const words = (p: Pattern, code: string): string | undefined =>
  report(p, 100, USUAL_SCHOOLS).find((f) => f.code === code)?.words;
const cut = (n: number): Written => [
  'fit',
  { space: { bars: n }, start: '1', mirrored: false, close: { kind: 'cut' } },
];

describe('the examples of docs/moves.md', () => {
  it.each(MOVE_EXAMPLES.map((e) => [`${e.move}: ${e.before} → ${e.after}`, e] as const))('%s', (_, e) => {
    const b = build(exampleRecipe(e));
    expect(b.trail.flatMap((s) => s.findings.filter((f) => f.weight === 'stop'))).toEqual([]);
    const text = voicedText(b.pattern);
    expect(text?.text).toBe(e.after);
    if (e.on) expect(text?.on).toBe(e.on);
  });
  it('show every move', () => expect(MOVE_NAMES.filter((n) => !MOVE_EXAMPLES.some((e) => e.move === n))).toEqual([]));
});

describe.each(MOVE_NAMES)('%s with anything', (name) => {
  it('keeps whole ticks, order, one stroke to a limb and tick, known origins; leaves its input alone; says what it does', () => {
    fc.assert(
      fc.property(anySource, anyMoveOf(name), (source, move) => {
        const b = build(frozen({ source, moves: [move] }));
        const { pattern, sentence, findings } = b.trail[0]!;
        expect(sentence.length).toBeGreaterThan(4);
        expect(findings.every((f) => f.words.length > 4)).toBe(true);
        expect(pattern.strokes.every((s) => Number.isInteger(s.at) && s.at >= 0 && s.at < pattern.length)).toBe(true);
        expect([...pattern.strokes].sort(compareStrokes)).toEqual(pattern.strokes);
        expect(new Set(pattern.strokes.map((s) => `${s.at}${s.limb}`)).size).toBe(pattern.strokes.length);
        expect(pattern.strokes.every((s) => s.from.move === null || s.from.move === move.id)).toBe(true);
        if (['drop', 'swap', 'level', 'ornament', 'voice', 'route', 'mirror', 'shift', 'layer', 'touch'].includes(name))
          expect(pattern.length).toBe(b.source.pattern.length);
        if (['level', 'ornament', 'route', 'mirror'].includes(name))
          expect(pattern.strokes.map((s) => s.at)).toEqual(b.source.pattern.strokes.map((s) => s.at));
      }),
      { numRuns: 120 },
    );
  });
});

describe('there and back', () => {
  const start = built('R! l fR K+H r', [cut(2)], '7/8');
  const after = (...moves: Written[]): Pattern => built('R! l fR K+H r', [cut(2), ...moves], '7/8');
  it.each<[string, Written[]]>([
    [
      'mirror twice',
      [
        ['mirror', { feet: true }],
        ['mirror', { feet: true }],
      ],
    ],
    [
      'shift +5, −5',
      [
        ['shift', { slots: 5, mode: 'wrap' }],
        ['shift', { slots: -5, mode: 'wrap' }],
      ],
    ],
    [
      'rate ×2, ×½',
      [
        ['rate', { times: 2, by: 1 }],
        ['rate', { times: 1, by: 2 }],
      ],
    ],
    [
      'grid to triplets and back',
      [
        ['grid', { grid: 1680 }],
        ['grid', { grid: 1260 }],
      ],
    ],
  ])('%s is the same pattern to the tick', (_, moves) => {
    const p = after(...moves);
    expect([p.strokes, p.length, p.grid]).toEqual([start.strokes, start.length, start.grid]);
  });
});

describe('the same idea on other grids', () => {
  it.each([
    [1260, 3],
    [840, 2],
    [630, 1.5],
  ])('twelve slots of %d ticks take %d beats', (grid, beats) => {
    const p = built('(R l l K)x3', [['grid', { grid }]]);
    expect(p.length / 5040).toBe(beats);
  });
  it('a burst of 32nds inside 16ths keeps its counts', () => {
    const p = built('R L R L R L R L', [['insert', { text: 'R L', grid: 630, where: { kind: 'after', slot: 2 } }]]);
    expect(finestSlot(p)).toBe(630);
    expect(words(p, 'ends')).toBe('ends on beat 3');
    expect(p.strokes.map((s) => s.at)).toEqual([0, 1260, 2520, 3150, 3780, 5040, 6300, 7560, 8820, 10080]);
  });
  it('a cell lies across two grids', () => {
    const p = built('R L R L R L', [['grid', { grid: 840, part: { from: 4, to: 6 } }]]);
    expect(p.strokes.map((s) => s.at)).toEqual([0, 1260, 2520, 3780, 4620, 5460]);
    expect(p.length).toBe(6300);
  });
});

describe('layers', () => {
  it('hi-hat foot quarters stay linear only where nothing else is, and it says where not', () => {
    const b = build(
      recipe('R l - K - l R l', [
        cut(2),
        ['layer', { limb: 'H', voice: 'hat-foot', level: 'tap', on: { kind: 'grid', grid: 5040 }, clash: 'keep' }],
      ]),
    );
    expect(b.trail[1]?.findings[0]?.words).toBe('Together with the hi-hat foot: bar 1: 1 and 3; bar 2: 1 and 3.');
    expect(unisons(b.pattern)).toEqual([0, 10080, 20160, 30240]);
  });
  it('a backbeat takes the hand that is free, or the next slot', () => {
    const p = built('R L R L R L R L', [
      [
        'layer',
        { limb: 'L', voice: 'snare', level: 'accent', on: { kind: 'counts', counts: ['1e', '2'] }, clash: 'move' },
      ],
    ]);
    expect(voicedText(p)?.text).toBe('R R+L! R L L! R+L R L');
  });
  it('a fill from 3 under feet from the bar line on', () => {
    const p = built('R L R L', [
      ['fit', { space: { bars: 1 }, start: '2&', mirrored: false, close: { kind: 'cut' } }],
      ['layer', { limb: 'H', voice: 'hat-foot', level: 'tap', on: { kind: 'grid', grid: 5040 }, clash: 'keep' }],
    ]);
    expect(p.strokes.filter((s) => s.limb === 'H').map((s) => p.start + s.at)).toEqual([10080, 15120]);
  });
});

describe('land and join', () => {
  it('the bar it lands in is no part of the sum, and it lands there', () => {
    const land = ['land', { voice: 'crash-right', hand: 'R', kick: true }] as const;
    const fit = ['fit', { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' } }] as const;
    expect(words(built('R L R L R L', [fit, land]), 'fit')).toBe('16 = 2 × 6 + 4');
    expect(words(built('R L R L R L', [fit, land]), 'ends')).toBe('lands on the 1');
    expect(words(built('R L R L R L', [fit]), 'ends')).toBe('ends on the a of 4');
    expect(words(built('R L R L R L', [land]), 'fit')).toBe('16 = 6 + 10');
  });
  it('a half-bar fill from 3 lands on the next 1', () => {
    const p = built('R L R L', [
      ['fit', { space: { bars: 1 }, start: '3', mirrored: false, close: { kind: 'cut' } }],
      ['land', { voice: 'crash-right', hand: 'R', kick: true }],
    ]);
    expect(words(p, 'ends')).toBe('lands on the 1');
    expect((p.start + p.length) % 20160).toBe(0);
  });
  it('bars of one, then bars of another; another meter is refused', () => {
    const other = { source: { kind: 'typed' as const, text: '(K R L R)x8', meter: '4/4', grid: 1260 }, moves: [] };
    const p = built('(R L)x8', [['join', { other, name: 'x', their: { from: 2, bars: 1 } }]]);
    expect(p.length).toBe(2 * 20160);
    expect(p.strokes.filter((s) => s.limb === 'K').map((s) => s.at)).toEqual([20160, 25200, 30240, 35280]);
    const refused = build(recipe('R L', [['join', { other, name: 'x' }]], '7/8'));
    expect(refused.trail[0]?.findings[0]?.words).toBe('“x” is in 4/4, this in 7/8: their bars do not join.');
  });
});

describe('bounds', () => {
  const one = { source: { kind: 'typed' as const, text: 'R', meter: '4/4', grid: 1260 }, moves: [] };
  it('at most eight phrases are joined; the rest say so and pass', () => {
    const many = Array.from({ length: 10 }, (): Written => ['join', { other: one, name: 'x' }]);
    const b = build(recipe('R', many));
    expect(b.trail.map((s) => s.findings.length)).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 1, 1]);
    expect(b.trail.at(-1)?.findings[0]?.words).toBe('A recipe joins at most 8 other phrases.');
    expect(b.pattern.length).toBe(9 * 20160);
    // One switched off makes room for another.
    const off = {
      ...recipe('R', many),
      moves: recipe('R', many).moves.map((m, i) => (i === 0 ? { ...m, on: false } : m)),
    };
    expect(build(off, b).trail.map((s) => s.findings.length)).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 0, 1]);
  });
  it('64 bars and 20,000 strokes are the end, in words', () => {
    const long = build(recipe('R', [cut(64), ['rate', { times: 2, by: 1 }]]));
    expect(long.trail[1]?.findings[0]?.words).toBe('A phrase is at most 64 bars long.');
    const dense = build(
      recipe('(R+L+K+J+H)x99', [['insert', { text: '(R+L+K+J+H)x99', where: { kind: 'every', slots: 1 } }]]),
    );
    expect(dense.trail[0]?.findings[0]?.words).toContain('more than 20000 strokes');
    expect(dense.pattern).toBe(dense.source.pattern);
  });
});

describe('the sums, widened', () => {
  it('accents every 5 slots are 4 against 5, round after 5 bars', () => {
    const p = built('R l l R K', [cut(5), ['level', { select: chooses({ places: [1] }), level: 'accent' }]]);
    expect(words(p, 'cross')).toBe('accents every 5 sixteenths: 4 in 5 beats, back on the 1 after 5 bars');
  });
  it('a paradiddle leads with both hands; R L R brings two rights together', () => {
    expect(words(built('R! L R R L! R L L'), 'lead')).toBe(
      'The lead changes hands: the second half is the first with hands swapped.',
    );
    expect(words(built('R L R'), 'lead')).toBe('When it loops, the right hand plays two in a row.');
    expect(words(built('R L R R'), 'lead')).toBe('When it loops, the right hand plays three in a row.');
    for (const none of ['R L R K', 'R L R -', 'R R R']) expect(words(built(none), 'lead')).toBe(undefined);
    expect(words(built('R L K L+K', []), 'lead')).toBe(undefined);
  });
  it('hands R! r r L! l l: down, tap, up', () => {
    const p = built('R! r r L! l l');
    for (const limb of ['R', 'L'])
      expect(strokeTypes(p.strokes.filter((s) => s.limb === limb).map((s) => s.level))).toEqual(['down', 'tap', 'up']);
  });
  it('says how two patterns differ, by slot', () => {
    const a = built('R L R L', [cut(2)]);
    const b = built('R L R L', [
      cut(2),
      ['voice', { select: chooses({ limbs: ['R'], counts: ['3', '3&', '4'], bars: [2] }), voices: ['high-tom'] }],
      ['swap', { select: chooses({ counts: ['4&'], bars: [2] }), limb: 'K' }],
    ]);
    expect(differenceWords(a, b, USUAL_SCHOOLS)).toBe('3 pieces and 1 limb: bar 2: 3, 3&, 4 and 4&.');
    expect(differenceWords(a, a, USUAL_SCHOOLS)).toBe('The same.');
  });
  it('kicks and accents carry, hats keep time, ghosts fill', () => {
    const p = built('R+K l R! l', [
      ['voice', { select: chooses({ levels: ['tap'], limbs: ['R'] }), voices: ['hat-closed'] }],
    ]);
    expect(rolesOf(p)).toEqual(['timekeeping', 'primary', 'texture', 'primary', 'texture']);
  });
  it('half-time and double-time count the same ticks against another beat', () => {
    const counting = countingOf(built('R'), USUAL_SCHOOLS);
    expect(parseCount('2', { ...counting, pace: 'half' })).toBe(10080);
    expect(parseCount('4', { ...counting, pace: 'double' })).toBe(3 * 2520);
  });
  it('two bars condensed are one', () =>
    expect(slotsLong(built('(R L)x16', [['rate', { times: 1, by: 2 }]])) * 630).toBe(20160));
});

describe('fit in groups', () => {
  it('says when they do not add up', () => {
    const b = build(
      recipe('R l l K', [
        ['fit', { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'groups', groups: [5, 5, 5] } }],
      ]),
    );
    expect(b.trail[0]?.findings[0]?.words).toBe('5 + 5 + 5 is 15, and there are 16 slots to fill.');
  });
});

it('every move has its place in the menu, once', () => {
  expect(new Set(MOVE_NAMES).size).toBe(MOVE_NAMES.length);
  expect([...MOVE_NAMES].sort()).toEqual(Object.keys(MOVES).sort());
});
