import fc from 'fast-check';
import { anyMove, anyRecipe, anySource } from '../testing/arbitraries';
import { frozen } from '../testing/freeze';
import { parseCount, ticks, USUAL_SCHOOLS } from '../time';
import { compareStrokes, printStroke, type Voice } from '../stroke';
import { countingOf, MOST_BARS, MOST_STROKES, report, startsToEndOn, type Pattern } from '../pattern';
import { chooses } from '../selection';
import {
  applyMove,
  build,
  describeMove,
  MOVE_NAMES,
  MOVES,
  newMove,
  type MoveEntry,
  type MoveName,
  type MoveParams,
  type Recipe,
} from '.';

/** A recipe of typed strokes and moves written as [name, params]. */
type Written = { [N in MoveName]: readonly [N, MoveParams[N]] }[MoveName];
function recipe(text: string, moves: readonly Written[] = [], meter = '4/4', grid = 1260): Recipe {
  return {
    source: { kind: 'typed', text, meter, grid },
    moves: moves.map(([move, params], i) => ({ id: `m${i}`, on: true, move, params }) as MoveEntry),
  };
}

/** Slots of a pattern as stroke text, one word a slot; voices other than the usual stand in brackets. */
function drawn(p: Pattern): string {
  const slots = Array.from({ length: p.length / p.grid }, (_, i) => p.strokes.filter((s) => s.at === i * p.grid));
  return slots
    .map((slot) =>
      slot.length === 0
        ? '-'
        : slot
            .map((s) => `${printStroke(s)}${['snare', 'kick', 'hat-foot'].includes(s.voice) ? '' : `[${s.voice}]`}`)
            .join('+'),
    )
    .join(' ');
}
const built = (r: Recipe): Pattern => build(r).pattern;
const groups = (p: Pattern): string =>
  p.groups.map((g) => `${g.length / p.grid}${g.kind === 'close' ? 'c' : ''}`).join(' ');
const codes = (r: Recipe): string[] => build(r).trail.flatMap((s) => s.findings.map((f) => f.code));
const words = (p: Pattern, code: string): string | undefined =>
  report(p, 100, USUAL_SCHOOLS).find((f) => f.code === code)?.words;

const bars = (
  n: number,
  close: MoveParams['fit']['close'] = { kind: 'cut' },
  start = '1',
  mirrored = false,
): Written => ['fit', { space: { bars: n }, start, mirrored, close }];

describe('grid', () => {
  it('keeps the slots and changes their length', () => {
    const p = built(recipe('R l l K', [['grid', { grid: 840 }]]));
    expect(drawn(p)).toBe('R l l K');
    expect(p.length).toBe(4 * 840);
  });
  it('there and back is the same to the tick', () => {
    expect(
      built(
        recipe('R l l K', [
          ['grid', { grid: 1680 }],
          ['grid', { grid: 1260 }],
        ]),
      ),
    ).toEqual(built(recipe('R l l K')));
  });
  it('refuses what would leave whole ticks and passes the pattern on', () => {
    const b = build(recipe('R l', [bars(1, { kind: 'cut' }, '1+37'), ['grid', { grid: 1680 }]]));
    expect(b.trail.flatMap((s) => s.findings.map((f) => f.code))).toEqual(['fit', 'not-whole']);
    expect(b.pattern).toBe(b.trail[0]?.pattern);
  });
});

describe('insert', () => {
  it.each([
    [{ kind: 'end' }, 'R l l R K', '5'],
    [{ kind: 'after', slot: 1 }, 'R K l l R', '5'],
    [{ kind: 'every', slots: 2 }, 'R l K l R K', '6'],
    [{ kind: 'after', slot: 9 }, 'R l l R', '4'],
  ] as const)('%j', (where, text, lengths) => {
    const p = built(recipe('R l l R', [['insert', { text: 'K', where }]]));
    expect(drawn(p)).toBe(text);
    expect(groups(p)).toBe(lengths);
    expect(p.strokes.map((s) => s.from.index)).toEqual(p.strokes.map((s) => s.at / p.grid));
  });
  it('signs what it adds', () =>
    expect(
      built(recipe('R l', [['insert', { text: 'K', where: { kind: 'end' } }]])).strokes.map((s) => s.from.move),
    ).toEqual([null, null, 'm0']));
  it('a bad text is a finding that names the column', () => {
    const step = build(recipe('R l', [['insert', { text: 'Q', where: { kind: 'end' } }]])).trail[0]!;
    expect(step.findings[0]).toMatchObject({ code: 'bad-text', weight: 'stop' });
    expect(step.findings[0]?.words).toContain('Column 1');
  });
});

