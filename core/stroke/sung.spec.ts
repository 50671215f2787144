import { ticks } from '../time';
import { LEVELS, parseStrokeText, slotsOf, sungAt, sungLine, syllableOf, usualVoice, VOICES, type Stroke } from '.';

function strokesOf(text: string): Stroke[] {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(text);
  return slotsOf(read.value).flatMap((slot, i) =>
    slot.map((s) => ({
      ...s,
      at: ticks(i * 1260),
      voice: usualVoice(s.limb),
      from: { index: i, repeat: 0, move: null },
    })),
  );
}

describe('the sung line', () => {
  it('has a syllable for every voice and level, and no two voices of a family sung alike when loud', () => {
    for (const v of VOICES) for (const l of LEVELS) expect(syllableOf(v, l)).toMatch(/^[A-Za-z]{1,5}$/);
    expect(new Set(VOICES.map((v) => syllableOf(v, 'accent'))).size).toBe(VOICES.length - 1); // the two crashes
  });
  it('never loses the kick: in place of the time over it, behind all else', () => {
    const at = (text: string): string => {
      const read = parseStrokeText(text);
      if (!read.ok) throw new Error(text);
      const own = slotsOf(read.value)[0]!;
      const from = { index: 0, repeat: 0, move: null };
      return sungAt(own.map((s) => ({ ...s, at: ticks(0), voice: s.voice ?? usualVoice(s.limb), from })));
    };
    const kick = syllableOf('kick', 'tap');
    expect(at('R[hat]+K')).toBe(kick);
    expect(at('R![hat]+K')).toBe(kick);
    expect(at('R!+K')).toBe(`TAH-${kick}`);
    expect(at('R![right crash]+K!')).toBe(`${syllableOf('crash-right', 'accent')}-BOOM`);
    expect(at('R[hat]+k')).toBe(syllableOf('hat-closed', 'tap'));
    expect(at('r+K!')).toBe('BOOM');
  });
  it('sings a phrase slot by slot, the loudest of what sounds together', () => {
    const strokes = strokesOf('R! l - R+K! K');
    expect(sungLine(strokes, 5 * 1260, 1260)).toBe('TAH di · BOOM boom');
    expect(sungLine(strokes, 5 * 1260, 1260, { 'snare ghost': 'lo' })).toBe('TAH lo · BOOM boom');
  });
});
