import { inSlices, inSteps, nextTask } from './idle';

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

describe('a work in steps', () => {
  function* work(log: number[], n: number): Generator<void, string> {
    for (let i = 0; i < n; i++) {
      log.push(i);
      yield;
    }
    return 'all of it';
  }
  it('is over at once where it fits into a frame', () => {
    const over = jest.fn();
    const log: number[] = [];
    inSteps(work(log, 3), over, jest.fn());
    expect([log, over.mock.calls]).toEqual([[0, 1, 2], [['all of it']]]);
  });
  it('lets the page in where it takes long, goes on after it, and can be called off', async () => {
    let now = 0;
    const clock = jest.spyOn(performance, 'now').mockImplementation(() => (now += 20));
    const [over, log] = [jest.fn(), [] as number[]];
    inSteps(work(log, 6), over, jest.fn());
    const atOnce = log.length;
    expect(atOnce).toBeGreaterThan(0);
    expect(atOnce).toBeLessThan(6);
    const [left, kept] = [[] as number[], jest.fn()];
    const off = inSteps(work(left, 6), kept, jest.fn());
    off();
    const before = left.length;
    for (let i = 0; i < 20; i++) await nextTask();
    expect([log.length, over.mock.calls]).toEqual([6, [['all of it']]]);
    expect([left.length, kept.mock.calls]).toEqual([before, []]);
    clock.mockRestore();
  });
  it('tells what went wrong, in a later step too', () => {
    const failed = jest.fn();
    function* breaks(): Generator<void, void> {
      yield;
      throw new Error('no glyph');
    }
    inSteps(breaks(), jest.fn(), failed);
    expect(failed).toHaveBeenCalledWith(new Error('no glyph'));
  });
});