describe('fit', () => {
  it('28 = 5 × 5 + 3: two bars of 7/8, closed with three singles', () => {
    const p = built(recipe('R l l R K', [bars(2, { kind: 'strokes', text: 'R L R' })], '7/8'));
    expect(drawn(p)).toBe('R l l R K R l l R K R l l R K R l l R K R l l R K R L R');
    expect(groups(p)).toBe('5 5 5 5 5 3c');
    expect(words(p, 'fit')).toBe('28 = 5 × 5 + 3');
    expect(words(p, 'ends')).toBe('ends on the & of 7 in bar 2');
    expect(words(p, 'round')).toBe('back on the 1 with the right hand after 2 bars');
  });
  it.each([
    [{ kind: 'rest' }, 'R l l R K R l l R K R l l R K -'],
    [{ kind: 'cut' }, 'R l l R K R l l R K R l l R K R'],
    [{ kind: 'strokes', text: 'L R L' }, 'R l l R K R l l R K R l l R K L'],
  ] as const)('16 = 3 × 5 + 1 closed with %j', (close, text) =>
    expect(drawn(built(recipe('R l l R K', [bars(1, close)])))).toBe(text),
  );
  it('mirrored repeats swap the hands and leave the feet', () =>
    expect(drawn(built(recipe('R l l K', [bars(1, { kind: 'cut' }, '1', true)], '3/4')))).toBe(
      'R l l K L r r K R l l K',
    ));
  it('what is back on the 1 is what sounds there when it loops', () => {
    expect(words(built(recipe('R l l K', [bars(1, { kind: 'cut' }, '1', true)], '3/4')), 'round')).toBe(
      'back on the 1 with the right hand after 1 bar',
    );
    expect(words(built(recipe('K R L', [])), 'round')).toBe('back on the 1 with the kick after 3 bars');
    expect(words(built(recipe('- R L', [])), 'round')).toBe('back on the 1, with a rest there, after 3 bars');
    expect(words(built(recipe('R+K l l', [bars(1, { kind: 'cut' })])), 'round')).toBe(
      'back on the 1 with the right hand and the kick after 1 bar',
    );
  });
  it('a half-bar fill from 3 fills up to the bar line', () => {
    const p = built(recipe('R L R L', [bars(1, { kind: 'cut' }, '3')]));
    expect([p.start, p.length]).toEqual([10080, 10080]);
  });
  it('beats are counted beats: two of 6/8 are a whole bar', () => {
    expect(
      built(
        recipe('R L K', [['fit', { space: { beats: 2 }, start: '1', mirrored: false, close: { kind: 'cut' } }]], '6/8'),
      ).length,
    ).toBe(15120);
  });
  it.each(['5', 'x', '1:1:1', '-1'])('starts on no “%s” in 4/4', (start) =>
    expect(codes(recipe('R L', [bars(1, { kind: 'cut' }, start)]))).toEqual(['does-not-fit']),
  );
  it('groups of several sizes add up as they stand, and come round when the whole does', () => {
    const p = built(
      recipe('R l l K', [
        ['fit', { space: { beats: 3 }, start: '1', mirrored: false, close: { kind: 'groups', groups: [5, 4, 3] } }],
      ]),
    );
    expect(words(p, 'fit')).toBe('12 = 5 + 4 + 3');
    expect(words(p, 'round')).toBe('back on the 1 with the right hand after 3 bars');
  });
  it('a phrase joined of cells of several sizes says each of them', () => {
    const eights = {
      source: { kind: 'typed' as const, text: 'R L R R L R L L', meter: '4/4', grid: 1260 },
      moves: [
        {
          id: 'm',
          on: true,
          move: 'fit' as const,
          params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' as const } },
        },
      ],
    };
    const p = built(
      recipe('R L R L', [
        bars(2),
        ['join', { name: 'mixed', other: eights }],
        ['join', { name: 'mixed', other: eights }],
      ]),
    );
    expect(words(p, 'fit')).toBe('64 = 8 × 4 + 4 × 8');
  });
  it('a cell longer than the space is said, not thrown away', () => {
    const r = recipe('R L R L R L', [
      ['fit', { space: { beats: 1 }, start: '1', mirrored: false, close: { kind: 'rest' } }],
    ]);
    expect(build(r).trail[0]?.findings[0]?.words).toBe(
      'The cell of 6 slots is longer than the space of 4. Cut it, or give it more room.',
    );
    expect(drawn(built(r))).toBe('R L R L R L');
  });
  it('closing strokes that have no room are counted', () =>
    expect(codes(recipe('R l l R K', [bars(1, { kind: 'strokes', text: 'L R L' })]))).toEqual(['fit', 'cut']));
});

