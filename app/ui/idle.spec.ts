import { inSlices } from './idle';

/** A clock that a test turns: each look at it takes a millisecond. */
function slowClock(): void {
  let now = 0;
  jest.spyOn(performance, 'now').mockImplementation(() => now++);
}
const later = (): Promise<void> => new Promise((r) => setTimeout(r, 5));

describe('long work in slices', () => {
  afterEach(() => jest.restoreAllMocks());

  it('does a short list at once', () => {
    const seen: number[] = [];
    let over = 0;
    inSlices(
      [1, 2, 3],
      (n) => seen.push(n),
      () => over++,
    );
    expect([seen, over]).toEqual([[1, 2, 3], 1]);
  });
  it('leaves the page alone between slices, and ends with every item done once', async () => {
    slowClock();
    const seen: number[] = [];
    let over = 0;
    const items = Array.from({ length: 50 }, (_, i) => i);
    inSlices(
      items,
      (n) => seen.push(n),
      () => over++,
    );
    expect(seen.length).toBeGreaterThan(0);
    expect(seen.length).toBeLessThan(20);
    expect(over).toBe(0);
    for (let i = 0; i < 50 && over === 0; i++) await later();
    expect([seen, over]).toEqual([items, 1]);
  });
  it('called off, it does no more and is never over', async () => {
    slowClock();
    let [done, over] = [0, 0];
    const off = inSlices(
      Array.from({ length: 50 }, () => 0),
      () => done++,
      () => over++,
    );
    const before = done;
    off();
    await later();
    await later();
    expect([done, over]).toEqual([before, 0]);
  });
});
