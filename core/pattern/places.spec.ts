import fc from 'fast-check';
import { anyBuilt } from '../testing/arbitraries';
import { GRID, meter, ticks, USUAL_SCHOOLS } from '../time';
import { parseStrokeText } from '../stroke';
import { patternOfText, placeWords, strokesOf, type Pattern } from '.';

describe('the names of places', () => {
  it('no two places of one phrase have one name, on whatever grid and in whatever meter', () => {
    fc.assert(
      fc.property(
        anyBuilt,
        fc.constantFrom(USUAL_SCHOOLS, { triplets: 'and-a' as const, sextuplets: 'ta-la' as const }),
        (p, schools) => {
          if (p.strokes.length > 120) return;
          const at = [...new Set(strokesOf(p).map((s) => s.at))];
          const names = at.map((t) => placeWords(p, t, schools));
          expect(new Set(names).size).toBe(at.length);
        },
      ),
      { numRuns: 500 },
    );
  });
  it('strokes between the slots are told by their number where they would be called alike', () => {
    const read = parseStrokeText('R R R R R R');
    const p: Pattern = patternOfText(read.ok ? read.value : [], meter(6, 8), GRID.eighths);
    // Two strokes inside of the first eighth, at no division that has letters.
    const more = [700, 1400].map((at) => ({ ...p.strokes[0]!, limb: 'L' as const, at: ticks(at) }));
    const both = { ...p, strokes: [p.strokes[0]!, ...more, ...p.strokes.slice(1)] };
    expect(placeWords(both, 700, USUAL_SCHOOLS)).toBe('the 2nd stroke of beat 1');
    expect(placeWords(both, 1400, USUAL_SCHOOLS)).toBe('the 3rd stroke of beat 1');
    expect(placeWords(both, 2520, USUAL_SCHOOLS)).toBe('the & of 1');
    const alone = { ...both, strokes: both.strokes.filter((s) => s.at !== 1400) };
    expect(placeWords(alone, 700, USUAL_SCHOOLS)).toBe('just after beat 1');
  });
});
