import fc from 'fast-check';
import { anyMeter, METERS } from '../testing/arbitraries';
import {
  barTicks,
  beatTicks,
  countAt,
  countedBeats,
  countWords,
  gridName,
  gridsOf,
  meterText,
  parseCount,
  parseGrid,
  parseMeter,
  swung,
  ticks,
  type Schools,
} from '.';

const SCHOOLS: readonly Schools[] = [
  { triplets: 'trip-let', sextuplets: 'trip-let' },
  { triplets: 'and-a', sextuplets: 'ta-la' },
];
const [usual] = SCHOOLS as [Schools];

function row(text: string, grid: string, schools = usual): string {
  const m = parseMeter(text)!;
  const slot = parseGrid(grid)!;
  return Array.from(
    { length: barTicks(m) / slot },
    (_, i) => countAt(i * slot, { meter: m, grid: slot, schools }).text,
  ).join(' ');
}

describe('meters', () => {
  it.each([
    ['4/4', 20160, 4],
    ['3/4', 15120, 3],
    ['6/8', 15120, 2],
    ['12/8', 30240, 4],
    ['5/4', 25200, 5],
    ['7/8', 17640, 7],
    ['11/16', 13860, 11],
    ['6/8 2+2+2', 15120, 6],
  ])('%s is %d ticks long and counted in %d', (text, length, beats) => {
    const m = parseMeter(text)!;
    expect(barTicks(m)).toBe(length);
    expect(countedBeats(m)).toHaveLength(beats);
  });

  it.each(['', '4', '0/4', '33/4', '4/3', '7/8 2+2', '7/8 7+0', '-4/4', '4/4/4'])('refuses “%s”', (text) =>
    expect(parseMeter(text)).toBeNull(),
  );

  it('what is written is read back', () => {
    fc.assert(fc.property(anyMeter, (m) => expect(parseMeter(meterText(m))).toEqual(m)));
  });

  it('counted beats fill the bar without gaps', () => {
    fc.assert(
      fc.property(anyMeter, (m) => {
        const beats = countedBeats(m);
        expect(beats.reduce((end, b) => (expect(b.start).toBe(end), b.start + b.length), 0)).toBe(barTicks(m));
        expect(beats[0]?.leads).toBe(true);
      }),
    );
  });
});

describe('grids', () => {
  it('every grid of every usual meter has a name of its own', () => {
    for (const m of METERS) {
      const names = gridsOf(m).map(gridName);
      expect(new Set(names).size).toBe(names.length);
      expect(gridsOf(m).every((g) => beatTicks(m) % g === 0)).toBe(true);
    }
  });
});

describe('counts', () => {
  it.each([
    ['4/4', '16ths', '1 1e 1& 1a 2 2e 2& 2a 3 3e 3& 3a 4 4e 4& 4a'],
    ['4/4', 'triplets', '1 1trip 1let 2 2trip 2let 3 3trip 3let 4 4trip 4let'],
    ['7/8', '16ths', '1 1& 2 2& 3 3& 4 4& 5 5& 6 6& 7 7&'],
    ['6/8', 'eighths', '1 1& 1a 2 2& 2a'],
    ['6/8', '16ths', '1 1· 1& 1&· 1a 1a· 2 2· 2& 2&· 2a 2a·'],
    ['3/4', 'eighths', '1 1& 2 2& 3 3&'],
    ['2/4', '32nds', '1 1· 1e 1e· 1& 1&· 1a 1a· 2 2· 2e 2e· 2& 2&· 2a 2a·'],
    ['2/4', 'quintuplets', '1 1.2 1.3 1.4 1.5 2 2.2 2.3 2.4 2.5'],
    ['2/4', 'sextuplets', '1 1trip 1let 1& 1&trip 1&let 2 2trip 2let 2& 2&trip 2&let'],
  ])('%s on %s', (m, grid, counts) => expect(row(m, grid)).toBe(counts));

  it('the other school says 1 & a and 1 ta la', () => {
    expect(row('2/4', 'triplets', SCHOOLS[1])).toBe('1 1& 1a 2 2& 2a');
    expect(row('2/4', 'sextuplets', SCHOOLS[1])).toBe('1 1ta 1la 1& 1&ta 1&la 2 2ta 2la 2& 2&ta 2&la');
  });

  it('every tick has a count that parses back to it: every grid of any meter, both schools, on the grid and off it', () => {
    fc.assert(
      fc.property(
        anyMeter,
        fc.constantFrom(...SCHOOLS),
        fc.nat(40),
        fc.integer({ min: -20_000, max: 200_000 }),
        (m, schools, pick, tick) => {
          const grids = gridsOf(m);
          const grid = grids[pick % grids.length]!;
          for (const t of [tick, Math.round(tick / grid) * grid + 0]) {
            const count = countAt(t, { meter: m, grid, schools });
            expect(parseCount(`${count.bar}:${count.text}`, { meter: m, grid, schools })).toBe(t);
          }
        },
      ),
      { numRuns: 2000 },
    );
  });

  it('off the home grid the division is said', () => {
    const counting = { meter: parseMeter('4/4')!, grid: ticks(1680), schools: usual };
    expect(countAt(1260, counting).text).toBe('1e/4');
    expect(countAt(37, counting).text).toBe('1+37');
    expect(parseCount('1e', counting)).toBe(1260);
  });

  it.each(['', 'e', '0', '9', '3q', '3e/11', '3+5040', '3&trip', '1e·'])(
    '“%s” is no count of 4/4 in 16ths, or only by another grid',
    (text) => {
      const tick = parseCount(text, { meter: parseMeter('4/4')!, grid: ticks(1260), schools: usual });
      expect(tick === null || tick % 1260 !== 0).toBe(true);
    },
  );

  it.each([
    ['3e', 'the e of 3'],
    ['4&', 'the & of 4'],
    ['2', 'beat 2'],
  ])('%s in a sentence is “%s”', (text, words) => {
    const counting = { meter: parseMeter('4/4')!, grid: ticks(1260), schools: usual };
    expect(countWords(countAt(parseCount(text, counting)!, counting), false)).toBe(words);
  });
});

describe('feel', () => {
  it('swing keeps order, moves no downbeat and is nothing at 0.5', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 100_000 }),
        fc.integer({ min: 1, max: 5000 }),
        fc.double({ min: 0.5, max: 0.75, noNaN: true }),
        (t, d, ratio) => {
          const feel = { kind: 'swung', on: 'eighths', ratio } as const;
          expect(swung(t, feel)).toBeLessThan(swung(t + d, feel));
          expect(swung(Math.floor(t / 5040) * 5040, feel)).toBe(Math.floor(t / 5040) * 5040);
          expect(swung(t, { ...feel, ratio: 0.5 })).toBeCloseTo(t, 6);
        },
      ),
    );
  });
});
