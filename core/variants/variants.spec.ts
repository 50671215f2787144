import fc from 'fast-check';
import { anyNodes } from '../testing/arbitraries';
import { otherHand, printStrokeText } from '../stroke';
import { tidy, type Pattern } from '../pattern';
import { mod } from '../base';
import { build, type Recipe } from '../recipe';
import { ticks } from '../time';
import { allVariants, canonicalForm, combinations, easeOf, leastRotation, sheetWords, VARIANT_KINDS, VARIANT_LIMITS } from '.';

const typed = (text: string, meter = '4/4'): Recipe => ({ source: { kind: 'typed', text, meter, grid: 1260 }, moves: [] });
const pattern = (text: string): Pattern => build(typed(text)).pattern;
const rotated = (p: Pattern, by: number): Pattern =>
  tidy({ ...p, strokes: p.strokes.map((s) => ({ ...s, at: ticks(mod(s.at + by * p.grid, p.length)) })) });
const mirrored = (p: Pattern): Pattern => tidy({ ...p, strokes: p.strokes.map((s) => ({ ...s, limb: otherHand(s.limb) })) });

describe('canonical form', () => {
  it('is the same for every rotation and for the mirror', () => {
    fc.assert(
      fc.property(anyNodes, fc.nat(40), (nodes, by) => {
        const p = pattern(printStrokeText(nodes));
        expect(canonicalForm(rotated(p, by))).toBe(canonicalForm(p));
        expect(canonicalForm(mirrored(p))).toBe(canonicalForm(p));
      }),
    );
  });
  it('is the same only then, as trying every rotation and mirror finds', () => {
    const letters = fc.array(fc.constantFrom('R', 'L', 'r', 'K', '-'), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(letters, letters, (a, b) => {
        const [p, q] = [pattern(a.join(' ')), pattern(b.join(' '))];
        const key = (x: Pattern): string => JSON.stringify([x.length, x.strokes.map((s) => [s.at, s.limb, s.level])]);
        const all = new Set([p, mirrored(p)].flatMap((x) => a.map((_, i) => key(rotated(x, i)))));
        expect(canonicalForm(p) === canonicalForm(q)).toBe(all.has(key(q)));
      }),
      { numRuns: 400 },
    );
  });
  it('the least rotation is the least of all', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1, maxLength: 12 }), (list) => {
        const turn = (i: number): string => [...list.slice(i), ...list.slice(0, i)].join('');
        expect(turn(leastRotation(list))).toBe(list.map((_, i) => turn(i)).sort()[0]);
      }),
    );
  });
});

describe('variants', () => {
  const wish = (kinds: (typeof VARIANT_KINDS)[number][], accents = 1) => ({ kinds, accents });
  it('every placement of two accents, rotations and mirrors once', () => {
    // R L R L: neighbours, or every second: two kinds of pairs and no more.
    expect(allVariants(typed('R L R L'), wish(['accents'], 2))).toMatchObject({ candidates: 6, found: 2, complete: true });
  });
  it.each(VARIANT_KINDS)('%s: each is one change away, says so, and is made by its move', (kind) => {
    const recipe: Recipe = {
      ...typed('R! l l K R'),
      moves: [{ id: 'm', on: true, move: 'fit', params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' } } }],
    };
    const sheet = allVariants(recipe, wish([kind], 2));
    expect(sheet.found).toBeGreaterThan(0);
    for (const v of sheet.best.slice(0, 20)) {
      expect(v.words.length).toBeGreaterThan(3);
      expect(build({ ...recipe, moves: [...recipe.moves, v.move] }).pattern.strokes.map((s) => [s.at, s.limb, s.level, s.voice])).toEqual(
        v.pattern.strokes.map((s) => [s.at, s.limb, s.level, s.voice]),
      );
    }
  });
  it('the easier come first, then what the shelf has not', () => {
    const eases = allVariants(typed('R R L L K K'), wish(['snare and kick'])).best.map((v) => v.ease);
    expect([...eases].sort((a, b) => b - a)).toEqual(eases);
    const shelf = new Set([canonicalForm(pattern('R! L R L'))]);
    const { best } = allVariants(typed('R L R L'), wish(['accents']), shelf);
    expect(best.map((v) => v.fresh)).toEqual([false]);
  });
  it('ease is the nearest pair of one limb, round the loop', () =>
    expect([easeOf(pattern('R L R L')), easeOf(pattern('R L L R'))]).toEqual([2520, 1260]));
  it('stops at its bound and says so', () => {
    const sheet = allVariants(typed('(R L R L R L K)x4'), wish(['accents'], 5));
    expect([sheet.candidates, sheet.complete, sheet.best.length]).toEqual([VARIANT_LIMITS.candidates, false, VARIANT_LIMITS.shown]);
    expect(sheetWords(sheet)).toMatch(/^showing the best 200 of at least \d+,\d{3}$/);
  });
  it('an empty phrase has none', () => expect(allVariants(typed('- -'), wish([...VARIANT_KINDS], 2)).found).toBe(0));
  it('combinations are all of them', () => expect([...combinations(5, 3)]).toHaveLength(10));
});
