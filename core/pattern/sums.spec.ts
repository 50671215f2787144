import fc from 'fast-check';
import { anyNodes, METERS } from '../testing/arbitraries';
import { mod } from '../base';
import { barTicks, beatTicks, gridsOf, meterText, parseCount, USUAL_SCHOOLS, type Meter } from '../time';
import { isHand, otherHand } from '../stroke';
import {
  balance,
  barsSpan,
  countingOf,
  countOfStroke,
  crossRhythm,
  difference,
  differenceWords,
  fitSum,
  isSymmetric,
  leadHand,
  lengthWords,
  loopTicks,
  notesPerSecond,
  patternOfText,
  placeWords,
  startsToEndOn,
  unisons,
  type Pattern,
} from '.';

const anyMeterHere = fc.constantFrom(...METERS);
const anyPattern: fc.Arbitrary<Pattern> = fc.tuple(anyNodes, anyMeterHere, fc.nat(20)).map(([nodes, m, pick]) => {
  const grids = gridsOf(m);
  return patternOfText(nodes, m, grids[pick % grids.length]!);
});

describe.each(METERS.map((m) => [meterText(m), m] as const))('the sums in %s', (_, m: Meter) => {
  const bar = barTicks(m);
  it('a start that ends on a count does end there, and every start that does is listed', () => {
    const grid = gridsOf(m).find((g) => g <= 2520)!;
    const slots = bar / grid;
    for (const text of ['R', 'R L K', 'R L R L R L R']) {
      const nodes = text.split(' ').map((limb) => ({
        kind: 'strokes' as const,
        strokes: [{ limb: limb as 'R' | 'L' | 'K', level: 'tap' as const }],
      }));
      const p = patternOfText(nodes, m, grid);
      for (let slot = 0; slot < slots; slot++) {
        const starts = startsToEndOn(p, slot * grid, 2);
        const plain = Array.from({ length: 2 * slots }, (_x, i) => i * grid).filter(
          (s) => mod(s + p.length - grid, bar) === slot * grid && s + p.length <= 2 * bar,
        );
        expect(starts).toEqual(plain);
      }
    }
  });

  it('the count of every stroke is found again by its words', () => {
    fc.assert(
      fc.property(anyNodes, fc.nat(20), (nodes, pick) => {
        const grids = gridsOf(m);
        const p = patternOfText(nodes, m, grids[pick % grids.length]!);
        for (const s of p.strokes.slice(0, 20)) {
          const { bar: n, text } = countOfStroke(p, s.at, USUAL_SCHOOLS);
          expect(parseCount(`${n}:${text}`, countingOf(p, USUAL_SCHOOLS))).toBe(s.at);
          expect(placeWords(p, s.at, USUAL_SCHOOLS)).toMatch(
            /^(beat \d+|just after .+|the .+ (of|after) .*?\d+)( in bar -?\d+)?$/,
          );
        }
      }),
      { numRuns: 30 },
    );
  });
});

describe('laws', () => {
  it('slots = repeats × cell + rest, and the rest is less than a cell', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 1, max: 60 }), (slots, cell) => {
        const sum = fitSum(slots, cell)!;
        expect(sum.repeats * cell + sum.rest).toBe(slots);
        expect(sum.rest).toBeLessThan(cell);
        expect(sum.text.startsWith(`${slots} = ${sum.repeats} × ${cell}`)).toBe(true);
      }),
    );
    expect(fitSum(4, 0)).toBeNull();
  });
  it('g against b: as many accents as fit until both fall together, and no sooner', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 16 }), (g, b) => {
        const { accents, beats } = crossRhythm(g, b);
        expect(accents * g).toBe(beats * b);
        for (let n = 1; n < accents; n++) expect((n * g) % b).not.toBe(0);
      }),
    );
  });
  it('unisons are the ticks with more than one stroke; loads add up to the strokes', () => {
    fc.assert(
      fc.property(anyPattern, (p) => {
        const counts = new Map<number, number>();
        for (const s of p.strokes) counts.set(s.at, (counts.get(s.at) ?? 0) + 1);
        expect(unisons(p)).toEqual([...counts].filter(([, n]) => n > 1).map(([at]) => at));
        const loads = balance(p);
        expect(loads.reduce((n, l) => n + l.strokes, 0)).toBe(p.strokes.length);
        expect(loads.every((l) => l.longestRun >= 1 && l.longestRun <= l.strokes && l.accents <= l.strokes)).toBe(true);
      }),
    );
  });
  it('a pattern does not differ from itself; a stroke left out is one difference, and as many ways back', () => {
    fc.assert(
      fc.property(anyPattern, fc.nat(50), (p, pick) => {
        expect(difference(p, p)).toEqual([]);
        expect(differenceWords(p, p, USUAL_SCHOOLS)).toBe('The same.');
        if (p.strokes.length === 0) return;
        const gone = pick % p.strokes.length;
        const less = { ...p, strokes: p.strokes.filter((_, i) => i !== gone) };
        expect(difference(p, less).map((d) => d.kind)).toEqual(['left out']);
        expect(difference(less, p).map((d) => d.kind)).toEqual(['added']);
      }),
    );
  });
  it('a phrase followed by its mirror is symmetric, and leads with both hands', () => {
    fc.assert(
      fc.property(anyPattern, (p) => {
        // Where both hands only strike together neither leads.
        const hands = p.strokes.filter((s) => isHand(s.limb));
        if (hands.every((s) => hands.some((o) => o.at === s.at && o.limb !== s.limb))) return;
        const second = p.strokes.map((s) => ({ ...s, at: (s.at + p.length) as typeof s.at, limb: otherHand(s.limb) }));
        const both = { ...p, length: (p.length * 2) as typeof p.length, strokes: [...p.strokes, ...second] };
        expect(isSymmetric(both)).toBe(true);
        const first = leadHand(p.strokes);
        expect(leadHand(second)).toBe(first === null ? null : otherHand(first));
      }),
    );
  });
  it('notes per second: every slot of a grid at a tempo', () => {
    for (const m of METERS)
      for (const g of gridsOf(m)) expect(notesPerSecond(barTicks(m) / g, barTicks(m), 60)).toBeCloseTo(5040 / g, 6);
  });
  it('loops in its own length from the bar line, in whole bars from elsewhere', () => {
    fc.assert(
      fc.property(anyPattern, fc.integer({ min: 1, max: 3 }), (p, beats) => {
        expect(loopTicks(p)).toBe(p.length);
        const later = { ...p, start: (beats * beatTicks(p.meter)) as typeof p.start };
        expect(loopTicks(later) % barTicks(p.meter)).toBe(0);
        expect(loopTicks(later)).toBe(barsSpan(later).ticks);
        expect(lengthWords(p)).toMatch(
          /^(half a bar|[\d.¼½¾]+ (bars?|slots?|whole notes?|half notes?|dotted quarters?|quarters?|eighths?|sixteenths?|(triplet|quintuplet|sextuplet|septuplet) notes?|thirty-seconds?|sixty-fourths?))( over \d+ bars)?$/,
        );
      }),
    );
  });
});