describe('level and voice', () => {
  it('accents the first of every group', () =>
    expect(
      drawn(built(recipe('R l K', [bars(1), ['level', { select: chooses({ places: [1] }), level: 'accent' }]], '3/4'))),
    ).toBe('R! l K R! l K R! l K R! l K'));
  it('voices are taken in turn', () => {
    expect(
      drawn(
        built(recipe('R L R L', [['voice', { select: chooses({}), voices: ['high-tom', 'mid-tom', 'floor-tom'] }]])),
      ),
    ).toBe('R[high-tom] L[mid-tom] R[floor-tom] L[high-tom]');
  });
  it('puts a kick under accents on the crash, and says where the foot was busy', () => {
    const r = recipe('R!+K l R! l', [
      ['voice', { select: chooses({ levels: ['accent'] }), voices: ['crash-right'], under: 'K' }],
    ]);
    expect(drawn(built(r))).toBe('R![crash-right]+K l R![crash-right]+K! l');
    expect(build(r).trail[0]?.findings[0]?.words).toBe('The foot already plays there: 1.');
  });
  it('no foot is sent to a tom', () => {
    expect(codes(recipe('K K', [['voice', { select: chooses({}), voices: ['high-tom'] }]]))).toEqual(['bad-voice']);
    expect(drawn(built(recipe('R K', [['voice', { select: chooses({}), voices: ['high-tom'] }]])))).toBe(
      'R[high-tom] K',
    );
  });
  it('a selector that chooses nothing says so', () =>
    expect(codes(recipe('R R', [['level', { select: chooses({ limbs: ['L'] }), level: 'ghost' }]]))).toEqual([
      'nothing-chosen',
    ]));
});

describe('shift', () => {
  it('wraps', () => expect(drawn(built(recipe('R L K -', [['shift', { slots: 1, mode: 'wrap' }]])))).toBe('- R L K'));
  it('pushes, and counts what fell off', () => {
    const r = recipe('R L K H', [['shift', { slots: 2, mode: 'push' }]]);
    expect(drawn(built(r))).toBe('- - R L');
    expect(build(r).trail[0]?.findings[0]?.words).toBe('2 strokes fell off the end.');
  });
  it('+5 then −5 with wrap is the same to the tick', () => {
    const r = recipe('R l l R K', [bars(2)], '7/8');
    const there = built({
      ...r,
      moves: [
        ...r.moves,
        { id: 'a', on: true, move: 'shift', params: { slots: 5, mode: 'wrap' } },
        { id: 'b', on: true, move: 'shift', params: { slots: -5, mode: 'wrap' } },
      ],
    });
    expect(there.strokes).toEqual(built(r).strokes);
  });
});

describe('ends where, backwards', () => {
  const start = (meter: string, on: string): number[] => {
    const p = built(recipe('R L R L R L R L R', [], meter));
    const counting = countingOf(p, USUAL_SCHOOLS);
    return startsToEndOn(p, parseCount(on, counting)!, 1).map((t) => t);
  };
  it('nine 16ths ending on the & of 4 start on the & of 2 in 4/4', () =>
    expect(start('4/4', '4&')).toEqual([6 * 1260]));
  it('in 7/8, ending on the & of 7, they start on the & of 3', () => expect(start('7/8', '7&')).toEqual([5 * 1260]));
  it('what does not fit into the bars has no start', () => expect(start('4/4', '1&')).toEqual([]));
});

describe('checks', () => {
  it('a linear phrase is called so; a unison is named by its count', () => {
    expect(words(built(recipe('R L K')), 'linear')).toBe('Linear: one limb at a time.');
    expect(words(built(recipe('R+K L R L')), 'unison')).toBe('1 unison: 1.');
  });
  it('a unison under a cymbal that keeps time, or of crash and kick, is no fault', () => {
    const weight = (voice: Voice): string | undefined =>
      report(
        built(recipe('R+K L R+L L', [['voice', { select: chooses({ limbs: ['R'] }), voices: [voice] }]])),
        100,
        USUAL_SCHOOLS,
      ).find((f) => f.code === 'unison')?.weight;
    expect(weight('hat-closed')).toBe('note');
    expect(weight('high-tom')).toBe('check');
    // The crash has the kick under it on the 1; on the & it falls on the left hand.
    expect(weight('crash-right')).toBe('check');
  });
  it('counts strokes by limb and notes per second', () => {
    const p = built(recipe('R L L K', [bars(1)]));
    expect(words(p, 'balance')).toBe('right hand 4, left hand 8 and kick foot 4. Longest run on one limb: 2.');
    expect(words(p, 'density')).toBe('6.7 notes per second; right hand 1.7, left hand 3.3 and kick foot 1.7.');
  });
  it('a tempo in 6/8 counts dotted quarters', () =>
    expect(words(built(recipe('R L R L R L', [], '6/8', 2520)), 'density')).toContain('5.0 notes per second'));
});

