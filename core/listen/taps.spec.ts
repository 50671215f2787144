import fc from 'fast-check';
import { GRID, meter } from '../time';
import { quantiseTaps, tempoOfSlot, type Tap } from '.';

const taps = (seconds: readonly number[], limb: Tap['limb'] = 'R'): Tap[] => seconds.map((s) => ({ seconds: s, limb }));

describe('taps without a click', () => {
  it('hands that fall almost together are a unison', () => {
    const read = quantiseTaps([...taps([0, 0.25, 0.5]), { seconds: 0.52, limb: 'L' }]);
    expect(read.ok && read.value.text).toBe('R R R+L');
  });
  it.each([[[]], [[0]], [[0, 0.3]]])('%j is too few', (seconds) => expect(quantiseTaps(taps(seconds)).ok).toBe(false));
  it('a rhythm tapped with human looseness is read as it was meant, at any tempo', () => {
    const rhythm = fc
      .array(fc.constantFrom(1, 1, 1, 2, 2, 3, 4), { minLength: 5, maxLength: 24 })
      .filter((r) => r.includes(1) && r.filter((n) => n === 1).length >= 2);
    fc.assert(
      fc.property(
        rhythm,
        fc.double({ min: 0.1, max: 0.3, noNaN: true }),
        fc.array(fc.double({ min: -0.06, max: 0.06, noNaN: true }), { minLength: 25, maxLength: 25 }),
        (gaps, slot, noise) => {
          const at = [0];
          for (const g of gaps) at.push((at.at(-1) ?? 0) + g);
          const read = quantiseTaps(taps(at.map((n, i) => (n + (noise[i] ?? 0)) * slot)));
          const expected = gaps.map((g) => `R${' -'.repeat(g - 1)}`).join(' ') + ' R';
          expect(read.ok && read.value.text).toBe(expected);
          expect(read.ok && read.value.loose).toBeLessThan(0.2);
        },
      ),
      { numRuns: 300 },
    );
  });
  it('the tempo follows from the slot, held to what can be played', () => {
    expect(tempoOfSlot(0.2, GRID.eighths, meter(4, 4))).toBe(150);
    expect(tempoOfSlot(9, GRID.sixteenths, meter(4, 4))).toBe(20);
  });
});

describe('what taps are read as', () => {
  /** Taps at given distances in beats, at a tempo, each off by some ms. */
  const tapped = (beats: readonly number[], bpm: number, off: readonly number[]): Tap[] => {
    let at = 1;
    return [0, ...beats].map((b, i) => ({
      seconds: (at += (b * 60) / bpm) + (off[i % off.length] ?? 0) / 1000,
      limb: 'R',
    }));
  };
  const anyOff = fc.array(fc.integer({ min: -12, max: 12 }), { minLength: 3, maxLength: 7 });
  const four = meter(4, 4);
  it('long and short in turn is triplets at the tempo it was tapped', () => {
    fc.assert(
      fc.property(fc.integer({ min: 70, max: 160 }), fc.integer({ min: 2, max: 8 }), anyOff, (bpm, pairs, off) => {
        const beats = Array.from({ length: pairs }, () => [2 / 3, 1 / 3]).flat();
        const read = quantiseTaps(tapped(beats, bpm, off));
        if (!read.ok) throw new Error('too few');
        expect(read.value.grid).toBe(GRID.triplets);
        expect(Math.abs(tempoOfSlot(read.value.slot, read.value.grid, four) / bpm - 1)).toBeLessThan(0.08);
      }),
    );
  });
  it('even taps are read at a tempo that somebody counts, never as 16ths at 37', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.08, max: 0.9, noNaN: true }), fc.integer({ min: 4, max: 16 }), (gap, many) => {
        const read = quantiseTaps(Array.from({ length: many }, (_, i): Tap => ({ seconds: i * gap, limb: 'R' })));
        if (!read.ok) throw new Error('too few');
        const bpm = tempoOfSlot(read.value.slot, read.value.grid, four);
        expect(bpm).toBeGreaterThanOrEqual(55);
        expect(bpm).toBeLessThanOrEqual(200);
        // A slot lasts as long as it was tapped, whatever it is called.
        expect(Math.abs((60 / bpm) * (read.value.grid / GRID.quarters) - gap)).toBeLessThan(0.01 + gap * 0.02);
      }),
    );
  });
});
