import fc from 'fast-check';
import { anyBuilt } from '../testing/arbitraries';
import { pieceName, VOICES } from '../stroke';
import { NOTHING_MUTED, unmuted } from '.';

describe('what is muted', () => {
  it('a piece is not heard however it is struck, and all else stays as it was', () => {
    fc.assert(
      fc.property(anyBuilt, fc.constantFrom(...VOICES), (p, voice) => {
        const pieces = [pieceName(voice)];
        const left = unmuted(p, { ...NOTHING_MUTED, pieces });
        const wanted = [];
        for (const s of p.strokes) if (pieceName(s.voice) !== pieces[0]) wanted.push(s);
        expect(left.strokes).toEqual(wanted);
        expect([left.length, left.groups, left.grid]).toEqual([p.length, p.groups, p.grid]);
        for (const s of left.pickup ?? []) expect(pieceName(s.voice)).not.toBe(pieces[0]);
      }),
      { numRuns: 100 },
    );
  });
  it('every way to strike a hi-hat is the hi-hat; toms and crashes are told apart', () => {
    expect(VOICES.filter((v) => pieceName(v) === 'hi-hat')).toEqual(VOICES.filter((v) => v.startsWith('hat-')));
    expect(pieceName('high-tom')).not.toBe(pieceName('mid-tom'));
    expect(pieceName('crash-left')).not.toBe(pieceName('crash-right'));
    expect(pieceName('rimshot')).toBe(pieceName('snare'));
  });
});
