import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { dateWords } from '@core/plan';
import { CHART_HEIGHT, MARGIN } from './model';

/** A scale of days with its ticks: whole days only, each named once. */
export function dayAxis(
  from: number,
  until: number,
  width: number,
): {
  readonly x: ScaleLinear<number, number>;
  readonly ticks: readonly { readonly x: number; readonly text: string }[];
} {
  // One day alone stands in the middle.
  const [first, last] = from === until ? [from - 1, until + 1] : [from - 0.5, until + 0.5];
  const x = scaleLinear([first, last], [MARGIN.left, width - MARGIN.right]);
  const days = [...new Set(x.ticks(Math.max(2, Math.floor(width / 130))).map(Math.round))];
  const long = until - from > 300;
  return {
    x,
    ticks: days.filter((d) => d >= first && d <= last).map((d) => ({ x: x(d), text: dateWords(d, long) })),
  };
}

/** A scale of values upwards with its ticks. */
export function valueAxis(
  least: number,
  most: number,
  ticks = 5,
): {
  readonly y: ScaleLinear<number, number>;
  readonly ticks: readonly { readonly y: number; readonly text: string }[];
} {
  const y = scaleLinear([least, most === least ? least + 1 : most], [CHART_HEIGHT - MARGIN.bottom, MARGIN.top]).nice();
  return { y, ticks: y.ticks(ticks).map((t) => ({ y: y(t), text: t.toLocaleString('en') })) };
}
