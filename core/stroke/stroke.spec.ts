import fc from 'fast-check';
import { anyNodes } from '../testing/arbitraries';
import {
  canStrike,
  LIMBS,
  parseStrokeText,
  printStrokeText,
  slotCount,
  slotsOf,
  strokeTypes,
  usualVoice,
  VOICE,
  VOICES,
} from '.';

const problem = (text: string) => {
  const read = parseStrokeText(text);
  return read.ok ? null : read.problems[0];
};

describe('stroke text', () => {
  it('what is printed reads back the same', () => {
    fc.assert(
      fc.property(anyNodes, (nodes) => {
        const read = parseStrokeText(printStrokeText(nodes));
        expect(read).toEqual({ ok: true, value: nodes, problems: [] });
      }),
    );
  });

  it('any letters give nodes or a problem with words, never an exception', () => {
    const letters = fc.string({
      unit: fc.constantFrom(...'RLKJHrlkjhfdtz!-_+()x0123456789| Q'.split('')),
      maxLength: 40,
    });
    fc.assert(
      fc.property(fc.oneof(letters, fc.string()), (text) => {
        const read = parseStrokeText(text);
        if (read.ok) expect(slotsOf(read.value)).toHaveLength(slotCount(read.value));
        else expect(read.problems[0].message.length).toBeGreaterThan(10);
      }),
      { numRuns: 1000 },
    );
  });

  it('R! l l K is four slots: accent, two ghosts, a kick', () => {
    const read = parseStrokeText('R! l l K');
    expect(read.ok && slotsOf(read.value)).toEqual([
      [{ limb: 'R', level: 'accent' }],
      [{ limb: 'L', level: 'ghost' }],
      [{ limb: 'L', level: 'ghost' }],
      [{ limb: 'K', level: 'tap' }],
    ]);
  });

  it.each([
    ['', 'empty', 1],
    ['R L Q', 'unexpected', 5],
    ['R+', 'unexpected', 3],
    ['R+r', 'limb-twice', 3],
    ['_ R', 'unexpected', 1],
    ['(R L', 'unclosed', 1],
    ['R L)', 'unexpected', 4],
    ['(R L)', 'bad-repeat', 6],
    ['(R L)x0', 'bad-repeat', 6],
    ['(R L)x100', 'bad-repeat', 6],
    ['()x2', 'unexpected', 1],
    ['fK', 'unexpected', 2],
    ['r!', 'unexpected', 2],
    ['f', 'unexpected', 2],
    ['((((((((( R )x1)x1)x1)x1)x1)x1)x1)x1)x1', 'too-deep', 9],
  ])('“%s” is %s at column %d', (text, code, column) => {
    expect(problem(text)).toMatchObject({ code, at: { column } });
    expect(problem(text)?.message).toMatch(/\w/);
  });

  it('repeats cannot grow past what a line may hold', () =>
    expect(problem('((((R)x99)x99)x99)x99')?.code).toBe('too-long'));
  it('a line of 20,001 letters is refused', () => expect(problem('R'.repeat(20_001))?.code).toBe('too-long'));
});

describe('stroke types', () => {
  it('R! r r: high to low is down, then tap, then up, round the loop', () =>
    expect(strokeTypes(['accent', 'ghost', 'ghost'])).toEqual(['down', 'tap', 'up']));
  it('all accents are full, all taps tap', () => {
    expect(strokeTypes(['accent', 'accent'])).toEqual(['full', 'full']);
    expect(strokeTypes(['tap', 'ghost'])).toEqual(['tap', 'tap']);
  });
});

describe('voices', () => {
  it('names and short names are each used once', () => {
    expect(new Set(VOICES.map((v) => VOICE[v].name)).size).toBe(VOICES.length);
    expect(new Set(VOICES.map((v) => VOICE[v].short)).size).toBe(VOICES.length);
  });
  it('every limb can strike its usual voice', () => expect(LIMBS.every((l) => canStrike(l, usualVoice(l)))).toBe(true));
  it('no foot can strike a tom', () => expect(canStrike('K', 'high-tom')).toBe(false));
});
