import fc from 'fast-check';
import { USUAL_SCHOOLS } from '@core/time';
import { build } from '@core/recipe';
import { ribbonLayout } from './layout';
import { underPoint, levelAt, placeOf } from './under';

const pattern = build({ source: { kind: 'typed', text: '(R! l K r)x4', meter: '4/4', grid: 1260 }, moves: [] }).pattern;
const layout = ribbonLayout(pattern, { size: 'bench', width: 620, schools: USUAL_SCHOOLS });

describe('what lies under a point of the ribbon', () => {
  it('every head is hit by its own stroke, at its end', () => {
    for (const row of layout.rows)
      for (const stem of row.stems)
        expect(underPoint(layout, stem.x, stem.end)).toMatchObject({ stroke: stem.index, end: true, limb: stem.limb });
  });
  it('an empty place means the limb that would be drawn there', () => {
    const row = layout.rows[0]!;
    const x = row.stems[1]!.x;
    expect(underPoint(layout, x, row.line - 30)).toMatchObject({ limb: 'R', stroke: null });
    const rest = row.blocks[0]!;
    expect(underPoint(layout, rest.x + 2, row.line + 20)?.limb).toBe('L');
    expect(underPoint(layout, row.stems[0]!.x, row.floor - 3)?.limb).toBe('K');
  });
  it('any point is some slot, and the slot of a place is that place', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 15 }), (n) => {
        const place = placeOf(layout, n * 1260)!;
        expect(underPoint(layout, place.x + 1, place.row.line)?.at).toBe(n * 1260);
      }),
    );
    expect(underPoint(layout, -500, -500)).not.toBeNull();
  });
  it('a height is the level whose stem is nearest', () => {
    expect(levelAt(layout, 100)).toBe('accent');
    expect(levelAt(layout, 25)).toBe('tap');
    expect(levelAt(layout, 0)).toBe('ghost');
  });
});
