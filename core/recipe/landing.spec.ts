import fc from 'fast-check';
import { chooses } from '../selection';
import { anyMoveOf, anyNodes } from '../testing/arbitraries';
import { barTicks, countAt, GRID, USUAL_SCHOOLS } from '../time';
import { printStrokeText } from '../stroke';
import { countingOf, type Pattern } from '../pattern';
import { build, MOVE_NAMES, type MoveEntry, type MoveName, type Recipe } from '.';

const LAND: MoveEntry = {
  id: 'land',
  on: true,
  move: 'land',
  params: { voice: 'crash-right', hand: 'R', kick: true },
};
const arrival = (p: Pattern): string[] =>
  p.strokes.filter((s) => s.from.move === 'land').map((s) => `${s.limb} ${s.voice} ${s.level} ${s.ornament ?? ''}`);

/** Whether a move names strokes of the landing: by its bar, its place, its repeat. */
const names = ({ params }: MoveEntry): boolean => {
  const who = 'select' in params ? (params.select as Record<string, unknown>) : {};
  return 'ticks' in who || 'bars' in who || 'repeats' in who;
};
/** Moves with another business: they add to the end, or are made by hand where the player points. */
const OTHERS: readonly MoveName[] = ['join', 'touch', 'land'];

describe('a landing', () => {
  it('stays the arrival it is, on the next bar line, whatever is done to the phrase after it', () => {
    let seen = 0;
    fc.assert(
      fc.property(
        anyNodes,
        fc.constantFrom('4/4', '6/8', '7/8', '3/4'),
        fc.constantFrom(...MOVE_NAMES.filter((n) => !OTHERS.includes(n))).chain((name) => anyMoveOf(name)),
        (nodes, meter, move) => {
          if (names(move)) return;
          const recipe: Recipe = {
            source: { kind: 'typed', text: printStrokeText(nodes), meter, grid: GRID.sixteenths },
            moves: [LAND, { ...move, id: 'after', on: true }],
          };
          const before = build({ ...recipe, moves: [LAND] }).pattern;
          const { pattern } = build(recipe);
          if (before.strokes.length === 0 || arrival(before).length === 0) return;
          seen++;
          expect(arrival(pattern)).toEqual(arrival(before));
          const bar = barTicks(pattern.meter);
          for (const s of pattern.strokes) if (s.from.move === 'land') expect((pattern.start + s.at) % bar).toBe(0);
          // It is the last: what the move made of the phrase lies before it.
          const last = pattern.groups.at(-1)!;
          expect(last.kind).toBe('land');
          expect(pattern.strokes.filter((s) => s.at >= last.at && s.from.move !== 'land')).toEqual([]);
        },
      ),
      { numRuns: 1500 },
    );
    expect(seen).toBeGreaterThan(500);
  });

  it('is changed where it is chosen: by its bar', () => {
    const recipe: Recipe = {
      source: { kind: 'typed', text: '(R L)x8', meter: '4/4', grid: GRID.sixteenths },
      moves: [
        LAND,
        {
          id: 'v',
          on: true,
          move: 'voice',
          params: { select: chooses({ bars: [2], limbs: ['R'] }), voices: ['ride'] },
        },
      ],
    };
    expect(arrival(build(recipe).pattern)).toEqual(['R ride accent ', 'K kick accent ']);
  });
});

describe('starting on a count', () => {
  it('puts the first stroke there, counted from the phrase’s own bar, and leaves the strokes and the length', () => {
    fc.assert(
      fc.property(anyNodes, fc.constantFrom('4/4', '6/8', '7/8', '3/4'), fc.nat(200), (nodes, meter, pick) => {
        const source = { kind: 'typed', text: printStrokeText(nodes), meter, grid: GRID.sixteenths } as const;
        const plain = build({ source, moves: [] }).pattern;
        if (plain.strokes.length === 0) return;
        const bar = barTicks(plain.meter);
        const long = Math.max(1, Math.floor(plain.length / bar));
        const tick = ((pick * GRID.sixteenths) % (long * bar)) as Pattern['start'];
        const count = countAt(tick, countingOf(plain, USUAL_SCHOOLS));
        const start = `${count.bar}:${count.text}`;
        const { pattern, trail } = build({
          source,
          moves: [{ id: 's', on: true, move: 'shift', params: { slots: 0, mode: 'wrap', start } }],
        });
        if (trail[0]!.findings.some((f) => f.weight === 'stop')) return;
        expect(pattern.length).toBe(plain.length);
        expect(pattern.strokes).toHaveLength(plain.strokes.length);
        // The stroke that came first before is where it was wanted.
        const first = plain.strokes[0]!;
        const there = pattern.strokes.filter(
          (s) => s.limb === first.limb && s.from.index === first.from.index && s.from.repeat === first.from.repeat,
        );
        const at = (s: { at: number }): number => pattern.start + s.at;
        const wanted = plain.length < bar ? tick % bar : tick;
        expect(there.some((s) => (at(s) - wanted) % (plain.length < bar ? bar : plain.length) === 0)).toBe(true);
      }),
      { numRuns: 600 },
    );
  });
  it.each([
    ['R l l K', '3', 'half a bar and less begins there', 10080],
    ['(R L)x4', '3', 'half a bar', 10080],
    ['- - R L', '3', 'the first stroke, not the first slot', 7560],
  ])('%s on %s: %s', (text, start, _, from) => {
    const { pattern } = build({
      source: { kind: 'typed', text, meter: '4/4', grid: GRID.sixteenths },
      moves: [{ id: 's', on: true, move: 'shift', params: { slots: 0, mode: 'wrap', start } }],
    });
    expect(pattern.start).toBe(from);
  });
});
