import { build } from '@core/recipe';
import { chooses } from '@core/selection';
import { typed } from '../../testing/fixtures';
import type { StaffPlace } from './draw';
import { LineEngraver } from './engraver';
import { planStaff, type PlannedLine, type StaffOptions } from './plan';

/**
 * The engraving itself needs a browser: here each line that is engraved is only counted, with one moment at its first
 * bar line.
 */
const engraved: string[] = [];
let breaks = false;
/** A clock of the test's own, and how long a bar takes by it, in milliseconds. */
let now = 0;
let barTakes = 0;
jest.mock('./draw', () => ({
  stepLines: function* (host: HTMLElement, lines: readonly PlannedLine[]): Generator<void, readonly StaffPlace[]> {
    if (breaks) throw new Error('no glyph');
    now += barTakes;
    yield;
    host.textContent = lines[0]!.key;
    engraved.push(lines[0]!.key);
    return [{ tick: lines[0]!.from, x: 10, top: 20, bottom: 60 }];
  },
}));

const OPTIONS: StaffOptions = { width: 460, stickings: true, scale: 1 };
const BAR = 'R L R L R L R L R L R L R L R L';
const pattern = (...bars: string[]) => build(typed(bars.join(' '))).pattern;
const plan = (...bars: string[]) => planStaff(pattern(...bars), OPTIONS);

describe('the plan of a staff', () => {
  it('lines that look the same have one key, wherever they stand; the first carries the meter', () => {
    const lines = plan(BAR, BAR, BAR);
    expect(lines.map((l) => l.from)).toEqual([0, 20160, 40320]);
    expect(lines.map((l) => l.first)).toEqual([true, false, false]);
    expect(lines[1]!.key).toBe(lines[2]!.key);
    expect(lines[0]!.key).not.toBe(lines[1]!.key);
  });
  it('an edit in one bar changes the key of its line alone; another width or another sticking line changes all', () => {
    const before = plan(BAR, BAR, BAR);
    const after = plan(BAR, BAR.replace('R L', 'R! L'), BAR);
    expect(after.map((l, i) => l.key === before[i]!.key)).toEqual([true, false, true]);
    for (const other of [
      { ...OPTIONS, width: 480 },
      { ...OPTIONS, stickings: false },
      { ...OPTIONS, scale: 0.5, width: 230 },
    ])
      planStaff(pattern(BAR, BAR, BAR), other).forEach((l, i) => expect(l.key).not.toBe(before[i]!.key));
  });
  it('a hi-hat left open at the end of a line is known on the next', () => {
    const phrase = build({
      ...typed(`${BAR} ${BAR}`),
      moves: [
        {
          id: 'v',
          on: true,
          move: 'voice',
          params: { select: chooses({ bars: [1], limbs: ['R'] }), voices: ['hat-open'] },
        },
      ],
    }).pattern;
    expect(planStaff(phrase, OPTIONS).map((l) => l.open)).toEqual([false, true]);
  });
});

describe('the engraver', () => {
  function engraver() {
    engraved.length = 0;
    breaks = false;
    barTakes = 0;
    jest.spyOn(performance, 'now').mockImplementation(() => now);
    const host = document.createElement('div');
    const lines = new LineEngraver(host);
    const draw = (...bars: string[]): Promise<readonly StaffPlace[]> =>
      new Promise((done, failed) => lines.draw(plan(...bars), pattern(...bars), OPTIONS, done, failed));
    const tops = () => [...host.children].map((c) => (c as HTMLElement).style.top).sort();
    return { host, lines, draw, tops };
  }
  it('engraves each line once, under one another, and tells where every moment stands', async () => {
    const { draw, host, tops } = engraver();
    const places = await draw(BAR, BAR, BAR);
    expect(engraved).toHaveLength(3);
    const heights = plan(BAR, BAR, BAR).map((l) => l.height);
    expect(places.map((p) => [p.tick, p.top])).toEqual([
      [0, 20],
      [20160, 20 + heights[0]!],
      [40320, 20 + heights[0]! + heights[1]!],
    ]);
    expect(tops()).toEqual(['0px', `${heights[0]! + heights[1]!}px`, `${heights[0]!}px`].sort());
    expect(host.style.height).toBe(`${heights.reduce((a, b) => a + b, 0) + 6}px`);
  });
  it('after an edit only the line that looks new is engraved; the others stay the same elements', async () => {
    const { draw, host } = engraver();
    await draw(BAR, BAR, BAR);
    const before = new Set(host.children);
    await draw(BAR, BAR.replace('R L', 'R! L'), BAR);
    expect(engraved).toHaveLength(4);
    expect([...host.children].filter((c) => before.has(c))).toHaveLength(2);
    expect(host.children).toHaveLength(3);
  });
  it('a bar put in before moves what is behind it, with its moments', async () => {
    const { draw } = engraver();
    const other = BAR.replace('R L', 'R! L');
    await draw(BAR, other);
    const places = await draw(BAR, BAR, other);
    expect(engraved).toHaveLength(3);
    const [one = 0, two = 0] = plan(BAR, BAR, other).map((l) => l.height);
    expect(places.map((p) => [p.tick, p.top])).toEqual([
      [0, 20],
      [20160, 20 + one],
      [40320, 20 + one + two],
    ]);
  });
  it('bars that take long are engraved in tasks of their own; those that do not, at once', async () => {
    const { lines, draw } = engraver();
    const begin = (...bars: string[]) =>
      lines.draw(plan(...bars), pattern(...bars), OPTIONS, () => undefined, jest.fn());
    barTakes = 5;
    begin(BAR, BAR, BAR);
    expect(engraved).toHaveLength(3);
    barTakes = 30;
    const other = BAR.replace('R L', 'R! L');
    const done = draw(other, other, other);
    // The first bar took longer than a drawing may: it is over when the page was let in.
    expect(engraved).toHaveLength(3);
    await done;
    expect(engraved).toHaveLength(6);
  });
  it('a newer drawing calls the older off; what went wrong is told', async () => {
    const { lines, draw, host } = engraver();
    const done = jest.fn();
    barTakes = 30;
    lines.draw(plan(BAR, BAR, BAR), pattern(BAR, BAR, BAR), OPTIONS, done, jest.fn());
    const places = await draw(BAR);
    await new Promise((r) => setTimeout(r, 20));
    expect(done).not.toHaveBeenCalled();
    expect(places).toHaveLength(1);
    expect(host.children).toHaveLength(1);
    breaks = true;
    await expect(draw(BAR.replace('R L', 'R! L'))).rejects.toThrow('no glyph');
    expect(host.querySelectorAll('[style*="hidden"]').length).toBeLessThan(2);
  });
});
