import { ticks } from '../time';
import { LEVELS, parseStrokeText, slotsOf, sungLine, syllableOf, usualVoice, VOICES, type Stroke } from '.';

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
  it('sings a phrase slot by slot, the loudest of what sounds together', () => {
    const strokes = strokesOf('R! l - R+K! K');
    expect(sungLine(strokes, 5 * 1260, 1260)).toBe('TAH di · BOOM boom');
    expect(sungLine(strokes, 5 * 1260, 1260, { 'snare ghost': 'lo' })).toBe('TAH lo · BOOM boom');
  });
});
