import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { build } from '.';
import { select, selectorFor, selectorWords, strokeTypesOf, partOf, unmuted, NOTHING_MUTED } from '../pattern';

const pattern = (text: string, moves: Parameters<typeof build>[0]['moves'] = []) =>
  build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves }).pattern;
const filled = pattern('R l l R K', [
  {
    id: 'f',
    on: true,
    move: 'fit',
    params: { space: { bars: 2 }, start: '1', mirrored: false, close: { kind: 'cut' } },
  },
]);

describe('the selector that a person meant', () => {
  it.each([
    ['all of them', filled.strokes.map((_, i) => i), 'all strokes'],
    ['every right', filled.strokes.flatMap((s, i) => (s.limb === 'R' ? [i] : [])), 'rights'],
    ['every kick', filled.strokes.flatMap((s, i) => (s.limb === 'K' ? [i] : [])), 'kicks'],
    [
      'the first of each',
      filled.strokes.flatMap((s, i) => (s.from.index === 0 ? [i] : [])),
      'the first of every group',
    ],
    ['one stroke', [0], 'rights on 1 in bar 1'],
    ['nothing', [], 'all strokes at no place'],
  ])('%s', (_, chosen, words) => {
    const found = selectorFor(filled, chosen);
    expect(select(filled, found)).toEqual(chosen);
    if (words !== 'rights on 1 in bar 1') expect(selectorWords(found)).toBe(words);
  });
  it('chooses exactly what was pressed, in any phrase', () => {
    fc.assert(
      fc.property(anyRecipe, fc.array(fc.nat(), { maxLength: 8 }), (recipe, picks) => {
        const p = build({ ...recipe, moves: recipe.moves.slice(0, 3) }).pattern;
        if (p.strokes.length === 0 || p.strokes.length > 200) return;
        // Whole moments, so that strokes that only their limb tells apart are chosen together.
        const at = new Set(picks.map((n) => p.strokes[n % p.strokes.length]?.at));
        const chosen = p.strokes.flatMap((s, i) => (at.has(s.at) ? [i] : []));
        expect(select(p, selectorFor(p, chosen))).toEqual(chosen);
      }),
      { numRuns: 150 },
    );
  });
});

describe('projections', () => {
  it('muting takes out limbs and roles, and nothing else', () => {
    expect(unmuted(filled, NOTHING_MUTED)).toBe(filled);
    expect(unmuted(filled, { limbs: ['K'], roles: [] }).strokes.some((s) => s.limb === 'K')).toBe(false);
    expect(unmuted(filled, { limbs: [], roles: ['texture'] }).strokes.every((s) => s.level !== 'ghost')).toBe(true);
    expect(unmuted(filled, { limbs: ['K'], roles: [] }).length).toBe(filled.length);
  });
  it('a part starts where it stood, and parts put together are the whole', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 32 }), (n) => {
        const cut = n * 1260;
        const [a, b] = [partOf(filled, 0, cut), partOf(filled, cut, filled.length)];
        expect(a.strokes.length + b.strokes.length).toBe(filled.strokes.length);
        expect(a.length + b.length).toBe(filled.length);
        expect(b.start).toBe(cut);
      }),
    );
  });
  it('stroke types go by hand, round the loop, and feet have none', () => {
    expect(strokeTypesOf(pattern('R! r K r'))).toEqual(['down', 'tap', null, 'up']);
  });
});
