import fc from 'fast-check';
import { partitions, PARTITION_LIMITS } from '.';

/** All orders of groups, the plain way: what the bounded search must agree with. */
function every(slots: number, sizes: readonly number[]): number[][] {
  if (slots === 0) return [[]];
  return sizes.flatMap((s) => (s <= slots ? every(slots - s, sizes).map((rest) => [s, ...rest]) : []));
}

describe('partitions', () => {
  it('20 slots in 3, 4 and 5: one size first, then two, then three', () => {
    const { best, complete } = partitions(20, [3, 4, 5], 4);
    expect(complete).toBe(true);
    expect(best.slice(0, 2)).toEqual([
      [5, 5, 5, 5],
      [4, 4, 4, 4, 4],
    ]);
    const different = best.map((g) => new Set(g).size);
    expect([...different].sort()).toEqual(different);
    expect(different[2]).toBe(2);
    expect(best.some((g) => [...g].sort((a, b) => b - a).join() === '5,5,4,3,3')).toBe(true);
  });
  it('the odd one stands last before symmetric ones', () =>
    expect(partitions(14, [5, 4], 4).best[0]).toEqual([5, 5, 4]));
  it('finds as many as trying all, when none are left out', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 18 }),
        fc.uniqueArray(fc.integer({ min: 1, max: 8 }), { minLength: 1, maxLength: 4 }),
        (slots, sizes) => {
          const { best, found, complete } = partitions(slots, sizes, 4);
          const all = every(slots, sizes);
          expect(complete ? found : Math.min(found, all.length)).toBe(complete ? all.length : found);
          expect(best.every((g) => g.reduce((a, b) => a + b, 0) === slots)).toBe(true);
          expect(new Set(best.map((g) => g.join())).size).toBe(best.length);
        },
      ),
    );
  });
  it('the order holds beyond the bound: as sorting all of them by the rule has it', () => {
    // The rule once more, by its words: a number for each of its points, held against each other in turn.
    const points = (g: readonly number[], beat: number): number[] => {
      const sizes = new Set(g);
      const odd = sizes.size === 1 || (sizes.size === 2 && g.slice(0, -1).every((x) => x === g[0] && x !== g.at(-1)));
      let at = 0;
      let on = 0;
      for (const size of g) {
        if (sizes.size > 1 && at % beat === 0) on++;
        at += size;
      }
      return [sizes.size, odd ? 0 : 1, g.join() === [...g].reverse().join() ? 0 : 1, -on / g.length, g.length];
    };
    const before = (x: readonly number[], y: readonly number[]): number => {
      for (let i = 0; i < Math.min(x.length, y.length); i++) if (x[i] !== y[i]) return x[i]! - y[i]!;
      return x.length - y.length;
    };
    for (const [slots, sizes] of [
      [28, [2, 3, 4, 5]],
      [32, [3, 4, 5]],
      [40, [3, 5, 7]],
      [26, [2, 3]],
      [20, [1, 2, 3]],
    ] as const) {
      const all = every(slots, sizes);
      const { best, complete, ranked, found } = partitions(slots, sizes, 4);
      expect([complete, found]).toEqual([
        all.length <= PARTITION_LIMITS.found,
        Math.min(all.length, PARTITION_LIMITS.found),
      ]);
      expect(ranked).toBe(true);
      // Each has its points once, not in every comparison.
      const ranks = all.map((g) => ({ g, rank: [...points(g, 4), ...g.map((n) => -n)] }));
      const sorted = ranks.sort((a, b) => before(a.rank, b.rank)).map((r) => r.g);
      expect(best).toEqual(sorted.slice(0, PARTITION_LIMITS.best));
    }
  });
  it('other sizes give others, and a space of 64 slots is ranked too', () => {
    const some = partitions(64, [2, 3, 4, 5], 4);
    const others = partitions(64, [3, 4, 5], 4);
    expect([some.ranked, others.ranked]).toEqual([true, true]);
    expect(some.best[0]).toEqual(Array.from({ length: 16 }, () => 4));
    expect(others.best).not.toEqual(some.best);
    expect(others.best.flat()).not.toContain(2);
  });
  it('stops at its bound and says so', () => {
    const p = partitions(64, [2, 3, 4, 5], 4);
    expect([p.complete, p.found, p.best.length]).toEqual([false, PARTITION_LIMITS.found, PARTITION_LIMITS.best]);
  });
  it.each([
    [10, []],
    [7, [2, 4]],
    [100_000, [1]],
  ])('%d in %j is nothing', (slots, sizes) => expect(partitions(slots, sizes, 4).best).toEqual([]));
});
