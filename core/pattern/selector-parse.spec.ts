import fc from 'fast-check';
import { anyNodes, anySelector, METERS } from '../testing/arbitraries';
import { LIMBS } from '../stroke';
import { GRID, gridsOf, meter, ticks, USUAL_SCHOOLS } from '../time';
import { countingOf, parseSelector, patternOfText, select, selectorWords, type Selector } from '.';

const counting = { meter: meter(4, 4), grid: GRID.sixteenths, schools: USUAL_SCHOOLS };

/**
 * A selector as its words can say it: empty lists restrict nothing, sets have no order, nonsense counts have no words.
 */
function plain(s: Selector): Selector {
  const kept = Object.fromEntries(
    Object.entries(s).filter(([key, v]) => !(Array.isArray(v) && v.length === 0 && key !== 'ticks')),
  ) as Selector;
  const counts = kept.counts?.filter((c) => c !== 'nonsense');
  const limbs = LIMBS.filter((l) => kept.limbs?.includes(l));
  const rest = Object.fromEntries(
    Object.entries(kept).filter(([key]) => key !== 'counts' && key !== 'limbs'),
  ) as Selector;
  return { ...rest, ...(counts?.length ? { counts } : {}), ...(limbs.length > 0 ? { limbs } : {}) };
}

describe('selectors in words', () => {
  it('every selector is printed so that it reads back', () => {
    fc.assert(
      fc.property(anySelector.map(plain), (s) => {
        // Chosen places have a name only in a pattern.
        const { ticks: chosen, ...others } = s;
        const named = chosen === undefined || chosen.length === 0 ? s : others;
        const read = parseSelector(selectorWords(named), counting);
        expect([selectorWords(named), read.ok ? read.value : read.problems]).toEqual([selectorWords(named), named]);
      }),
      { numRuns: 1000 },
    );
  });
  it('chosen places of a pattern are named by counts that choose the same strokes', () => {
    fc.assert(
      fc.property(
        anyNodes,
        fc.constantFrom(...METERS),
        fc.nat(),
        fc.array(fc.nat(), { minLength: 1, maxLength: 8 }),
        (nodes, m, later, picks) => {
          const grids = gridsOf(m);
          const grid = grids[later % grids.length]!;
          const p = { ...patternOfText(nodes, m, grid), start: ticks((later % 7) * grid) };
          if (p.strokes.length === 0) return;
          const chosen = [...new Set(picks.map((n) => p.strokes[n % p.strokes.length]!.at))].sort((a, b) => a - b);
          const words = selectorWords({ ticks: chosen }, p);
          expect(words).not.toMatch(/tick/);
          const read = parseSelector(words, countingOf(p, USUAL_SCHOOLS), p.start);
          expect(read.ok && select(p, read.value)).toEqual(select(p, { ticks: chosen }));
        },
      ),
    );
    expect(selectorWords({ ticks: [0, 1260].map(ticks) })).toBe('all strokes at 2 chosen places');
  });
  it.each<[string, Selector]>([
    ['right accents on beats 2 and 4', { limbs: ['R'], levels: ['accent'], counts: ['2', '4'] }],
    ['second of each double', { inRun: 2 }],
    ['bass drum on 1', { limbs: ['K'], counts: ['1'] }],
    ['every 3rd slot from the e of 1', { every: { n: 3, offset: 1, of: 'slot' } }],
    ['every 2nd stroke from stroke 2 among lefts', { limbs: ['L'], every: { n: 2, offset: 1, of: 'stroke' } }],
    ['the first and third of every group in bar 2', { places: [1, 3], bars: [2] }],
    ['hands in the last repeat', { limbs: ['R', 'L'], repeats: ['last'] }],
    ['ghosts on the & of 4', { levels: ['ghost'], counts: ['4&'] }],
    ['texture strokes played on the snare', { roles: ['texture'], voices: ['snare'] }],
  ])('reads “%s”', (text, selector) =>
    expect(parseSelector(text, counting)).toEqual({ ok: true, value: selector, problems: [] }),
  );
  it('any letters give a selector or words, never an exception', () => {
    const bits = fc.array(
      fc.constantFrom(
        'right',
        'every',
        '3rd',
        'slot',
        'from',
        'the',
        'of',
        '4&',
        'on',
        'in',
        'bar',
        'x',
        'first',
        'among',
        'accents',
        '2',
      ),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          bits.map((b) => b.join(' ')),
        ),
        (text) => {
          const read = parseSelector(text, counting);
          expect(read.ok || read.problems[0].message.length > 10).toBe(true);
        },
      ),
    );
  });
});
