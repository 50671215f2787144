import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import fc from 'fast-check';
import { GRID, meter } from '@core/time';
import { patternOfText } from '@core/pattern';
import { parseStrokeText } from '@core/stroke';
import { FollowComponent } from './follow.component';
import { barsInSight } from './follow';

/** A phrase of whole bars in a meter. */
const barsOf = (bars: number, m = meter(4, 4)) => {
  const slots = (m.beats * 16) / m.unit;
  const read = parseStrokeText(`(R! ${'l '.repeat(slots - 1)})x${bars}`);
  return patternOfText(read.ok ? read.value : [], m, GRID.sixteenths);
};

describe('the bars in sight', () => {
  it('up to two bars all is in sight', () => {
    for (const bars of [1, 2]) expect(barsInSight(barsOf(bars), 0, 0)).toBeNull();
  });
  it('at every moment the bar that sounds is the first in sight and the one that comes is the next', () => {
    const settings = fc.record({
      bars: fc.integer({ min: 3, max: 9 }),
      m: fc.constantFrom(meter(4, 4), meter(7, 8), meter(5, 4), meter(3, 4), meter(12, 8)),
      at: fc.double({ min: 0, max: 0.999, noNaN: true }),
      round: fc.integer({ min: 0, max: 3 }),
    });
    fc.assert(
      fc.property(settings, ({ bars, m, at, round }) => {
        const phrase = barsOf(bars, m);
        const loop = phrase.length;
        const tick = Math.floor(at * loop) + round * loop;
        // Counted bar by bar, as a player would.
        let [bar, left] = [0, tick];
        const long = (20_160 / m.unit) * m.beats;
        while (left >= long) [bar, left] = [(bar + 1) % bars, left - long];
        expect(barsInSight(phrase, tick, loop)).toEqual([bar, bar === bars - 1 ? 0 : bar + 1]);
      }),
    );
  });
  it('in silence and in the count-in the beginning is in sight', () => {
    for (const tick of [null, -1, -20_000]) expect(barsInSight(barsOf(4), tick, 80_640)).toEqual([0, 1]);
  });
});

describe('the drawing that follows', () => {
  it('draws two bars at most, the one that sounds first, with the line in it; they change at the bar line', () => {
    const fixture = TestBed.createComponent(FollowComponent);
    const position = signal<number | null>(null);
    const phrase = barsOf(4);
    fixture.componentRef.setInput('pattern', phrase);
    fixture.componentRef.setInput('position', position);
    fixture.componentRef.setInput('loop', phrase.length);
    const host = fixture.nativeElement as HTMLElement;
    const names = (): (string | undefined)[] => {
      fixture.detectChanges();
      return [...host.querySelectorAll('.bar-name')].map((n) => n.textContent?.trim());
    };
    expect(names()).toEqual(['bar 1', 'bar 2']);
    expect(host.querySelectorAll('.stem')).toHaveLength(32);
    const seen: (string | undefined)[][] = [];
    for (let tick = 0; tick < 2 * phrase.length; tick += 2520) {
      position.set(tick);
      const now = names();
      if (seen.at(-1)?.join() !== now.join()) seen.push(now);
      expect(host.querySelectorAll('.playhead')).toHaveLength(1);
      const [line, first] = [host.querySelector('.playhead')!, host.querySelector('.bar-name')!];
      // All but the last half slot, which leads over to the next bar, the line is in the upper of the two.
      expect(Number(line.getAttribute('y1'))).toBeLessThan(Number(first.getAttribute('y')) + 60);
    }
    const round = ['bar 1,bar 2', 'bar 2,bar 3', 'bar 3,bar 4', 'bar 4,bar 1'];
    expect(seen.map((s) => s.join())).toEqual([...round, ...round]);
  });
});
