import fc from 'fast-check';
import { chosen, type Choosable } from '.';

/** The most that can be had, by trying every length of every thing. */
function byTrying(items: readonly Choosable[], minutes: number, load: number | null): number {
  const [first, ...rest] = items;
  if (!first) return 0;
  let most = byTrying(rest, minutes, load);
  for (const l of first.lengths)
    if (l.minutes <= minutes && (load === null || l.load <= load))
      most = Math.max(most, l.value + byTrying(rest, minutes - l.minutes, load === null ? null : load - l.load));
  return most;
}

const items = (most: number, lengths: number) =>
  fc
    .array(
      fc.array(
        fc.record({
          minutes: fc.integer({ min: 1, max: 14 }),
          value: fc.oneof(fc.double({ min: 0, max: 1, noNaN: true }), fc.constantFrom(0, 0.25, 0.5)),
          load: fc.integer({ min: 0, max: 9 }),
        }),
        { maxLength: lengths },
      ),
      { maxLength: most },
    )
    .map((all) => all.map((own, i): Choosable => ({ id: `i${i}`, lengths: own })));

const minutes = fc.integer({ min: 0, max: 30 });
const load = fc.option(fc.integer({ min: 0, max: 20 }));

describe('the choice of what to practise', () => {
  const sum = (all: ReturnType<typeof chosen>, of: 'minutes' | 'value' | 'load'): number =>
    all.reduce((s, c) => s + c.length[of], 0);
  it('is worth as much as the best of all choices: up to eight things of twelve lengths', () => {
    fc.assert(
      fc.property(items(8, 12), minutes, load, (all, m, l) => {
        const found = chosen(all, m, l);
        expect(sum(found, 'value')).toBeCloseTo(byTrying(all, m, l), 9);
        expect(sum(found, 'minutes')).toBeLessThanOrEqual(m);
        if (l !== null) expect(sum(found, 'load')).toBeLessThanOrEqual(l);
        expect(new Set(found.map((c) => c.id)).size).toBe(found.length);
      }),
      { numRuns: 120 },
    );
  });
  it('among many things is that among those that could be in it', () => {
    // Few lengths and few minutes, so that all can be tried though the things are many.
    fc.assert(
      fc.property(items(16, 3), fc.integer({ min: 0, max: 12 }), load, (all, m, l) => {
        expect(sum(chosen(all, m, l), 'value')).toBeCloseTo(byTrying(all, m, l), 9);
      }),
      { numRuns: 60 },
    );
  });
  it('of a thing with very many lengths is one of them', () => {
    const lengths = Array.from({ length: 2000 }, (_, i) => ({
      minutes: 1 + (i % 9),
      value: ((i * 37) % 101) / 100,
      load: i % 3,
    }));
    const [found] = chosen([{ id: 'new', lengths }], 9, 2);
    expect(found?.length.value).toBe(Math.max(...lengths.map((l) => l.value)));
  });
  it('of the same question is the same, and of nothing nothing', () => {
    fc.assert(
      fc.property(items(8, 6), minutes, load, (all, m, l) => expect(chosen(all, m, l)).toEqual(chosen(all, m, l))),
      { numRuns: 30 },
    );
    expect(chosen([], 30, null)).toEqual([]);
    expect(chosen([{ id: 'a', lengths: [] }], 30, 5)).toEqual([]);
  });
});
