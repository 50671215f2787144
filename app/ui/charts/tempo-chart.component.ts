import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input } from '@angular/core';
import { extent, max, min } from 'd3-array';
import { scaleLinear, scaleTime } from 'd3-scale';
import { line } from 'd3-shape';
import { format } from 'date-fns';
import { count } from '@core/base';
import type { DayPoint } from '@core/drill';
import { followWidth } from '../follow-size';

/** Up to so many days each mark is one to point at; beyond, they are drawn as one. */
const MOST_POINTED = 90;

const HEIGHT = 260;
const MARGIN = { top: 18, right: 78, bottom: 30, left: 44 };

/**
 * Tempo against date for one phrase: the best clean tempo of each day as a line, what was only tried as open marks, the
 * goal as a line.
 */
@Component({
  selector: 'ls-tempo-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './tempo-chart.component.html',
  styleUrl: './tempo-chart.component.css',
})
export class TempoChartComponent {
  readonly days = input.required<readonly DayPoint[]>();
  readonly goal = input.required<number>();
  readonly height = HEIGHT;
  readonly margin = MARGIN;
  private readonly room = followWidth(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);

  readonly chart = computed(() => {
    const days = this.days();
    const goal = this.goal();
    const width = this.room();
    const [first = 0, last = 0] = extent(days, (d) => d.day) as [number?, number?];
    const day = 24 * 60 * 60 * 1000;
    const x = scaleTime([new Date(first - day / 2), new Date(last + day / 2)], [MARGIN.left, width - MARGIN.right]);
    const lows = days.map((d) => Math.min(d.clean ?? d.tried, d.tried));
    const y = scaleLinear(
      [Math.min(min(lows) ?? goal, goal) - 5, Math.max(max(days, (d) => d.tried) ?? goal, goal) + 5],
      [HEIGHT - MARGIN.bottom, MARGIN.top],
    ).nice();
    const pointed = days.length <= MOST_POINTED;
    const date = (d: DayPoint): string => (pointed ? format(d.day, 'd MMM') : '');
    const clean = days.flatMap((d) =>
      d.clean === null ? [] : [{ x: x(d.day), y: y(d.clean), bpm: d.clean, date: date(d) }],
    );
    const tried = days
      .filter((d) => d.tried > (d.clean ?? 0))
      .map((d) => ({ x: x(d.day), y: y(d.tried), bpm: d.tried, date: date(d) }));
    const path = line<{ x: number; y: number }>()
      .x((d) => d.x)
      .y((d) => d.y)(clean);
    return {
      width,
      path: path ?? '',
      pointed,
      clean,
      tried,
      cleanDots: pointed ? '' : dots(clean, 2.5),
      triedDots: pointed ? '' : dots(tried, 2),
      goal: { y: y(goal), bpm: goal },
      ticksY: y.ticks(5).map((t) => ({ y: y(t), text: String(t) })),
      // Of a few days the ticks are hours: each day is named once.
      ticksX: x
        .ticks(Math.max(2, Math.floor(width / 150)))
        .map((t) => ({ x: x(t), text: format(t, 'd MMM') }))
        .filter((t, i, all) => t.text !== all[i - 1]?.text),
      words: `Best clean tempo by day, ${count(clean.length, 'day')}; the newest ${clean.at(-1)?.bpm ?? 'none'}, the goal ${goal}`,
    };
  });
}

/** Many round marks as one path. */
function dots(at: readonly { readonly x: number; readonly y: number }[], r: number): string {
  return at
    .map(({ x, y }) => `M${(x - r).toFixed(1)} ${y.toFixed(1)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`)
    .join('');
}
