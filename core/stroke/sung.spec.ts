import { build } from '../recipe';
import { LEVELS, sungLine, syllableOf, VOICES } from '.';

describe('the sung line', () => {
  it('has a syllable for every voice and level, and no two voices of a family sung alike when loud', () => {
    for (const v of VOICES) for (const l of LEVELS) expect(syllableOf(v, l)).toMatch(/^[A-Za-z]{1,5}$/);
    expect(new Set(VOICES.map((v) => syllableOf(v, 'accent'))).size).toBe(VOICES.length - 1); // the two crashes
  });
  it('sings a phrase slot by slot, the loudest of what sounds together', () => {
    const { strokes, length, grid } = build({
      source: { kind: 'typed', text: 'R! l - R+K! K', meter: '4/4', grid: 1260 },
      moves: [],
    }).pattern;
    expect(sungLine(strokes, length, grid)).toBe('TAH di · BOOM boom');
    expect(sungLine(strokes, length, grid, { 'snare ghost': 'lo' })).toBe('TAH lo · BOOM boom');
  });
});
