import fc from 'fast-check';
import { anyNodes, anySelector } from '../testing/arbitraries';
import { GRID, meter } from '../time';
import { parseStrokeText } from '../stroke';
import { patternOfText, rolesOf, select, selectorWords, type Pattern, type Selector } from '.';

function pattern(text: string): Pattern {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(text);
  return patternOfText(read.value, meter(4, 4), GRID.sixteenths);
}
const p = pattern('R! l l R K R L L R R L! l K+R - r l H');

describe('select', () => {
  it.each<[string, Selector, number[]]>([
    ['everything', {}, [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16]],
    ['a limb', { limbs: ['K', 'H'] }, [4, 13, 16]],
    ['a level', { levels: ['accent'] }, [0, 10]],
    ['places of the cell', { places: [1, 5] }, [0, 4]],
    ['counts', { counts: ['2', '4'] }, [4, 12, 13]],
    ['a count of any bar', { counts: ['1'], bars: [2] }, [16]],
    ['firsts of doubles', { inRun: 1 }, [1, 6, 8, 10]],
    ['seconds of doubles', { inRun: 2 }, [2, 7, 9, 11]],
    ['every third slot', { every: { n: 3, offset: 0, of: 'slot' } }, [0, 3, 6, 9, 12, 13, 15]],
    ['every second left', { limbs: ['L'], every: { n: 2, offset: 1, of: 'stroke' } }, [2, 7, 11]],
    ['primary', { roles: ['primary'] }, [0, 4, 10, 13]],
    ['nothing', { voices: ['ride'] }, []],
  ])('%s', (_, selector, expected) => expect(select(p, selector)).toEqual(expected));

  it('each present field restricts further', () => {
    fc.assert(
      fc.property(anyNodes, anySelector, anySelector, (nodes, a, b) => {
        const any = patternOfText(nodes, meter(7, 8), GRID.triplets);
        const plain = { ...a, every: undefined } as Selector;
        const both = select(any, { ...plain, ...(b.limbs && !plain.limbs ? { limbs: b.limbs } : {}) });
        const one = new Set(select(any, plain));
        expect(both.every((i) => one.has(i))).toBe(true);
      }),
    );
  });

  it('every selector has words', () => {
    fc.assert(fc.property(anySelector, (s) => expect(selectorWords(s).length).toBeGreaterThan(3)));
  });
});

describe('roles', () => {
  it('kicks and accents carry, ghosts and taps fill, the hat keeps time', () => {
    expect(rolesOf(p).filter((r) => r === 'timekeeping')).toHaveLength(1);
    expect(rolesOf(p)[1]).toBe('texture');
  });
  it('where nothing is accented, taps carry', () =>
    expect(rolesOf(pattern('R L r'))).toEqual(['primary', 'primary', 'texture']));
});