describe('build', () => {
  it('an empty recipe is its source', () => expect(drawn(built(recipe('R! l l K')))).toBe('R! l l K'));
  it('a move switched off changes nothing', () => {
    const r = recipe('R L', [['insert', { text: 'K', where: { kind: 'end' } }]]);
    expect(built({ ...r, moves: r.moves.map((m) => ({ ...m, on: false })) }).strokes).toEqual(
      built(recipe('R L')).strokes,
    );
  });
  it('computes again only from the changed move on', () => {
    const r = recipe('R L', [
      ['insert', { text: 'K', where: { kind: 'end' } }],
      bars(1),
      ['shift', { slots: 1, mode: 'wrap' }],
    ]);
    const before = build(r);
    const after = build(
      {
        ...r,
        moves: r.moves.map((m) => (m.move === 'shift' ? { ...m, params: { slots: 2, mode: 'wrap' as const } } : m)),
      },
      before,
    );
    expect(after.trail[1]).toBe(before.trail[1]);
    expect(after.trail[2]).not.toBe(before.trail[2]);
    expect(build({ ...r, moves: r.moves.slice(1) }, before).trail[0]).not.toBe(before.trail[1]);
  });
  it.each([
    [{ kind: 'rudiment', id: 'none', meter: '4/4', grid: 1260 }, 'no-source'],
    [{ kind: 'typed', text: 'Q', meter: '4/4', grid: 1260 }, 'bad-text'],
    [{ kind: 'typed', text: 'R', meter: '4/5', grid: 1260 }, 'no-source'],
  ] as const)('a source that cannot be read is a finding: %j', (source, code) => {
    const b = build({ source, moves: [] });
    expect(b.source.findings[0]?.code).toBe(code);
    expect(b.pattern.strokes).toEqual([]);
  });

  it('any recipe builds: no exception, whole ticks, in order, one stroke to a limb and tick, inside its length, input untouched, as if built from nothing', () => {
    let last = build(recipe('R'));
    fc.assert(
      fc.property(anyRecipe, (r) => {
        const b = build(frozen(r));
        for (const p of [b.source.pattern, ...b.trail.map((s) => s.pattern)]) {
          expect(p.strokes.every((s) => Number.isInteger(s.at) && s.at >= 0 && s.at < p.length)).toBe(true);
          expect([...p.strokes].sort(compareStrokes)).toEqual(p.strokes);
          expect(new Set(p.strokes.map((s) => `${s.at}${s.limb}`)).size).toBe(p.strokes.length);
          expect(p.strokes.every((s) => s.from.move === null || r.moves.some((m) => m.id === s.from.move))).toBe(true);
          expect(p.strokes.length).toBeLessThanOrEqual(MOST_STROKES);
          expect(p.groups.every((g) => g.length > 0 && g.at >= 0 && g.at + g.length <= p.length)).toBe(true);
          expect(p.start + p.length).toBeLessThanOrEqual(MOST_BARS * 32 * 10080);
        }
        expect(b.trail.every((s) => s.sentence.length > 4 && s.findings.every((f) => f.words.length > 4))).toBe(true);
        report(b.pattern, 100, USUAL_SCHOOLS);
        // What an earlier build leaves behind never shows.
        expect(build(r, last).pattern).toEqual(b.pattern);
        last = b;
      }),
      { numRuns: 500 },
    );
  });

  it('a foot that a move does not know stays on its pedal', () => {
    fc.assert(
      fc.property(anySource, anyMove, (source, move) => {
        const before = build({ source, moves: [] }).pattern;
        const after = applyMove(frozen(before), frozen(move), (other) => build(other as Recipe).pattern).pattern;
        expect(
          after.strokes.every((s) =>
            s.limb === 'R' || s.limb === 'L' ? true : ['kick', 'hat-foot'].includes(s.voice),
          ),
        ).toBe(true);
      }),
    );
  });
});

describe('every move', () => {
  const plain = built(recipe('R l l R', [], '7/8'));
  const together = built(recipe('R+K l l R', [], '7/8'));
  it.each(MOVE_NAMES)('%s: a fresh one has a title, a sentence, and does something without a complaint', (name) => {
    // What is one limb at a time cannot be made so, and what is the same from both ends is the same backwards.
    const p = name === 'linear' || name === 'reverse' ? together : plain;
    const entry = newMove(name, 'x', p);
    expect(MOVES[name].title).toMatch(/\w/);
    expect(describeMove(entry)).toMatch(/^[A-Z].*\w/);
    const outcome = applyMove(p, entry, (other) => build(other as Recipe).pattern);
    expect(outcome.findings.filter((f) => f.weight === 'stop')).toEqual([]);
    expect(outcome.pattern).not.toEqual(p);
  });
  it('ticks are branded whole numbers', () => expect(() => ticks(0.5)).toThrow(RangeError));
});
