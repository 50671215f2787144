import fc from 'fast-check';
import { GRID, meter, ticks } from '../time';
import { parseStrokeText } from '../stroke';
import { landingAt, patternOfText, type Pattern } from '../pattern';
import { anyMeter, anyRecipe } from '../testing/arbitraries';
import { build, isSame, recipeOf } from '.';
import { casesTried } from '../testing/cases';

const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));

function built(text: string): Pattern {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(text);
  return patternOfText(read.value, meter(4, 4), GRID.sixteenths);
}

describe('a recipe for a pattern from outside', () => {
  it('builds the same pattern: every meter, grid and mixture, ornaments, starts, landings, pick-ups, swing', () => {
    let said = 0;
    fc.assert(
      fc.property(anyRecipe, (recipe) => {
        const { pattern } = build(recipe);
        const own = recipeOf(pattern);
        if (own === null) {
          // Only what is longer than a line of text or lies between ticks of the least slot cannot be said.
          const slots = (landingAt(pattern) ?? pattern.length) / pattern.grid;
          const off = slots % 1 !== 0 && (slots % 1) * pattern.grid < 105;
          const many = pattern.strokes.length > 2000 || slots > 2000;
          const fine = (pattern.pickup ?? []).reduce((a, s) => common(a, 0 - s.at), 0);
          const led = pattern.pickup !== undefined && fine < 105;
          expect(slots < 1 || many || off || led || pattern.start > 0).toBe(true);
        } else {
          said++;
          expect(isSame(build(own).pattern, pattern)).toBe(true);
        }
      }),
      { numRuns: 400 },
    );
    expect(said).toBeGreaterThan(casesTried(250));
  });
  it('starts where it starts, in every meter', () => {
    fc.assert(
      fc.property(anyMeter, fc.nat(100_000), fc.integer({ min: 1, max: 60 }), (m, from, slots) => {
        const bar = (20160 / m.unit) * m.beats;
        const pattern: Pattern = {
          ...built(`- (R l)x${slots}`),
          meter: m,
          start: ticks(from % bar),
        };
        const own = recipeOf(pattern);
        if (pattern.start + pattern.length > 64 * bar || 1260 >= bar) return;
        expect(own && build(own).pattern.start).toBe(pattern.start);
      }),
    );
  });
  it('tells what differs, and not where strokes came from', () => {
    const a = built('R l R l');
    expect(isSame(a, { ...a, groups: [] })).toBe(true);
    expect(isSame(a, built('R l R L'))).toBe(false);
    expect(isSame(a, { ...a, meter: meter(3, 4) })).toBe(false);
    expect(isSame(a, { ...a, feel: { kind: 'swung', on: '16ths', ratio: 0.6 } })).toBe(false);
    expect(isSame(a, { ...a, pickup: a.strokes.map((s) => ({ ...s, at: ticks(s.at - 5040) })) })).toBe(false);
  });
});
