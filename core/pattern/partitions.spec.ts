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
