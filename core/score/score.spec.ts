import fc from 'fast-check';
import { anyRecipe, METERS } from '../testing/arbitraries';
import { barTicks, GRID, meterText, type Meter } from '../time';
import { patternOfText } from '../pattern';
import { build } from '../recipe';
import { scoreOf, VALUE_TICKS, type Score, type ScoreVoice } from '.';

const of = (text: string, meter = '4/4', grid: number = GRID.sixteenths): Score =>
  scoreOf(build({ source: { kind: 'typed', text, meter, grid }, moves: [] }).pattern);
const written = (v: ScoreVoice | undefined | null): string =>
  (v?.events ?? []).map((e) => `${e.value}${e.dots ? '.' : ''}${e.strokes.length === 0 ? 'r' : ''}`).join(' ');

describe('notes in bars', () => {
  it.each([
    ['four 16ths', 'R L R L', '4/4', GRID.sixteenths, '16 16 16 16 4r 2r'],
    ['a dotted eighth and a 16th', 'R - - L', '4/4', GRID.sixteenths, '8. 16 4r 2r'],
    ['a 16th rest first', '- R L -', '4/4', GRID.sixteenths, '16r 16 8 4r 2r'],
    ['quarters', 'R L R L', '4/4', GRID.quarters, '4 4 4 4'],
    ['6/8 in two', 'R L R L R L', '6/8', GRID.eighths, '8 8 8 8 8 8'],
    ['one stroke in 6/8', 'R', '6/8', GRID.eighths, '4. 4.r'],
    ['7/8 by its groups', 'R L R L R L R', '7/8', GRID.eighths, '8 8 8 8 8 8 8'],
    ['32nds', 'R L R L R L R L', '2/4', GRID.thirtySeconds, '32 32 32 32 32 32 32 32 4r'],
  ])('%s: %s', (_, text, meter, grid, signs) => expect(written(of(text, meter, grid).bars[0]?.hands)).toBe(signs));

  it('triplets, sextuplets, quintuplets and septuplets are tuplets of their beat', () => {
    for (const [grid, notes, inTimeOf] of [
      [GRID.triplets, 3, 2],
      [GRID.sextuplets, 6, 4],
      [GRID.quintuplets, 5, 4],
      [GRID.septuplets, 7, 4],
    ] as const) {
      const text = Array.from({ length: notes }, (_v, i) => (i % 2 ? 'L' : 'R')).join(' ');
      const [bar] = of(text, '4/4', grid).bars;
      expect(bar?.hands.tuplets).toEqual([{ notes, inTimeOf }]);
      expect(bar?.hands.events.filter((e) => e.tuplet === 0)).toHaveLength(notes);
    }
  });
  it('quarter triplets reach over two beats', () => {
    const [bar] = of('R L R', '4/4', 3360).bars;
    expect(bar?.hands.tuplets).toEqual([{ notes: 3, inTimeOf: 2 }]);
    expect(written(bar?.hands)).toBe('4 4 4 2r');
  });
  it('a beat of 16ths and 32nd triplets is cut, not rounded', () => {
    const recipe = build({
      source: { kind: 'typed', text: 'R L', meter: '4/4', grid: GRID.sixteenths },
      moves: [{ id: 'a', on: true, move: 'insert', params: { text: 'R L R', grid: 840, where: { kind: 'end' } } }],
    });
    const [bar] = scoreOf(recipe.pattern).bars;
    expect(bar?.rounded).toEqual([]);
    expect(bar?.hands.tuplets).toHaveLength(1);
  });
  it('feet are a voice of their own; a bar without feet has none', () => {
    const two = of('R+K L R L', '4/4', GRID.quarters);
    expect(written(two.bars[0]?.feet)).toBe('4 4r 2r');
    expect(of('R L').bars[0]?.feet).toBeNull();
  });
  it('limbs that never sound together share one voice and its beams', () => {
    const [bar] = of('R l K l R l K l R l K l R l K K').bars;
    expect(bar?.feet).toBeNull();
    expect(written(bar?.hands)).toBe('16 16 16 16 16 16 16 16 16 16 16 16 16 16 16 16');
    expect(new Set(bar?.hands.events.map((e) => e.beam)).size).toBe(4);
    expect(written(of('K K K K', '4/4', GRID.quarters).bars[0]?.hands)).toBe('4 4 4 4');
  });
  it('a landing is one chord and one line of rests; a landing on silence one rest', () => {
    const landed = (params: object) =>
      scoreOf(
        build({
          source: { kind: 'typed', text: 'R L R L', meter: '4/4', grid: GRID.quarters },
          moves: [{ id: 'l', on: true, move: 'land', params: { hand: 'R', ...params } as never }],
        }).pattern,
      ).bars[1];
    expect(written(landed({ voice: 'crash-right', kick: true })?.hands)).toBe('4 4r 2r');
    expect(landed({ voice: 'crash-right', kick: true })?.feet).toBeNull();
    expect(landed({ voice: 'crash-right', kick: true })?.hands.events[0]?.strokes).toHaveLength(2);
    expect(written(landed({ kick: false })?.hands)).toBe('1r');
  });
  it('beams stay inside the beat, and inside the groups of 7/8', () => {
    const beams = of('R L R L R L R', '7/8', GRID.eighths).bars[0]?.hands.events.map((e) => e.beam);
    expect(new Set(beams?.slice(0, 2)).size).toBe(1);
    expect(beams?.[1]).not.toBe(beams?.[2]);
    expect(new Set(beams?.slice(4)).size).toBe(1);
  });
  it.each(METERS.map((m): [string, Meter] => [meterText(m), m]))(
    'an empty %s bar is a rest that lasts the bar',
    (_, m) => {
      const [bar] = scoreOf(patternOfText([{ kind: 'rest' }], m, GRID.eighths)).bars;
      expect(bar?.hands.events).toHaveLength(1);
      expect(bar?.hands.events[0]?.length).toBe(barTicks(m));
    },
  );
  it('every stroke stands once, every bar is full, written lengths are the real ones, in any phrase', () => {
    fc.assert(
      fc.property(anyRecipe, (recipe) => {
        const { pattern } = build({ ...recipe, moves: recipe.moves.slice(0, 5) });
        if (pattern.strokes.length > 400) return;
        const score = scoreOf(pattern);
        const bar = barTicks(pattern.meter);
        const seen = score.bars.flatMap((b) =>
          [b.hands, ...(b.feet ? [b.feet] : [])].flatMap((v) => v.events.flatMap((e) => e.strokes)),
        );
        expect([...seen].sort((a, b) => a - b)).toEqual(pattern.strokes.map((_, i) => i));
        for (const b of score.bars)
          for (const voice of [b.hands, ...(b.feet ? [b.feet] : [])]) {
            expect(voice.events.reduce((sum, e) => sum + e.length, 0)).toBe(bar);
            voice.events.forEach((e, i) =>
              expect(e.at).toBe(voice.events.slice(0, i).reduce((sum, x) => sum + x.length, 0)),
            );
            for (const e of voice.events) {
              if (voice.events.length === 1) continue;
              const t = e.tuplet === null ? undefined : voice.tuplets[e.tuplet];
              const real = VALUE_TICKS[e.value] * (e.dots ? 1.5 : 1) * (t ? t.inTimeOf / t.notes : 1);
              expect(real).toBeCloseTo(e.length, 6);
            }
          }
      }),
      { numRuns: 150 },
    );
  });
  it('strokes that were not rounded stand at their tick', () => {
    const recipe: Parameters<typeof build>[0] = {
      source: { kind: 'typed', text: 'R L', meter: '4/4', grid: GRID.sixteenths },
      moves: [
        { id: 't', on: true, move: 'touch', params: { edits: [{ at: 37, limb: 'R', stroke: { level: 'tap' } }] } },
      ],
    };
    const { pattern } = build(recipe);
    const [bar] = scoreOf(pattern).bars;
    expect(bar?.rounded).toEqual([1]);
  });
});
