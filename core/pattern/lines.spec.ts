import fc from 'fast-check';
import { GRID, gridsOf, meter, meterText, USUAL_SCHOOLS } from '../time';
import { HAND_VOICES, LEVELS, printStrokeText, type Stroke } from '../stroke';
import { METERS } from '../testing/arbitraries';
import { barTicks, ticks } from '../time';
import { linesOf, looksLikeLines, parseLines, patternOfText, tidy, type Pattern } from '.';

const counting = { meter: meter(4, 4), grid: GRID.sixteenths, schools: USUAL_SCHOOLS };
const text = (lines: string, at = counting): string => {
  const read = parseLines(lines, at);
  return read.ok ? printStrokeText(read.value) : read.problems[0].message;
};

describe('a groove written a line to a piece', () => {
  it.each([
    [
      'hat: 1 & 2 & 3 & 4 &; snare: 2! 4!; kick: 1 3&',
      'R[closed hi-hat]+K - R[closed hi-hat] - R[closed hi-hat]+L! - R[closed hi-hat] - R[closed hi-hat] - R[closed hi-hat]+K - R[closed hi-hat]+L! - R[closed hi-hat] -',
    ],
    ['snare: 1 e & a', 'R R R R - - - - - - - - - - - -'],
    ['hat left: 1 &\nsnare: 1', 'R+L[closed hi-hat] - L[closed hi-hat] - - - - - - - - - - - - -'],
    ['ride: quarters; snare: (1e) 2', 'R[ride] l - - R[ride]+L - - - R[ride] - - - R[ride] - - -'],
    ['kick: 2:1', '- - - - - - - - - - - - - - - - K - - - - - - - - - - - - - - -'],
  ])('%s', (lines, strokes) => expect(text(lines)).toBe(strokes));

  it.each([
    ['snare: 2 x', 'snare: “x” is not a count in 4/4 on 16ths.'],
    ['snare: 2trip', 'snare: “2trip” does not lie on 16ths.'],
    ['snare:', 'Write a piece and its counts, for instance snare: 2 4.'],
    ['snare: 1; ride: 1; block: 1', 'block: both hands already play there.'],
    ['purple drum: 1', '“purple drum” is not a drum or cymbal here.'],
  ])('%s is refused in words', (lines, words) => expect(text(lines)).toBe(words));

  it('is told from stroke text', () => {
    expect(looksLikeLines('hat: 1 & 2')).toBe(true);
    expect(looksLikeLines('R! l l R K')).toBe(false);
    expect(looksLikeLines('R[ride] (R L)x2 | K')).toBe(false);
  });

  it('what a phrase is written as is read to the same strokes, in every meter and grid', () => {
    const any = fc.constantFrom(...METERS).chain((m) =>
      fc.constantFrom(...gridsOf(m)).chain((grid) =>
        fc.record({
          m: fc.constant(m),
          grid: fc.constant(grid),
          bars: fc.integer({ min: 1, max: 3 }),
          strokes: fc.array(
            fc.record({
              slot: fc.nat(200),
              limb: fc.constantFrom('R' as const, 'L' as const, 'K' as const, 'H' as const),
              voice: fc.constantFrom(...HAND_VOICES),
              level: fc.constantFrom(...LEVELS),
            }),
            { minLength: 1, maxLength: 24 },
          ),
        }),
      ),
    );
    let written = 0;
    fc.assert(
      fc.property(any, ({ m, grid, bars, strokes }) => {
        const slots = Math.floor((barTicks(m) * bars) / grid);
        const p: Pattern = tidy({
          ...patternOfText([], m, grid),
          length: ticks(barTicks(m) * bars),
          strokes: strokes.map(({ slot, limb, voice, level }): Stroke => ({
            at: ticks((slot % slots) * grid),
            limb,
            level,
            voice: limb === 'K' ? 'kick' : limb === 'H' ? 'hat-foot' : voice,
            from: { index: 0, repeat: 0, move: null },
          })),
        });
        const lines = linesOf(p);
        if (lines === null) return;
        written++;
        const read = parseLines(lines, { meter: m, grid, schools: USUAL_SCHOOLS });
        if (!read.ok) throw new Error(`${meterText(m)} ${grid}: ${lines}: ${read.problems[0].message}`);
        const key = (x: Pattern): string => x.strokes.map((s) => `${s.at} ${s.limb} ${s.voice} ${s.level}`).join();
        const back = patternOfText(read.value, m, grid);
        expect(key(back)).toBe(key(p));
        expect(back.length).toBe(p.length);
      }),
      { numRuns: 600 },
    );
    expect(written).toBeGreaterThan(200);
  });
});
