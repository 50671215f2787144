import fc from 'fast-check';
import { chooses } from '@core/selection';
import { build } from '@core/recipe';
import { GRID, USUAL_SCHOOLS } from '@core/time';
import { RUDIMENTS } from '@core/rudiments';
import { typed } from '../../testing/fixtures';
import { countingOf, type Pattern } from '@core/pattern';
import { DEMO_PHRASES } from '../../../demo/phrases';
import { ribbonLayout } from './layout';
import { wordsOf } from './shapes';
import type { RibbonSize } from './model';
import { casesTried } from '@core/testing/cases';

const patternOf = (text: string, meter = '4/4', bars = 0) => {
  const recipe = typed(text, meter);
  const moves = bars
    ? [
        {
          id: 'f',
          on: true,
          move: 'fit' as const,
          params: { space: { bars }, start: '1', mirrored: false, close: { kind: 'cut' as const } },
        },
      ]
    : [];
  return build({ ...recipe, moves }).pattern;
};
const draw = (text: string, size: RibbonSize = 'bench', width = 620, meter = '4/4', bars = 0) =>
  ribbonLayout(patternOf(text, meter, bars), { size, width, schools: USUAL_SCHOOLS });

describe('the ribbon', () => {
  it('right above the line, left below, feet on the floor', () => {
    const [row] = draw('R L K').rows;
    const [right, left] = row!.stems;
    expect(right!.end).toBeLessThan(row!.line);
    expect(left!.end).toBeGreaterThan(row!.line);
    expect(row!.blocks[0]!.y + row!.blocks[0]!.height).toBeCloseTo(row!.floor);
  });
  it('the harder, the higher', () => {
    const heights = draw('R! R r').rows[0]!.stems.map((s) => s.base - s.end);
    expect(heights[0]!).toBeGreaterThan(heights[1]!);
    expect(heights[1]!).toBeGreaterThan(heights[2]!);
  });
  it('time is x: equal slots are equally far apart, in every size', () => {
    for (const size of ['strip', 'card', 'bench', 'room'] as const) {
      const xs = draw('R R R R R', size).rows[0]!.stems.map((s) => s.x);
      const steps = xs.slice(1).map((x, i) => x - xs[i]!);
      steps.forEach((s) => expect(s).toBeCloseTo(steps[0]!, 6));
    }
  });
  it('two bars of 7/8 get a row each, with counts, names and group lengths', () => {
    const { rows } = draw('R l l R K', 'bench', 620, '7/8', 2);
    expect(rows.map((r) => r.head)).toEqual(['bar 1', 'bar 2']);
    expect(rows[0]!.counts.map((c) => c.text).join(' ')).toBe('1 & 2 & 3 & 4 & 5 & 6 & 7 &');
    expect(rows[0]!.brackets.map((b) => b.text)).toEqual(['5', '5', '5']);
    expect(rows[1]!.brackets.map((b) => [b.text, b.open, b.close])).toEqual([
      ['', true, false],
      ['5', false, false],
      ['5', false, false],
      ['3', false, true],
    ]);
  });
  it('strips beside one another show true relative lengths', () => {
    const strip = (bars: number) =>
      ribbonLayout(patternOf('R L', '4/4', bars), {
        size: 'strip',
        width: 900,
        schools: USUAL_SCHOOLS,
        stripTicks: 4 * 20160,
      }).width - 4;
    expect(strip(2) / strip(1)).toBeCloseTo(2, 1);
  });
  it('a flam leans before its stroke, and both hands at once have their letters beside the stem', () => {
    const [flam] = draw('fR').rows[0]!.stems;
    expect(flam!.graces).toHaveLength(1);
    expect(flam!.graces[0]!.foot).toBeLessThan(flam!.x);
    expect(draw('R+L').rows[0]!.stems.every((s) => s.letterX < s.x)).toBe(true);
  });
  it('says each stroke as a person would', () => {
    const counting = countingOf(patternOf('R l K'), USUAL_SCHOOLS);
    expect(wordsOf(0, draw('fR! l K').rows[0]!.stems[0]!.stroke, counting)).toBe(
      'beat 1 in bar 1, right hand, flam, accent, snare',
    );
    expect(wordsOf(2 * 1260, draw('R l K').rows[0]!.blocks[0]!.stroke, counting)).toBe(
      'the & of 1 in bar 1, kick foot, tap, kick',
    );
  });
  it('every rudiment in every size and width stays inside its drawing, and every stroke is drawn once', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...RUDIMENTS),
        fc.constantFrom('strip' as const, 'card' as const, 'bench' as const, 'room' as const),
        fc.integer({ min: 60, max: 2000 }),
        (r, size, width) => {
          const pattern = build({
            source: { kind: 'rudiment', id: r.id, meter: '4/4', grid: r.grid },
            moves: [],
          }).pattern;
          const l = ribbonLayout(pattern, { size, width, schools: USUAL_SCHOOLS });
          const drawn = l.rows
            .flatMap((row) => [...row.stems, ...row.blocks].map((s) => s.index))
            .sort((a, b) => a - b);
          expect(drawn).toEqual(pattern.strokes.map((_, i) => i));
          l.rows.forEach((row) =>
            row.stems.forEach((s) =>
              expect(s.x >= 0 && s.x <= l.width && s.end >= row.top && s.end <= row.floor).toBe(true),
            ),
          );
        },
      ),
    );
  });

  it('no label lies on another, on a letter or on a head: the demo and random phrases, at every width', () => {
    const demo = DEMO_PHRASES.map((p) => build({ source: p.source, moves: [...p.moves] }).pattern);
    let labels = 0;
    const over: string[] = [];
    const look = (pattern: Pattern, width: number): void => {
      for (const row of ribbonLayout(pattern, { size: 'bench', width, schools: USUAL_SCHOOLS }).rows) {
        const named = row.stems.filter((s) => s.label);
        labels += named.length;
        // Widths as the font has them, apart from those the layout reckons with: 6.2 px a letter of 9.5 px.
        const boxes = named.map((s) => {
          const wide = s.label!.length * 6.2;
          const left = s.labelX - wide * { start: 0, middle: 0.5, end: 1 }[s.labelSide];
          return { x1: left, x2: left + wide, y1: s.labelY - 3.5, y2: s.labelY + 4.5 };
        });
        const letters = row.stems.flatMap((s) => {
          const foot = s.limb === 'R' ? s.base + 15 : s.base - 7;
          return s.letter ? [{ x1: s.letterX - 4, x2: s.letterX + 4, y1: foot - 8, y2: foot }] : [];
        });
        boxes.forEach((a, i) => {
          // Another's head, as the circle it is drawn as, and its stem.
          const others = row.stems
            .filter((s) => s !== named[i])
            .flatMap((s) => [
              { x1: s.x - s.headSize, x2: s.x + s.headSize, y1: s.end - s.headSize, y2: s.end + s.headSize },
              { x1: s.x - 1, x2: s.x + 1, y1: Math.min(s.base, s.end), y2: Math.max(s.base, s.end) },
            ]);
          for (const b of [...boxes.slice(i + 1), ...letters, ...others])
            if (a.x1 < b.x2 && b.x1 < a.x2 && a.y1 < b.y2 && b.y1 < a.y2) over.push(`${named[i]?.label} at ${a.x1}`);
          if (a.x2 > row.right + 1) over.push(`${named[i]?.label} leaves the row`);
        });
      }
    };
    for (const pattern of demo) for (const width of [320, 620, 1100]) look(pattern, width);
    const letters = ['R', 'L', 'r', 'l', 'R!', 'L!', 'R+L', 'R+K', 'fR', '-'];
    const voices = ['snare', 'high-tom', 'floor-tom', 'ride', 'hat-closed', 'crash-right'] as const;
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...letters), { minLength: 1, maxLength: 32 }),
        fc.array(fc.constantFrom(...voices), { minLength: 1, maxLength: 5 }),
        fc.constantFrom('4/4', '7/8', '6/8'),
        fc.integer({ min: 300, max: 1200 }),
        (text, round, meter, width) => {
          const move = { id: 'v', on: true, move: 'voice' as const, params: { select: chooses({}), voices: round } };
          look(build({ ...typed(text.join(' '), meter), moves: [move] }).pattern, width);
        },
      ),
      { numRuns: 200 },
    );
    expect(over).toEqual([]);
    expect(labels).toBeGreaterThan(1000);
  });

  it('in sextuplets and 32nds what a hand plays on is named where the hand goes to it, nearly everywhere', () => {
    const voices = ['snare', 'high-tom', 'mid-tom', 'floor-tom', 'ride', 'hat-closed', 'crash-right'] as const;
    let stays = 0;
    const silent: string[] = [];
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('R', 'L', 'r', 'l', 'R!', 'L!', 'R+K', '-'), { minLength: 4, maxLength: 48 }),
        fc.array(fc.constantFrom(...voices), { minLength: 1, maxLength: 6 }),
        fc.constantFrom(GRID.sextuplets, GRID.thirtySeconds),
        fc.integer({ min: 300, max: 1200 }),
        (text, round, grid, width) => {
          const move = { id: 'v', on: true, move: 'voice' as const, params: { select: chooses({}), voices: round } };
          const { pattern } = build({ ...typed(text.join(' '), '4/4', grid), moves: [move] });
          for (const row of ribbonLayout(pattern, { size: 'bench', width, schools: USUAL_SCHOOLS }).rows)
            for (const hand of ['R', 'L'] as const) {
              // A hand's strokes in stays on one piece, each with whether it is named anywhere.
              const runs: { voice: string; named: boolean }[] = [];
              for (const s of row.stems.filter((x) => x.limb === hand)) {
                const last = runs.at(-1);
                if (last?.voice === s.stroke.voice) last.named ||= s.label !== null;
                else runs.push({ voice: s.stroke.voice, named: s.label !== null });
              }
              stays += runs.length;
              silent.push(...runs.flatMap((r) => (r.named ? [] : [`${text.join(' ')} at ${width}`])));
            }
        },
      ),
      { numRuns: 200 },
    );
    expect(stays).toBeGreaterThan(casesTried(1000));
    expect([silent.length / stays < 0.03, silent.slice(0, 3)]).toEqual([true, expect.any(Array)]);
  });

  it('no letter of a stroke type lies on another, unisons of both hands among them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('R', 'L', 'R!', 'l', 'R+L', 'R!+l', 'R+K', '-'), { minLength: 1, maxLength: 48 }),
        fc.constantFrom(GRID.sixteenths, GRID.sextuplets, GRID.thirtySeconds),
        fc.integer({ min: 300, max: 1200 }),
        (text, grid, width) => {
          const { pattern } = build(typed(text.join(' '), '4/4', grid));
          const options = { size: 'bench' as const, width, schools: USUAL_SCHOOLS, types: true };
          const { rows } = ribbonLayout(pattern, options);
          const drawn = rows.flatMap((r) => r.types);
          expect(drawn).toHaveLength(pattern.strokes.filter((s) => s.limb === 'R' || s.limb === 'L').length);
          for (const row of rows) {
            // Letters of 10 px are 6.2 wide and 7.3 high.
            const pairs = row.types.flatMap((a, i) => row.types.slice(i + 1).map((b) => [a, b] as const));
            expect(pairs.filter(([a, b]) => Math.abs(a.x - b.x) < 6.2 && Math.abs(a.y - b.y) < 7.3)).toEqual([]);
            for (const t of row.types) {
              expect(t.y).toBeLessThan(row.bodyTop);
              expect(t.y - 7.3).toBeGreaterThan(row.countY);
            }
          }
        },
      ),
    );
  });
});
