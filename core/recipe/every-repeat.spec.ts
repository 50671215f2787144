import fc from 'fast-check';
import { GRID } from '../time';
import { isHand } from '../stroke';
import type { Pattern } from '../pattern';
import { build, inEveryRepeat, withEdits, type Edit, type MoveEntry, type Recipe } from '.';

const CELLS = ['R l l K', 'R L R R', 'R! l K L K', 'R L K', 'R+K l R L R! l'] as const;
const fill = (bars: number, mirrored: boolean): MoveEntry => ({
  id: 'f',
  on: true,
  move: 'fit',
  params: { space: { bars }, start: '1', mirrored, close: { kind: 'cut' } },
});
const recipe = (text: string, moves: Recipe['moves'], meter: string): Recipe => ({
  source: { kind: 'typed', text, meter, grid: GRID.sixteenths },
  moves,
});
const heard = (p: Pattern): string[] => p.strokes.map((s) => `${s.at} ${s.limb} ${s.voice} ${s.level}`).sort();

describe('a hand edit in every repeat', () => {
  it('is what the cell with that edit gives when it is filled: mirrored repeats by the other hand', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CELLS),
        fc.nat(20),
        fc.constantFrom('rest', 'accent', 'tom'),
        fc.integer({ min: 1, max: 4 }),
        fc.boolean(),
        fc.constantFrom('4/4', '3/4', '7/8', '6/8'),
        fc.nat(10),
        (text, pick, how, bars, mirrored, meter, where) => {
          const cell = build(recipe(text, [], meter));
          const slot = pick % (cell.pattern.length / GRID.sixteenths);
          const stroke = cell.pattern.strokes.find((s) => s.at === slot * GRID.sixteenths);
          if (!stroke || (how === 'tom' && !isHand(stroke.limb))) return;
          const to = (limb: Edit['limb'], at: number): Edit => ({
            at,
            limb,
            stroke:
              how === 'rest'
                ? null
                : {
                    level: how === 'accent' ? 'accent' : stroke.level,
                    voice: how === 'tom' ? 'high-tom' : stroke.voice,
                  },
          });
          // The long way: the cell changed first, then filled.
          const first = withEdits(cell, [to(stroke.limb, stroke.at)])!;
          const long = build({ ...first, moves: [...first.moves, fill(bars, mirrored)] }).pattern;
          // The short way: filled, then changed by hand in one of its repeats, and in all with it.
          const filled = build(recipe(text, [fill(bars, mirrored)], meter));
          const whole = filled.pattern.groups.filter((g) => g.kind === 'cell' && g.length === cell.pattern.length);
          if (whole.length < 2) return;
          const at = whole[where % whole.length]!;
          const turned = mirrored && at.repeat % 2 === 1;
          const limb = turned && isHand(stroke.limb) ? (stroke.limb === 'R' ? 'L' : 'R') : stroke.limb;
          const edits = inEveryRepeat(filled.pattern, [to(limb, at.at + stroke.at)]);
          const short = build(withEdits(filled, edits)!).pattern;
          expect(heard(short)).toEqual(heard(long));
        },
      ),
      { numRuns: 600 },
    );
  });

  it('leaves what is closed with, a landing, and other cells', () => {
    const closed = build(
      recipe(
        'R l l R K',
        [
          {
            id: 'f',
            on: true,
            move: 'fit',
            params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'strokes', text: 'L' } },
          },
          { id: 'l', on: true, move: 'land', params: { voice: 'crash-right', hand: 'R', kick: true } },
        ],
        '4/4',
      ),
    );
    const edits = inEveryRepeat(closed.pattern, [{ at: 0, limb: 'R', stroke: null }]);
    expect(edits.map((e) => e.at)).toEqual([0, 5 * 1260, 10 * 1260]);
    const last = [{ at: 15 * 1260, limb: 'L' as const, stroke: null }];
    expect(inEveryRepeat(closed.pattern, last)).toEqual(last);
  });
});
