import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { countRef } from '../pattern';
import { build, describeMove, type Edit, type MoveEntry } from '.';

const text = 'R! l fR L R+K L R L';
const pattern = build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] }).pattern;
const said = (edits: Edit[]): string => describeMove({ id: 't', on: true, move: 'touch', params: { edits } }, pattern);
const at = (slot: number): number => slot * 1260;

describe('what was changed by hand, in words', () => {
  it.each<[string, Edit[]]>([
    ['1e left out', [{ at: at(1), limb: 'L', stroke: null }]],
    [
      '1& to the kick; 1a left out',
      [
        { at: at(2), limb: 'R', stroke: null },
        { at: at(2), limb: 'K', stroke: { level: 'tap', voice: 'kick' } },
        { at: at(3), limb: 'L', stroke: null },
      ],
    ],
    ['1e and 1a accented', [1, 3].map((n) => ({ at: at(n), limb: 'L', stroke: { level: 'accent' }, only: 'level' }))],
    ['Right on 2 to the high tom', [{ at: at(4), limb: 'R', stroke: { level: 'tap', voice: 'high-tom' } }]],
    [
      '1 played as taps; 1& without the flam',
      [
        { at: at(0), limb: 'R', stroke: { level: 'tap', voice: 'snare' } },
        { at: at(2), limb: 'R', stroke: { level: 'tap', voice: 'snare' } },
      ],
    ],
    ['A kick on 1 and 2&', [0, 6].map((n) => ({ at: at(n), limb: 'K', stroke: { level: 'tap', voice: 'kick' } }))],
    ['A loud right on the ride on 2e', [{ at: at(5), limb: 'R', stroke: { level: 'accent', voice: 'ride' } }]],
    ['By hand: nothing changes here', [{ at: at(1), limb: 'L', stroke: { level: 'ghost', voice: 'snare' } }]],
    [
      '2e to the right hand',
      [
        { at: at(5), limb: 'L', stroke: null },
        { at: at(5), limb: 'R', stroke: { level: 'tap', voice: 'snare' } },
      ],
    ],
  ])('%s', (words, edits) => expect(said(edits)).toBe(words));

  it('without the phrase only kinds of change are named', () => {
    const edits: Edit[] = [
      { at: 0, limb: 'R', stroke: null },
      { at: 0, limb: 'K', stroke: { level: 'tap' } },
      { at: 1260, limb: 'L', stroke: { level: 'accent' }, only: 'level' },
    ];
    expect(describeMove({ id: 't', on: true, move: 'touch', params: { edits } })).toBe(
      'By hand: strokes left out, kick and strokes accented',
    );
  });

  it('names every place that sounds otherwise afterwards, up to six of a kind, and no other', () => {
    const edit = fc.record({ slot: fc.nat({ max: 7 }), limb: fc.constantFrom('R', 'L', 'K'), gone: fc.boolean() });
    fc.assert(
      fc.property(
        anyRecipe,
        fc.uniqueArray(edit, { maxLength: 4, selector: (e) => `${e.slot}${e.limb}` }),
        (recipe, some) => {
          const before = build({ ...recipe, moves: recipe.moves.slice(0, 2) });
          const { pattern: p } = before;
          const edits: Edit[] = some
            .filter((e) => e.slot * p.grid < p.length)
            .map((e): Edit => ({
              at: e.slot * p.grid,
              limb: e.limb,
              stroke: e.gone ? null : { level: 'ghost' },
            }));
          const move = { id: 'by-hand', on: true, move: 'touch', params: { edits } } as MoveEntry;
          const built = build({ ...before.recipe, moves: [...before.recipe.moves, move] });
          const step = built.trail.at(-1);
          if (!step || edits.length === 0 || step.findings.length > 0) return;
          const looks = (q: typeof p, t: number): string =>
            JSON.stringify(
              q.strokes.flatMap((s) => (s.at === t ? [[s.limb, s.voice, s.level, s.ornament ?? '']] : [])),
            );
          for (const t of new Set(edits.map((e) => e.at))) {
            const isNamed = step.sentence.split(/[\s;,]+/).includes(countRef(p, t));
            expect([step.sentence, countRef(p, t), isNamed]).toEqual([
              step.sentence,
              countRef(p, t),
              looks(p, t) !== looks(step.pattern, t),
            ]);
          }
        },
      ),
      { numRuns: 300 },
    );
  });
});
