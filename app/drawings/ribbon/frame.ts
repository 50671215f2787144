import { barTicks } from '@core/time';
import { barsSpan, pickupTicks, type Pattern } from '@core/pattern';
import { ROOM_FOR_LABELS, STRIP_SCALE, type Measures } from './measures';
import type { RibbonOptions } from './model';

interface Frame {
  readonly rows: readonly { readonly from: number; readonly until: number }[];
  readonly scale: number;
  readonly width: number;
  /** Where rows begin, in px: behind the pick-up, which stands left of the first bar line. */
  readonly inset: number;
}

/** How the pattern is cut into rows, and px to a tick. */
export function frameOf(pattern: Pattern, options: RibbonOptions, m: Measures): Frame {
  const bar = barTicks(pattern.meter);
  const lead = pickupTicks(pattern);
  const end = Math.max(pattern.start + pattern.length, pattern.grid);
  const room = Math.max(40, options.width - 2 * m.pad);
  if (options.size === 'strip' || options.size === 'card') {
    const shown = Math.max(end - pattern.start, pattern.grid);
    const scale = options.stripTicks
      ? Math.min(room / options.stripTicks, room / (shown + lead), STRIP_SCALE)
      : Math.min(room / (shown + lead), m.most / pattern.grid);
    return {
      rows: [{ from: pattern.start, until: pattern.start + shown }],
      scale,
      width: Math.ceil((shown + lead) * scale) + 2 * m.pad,
      inset: m.pad + lead * scale,
    };
  }
  if (options.bars) {
    const rows = options.bars.map((n) => ({ from: n * bar, until: (n + 1) * bar }));
    const scale = Math.min(room / (bar + lead), m.most / pattern.grid);
    return { rows, scale, width: Math.ceil((bar + lead) * scale) + 2 * m.pad, inset: m.pad + lead * scale };
  }
  const span = barsSpan(pattern).bars;
  // Short phrases get slots wide enough for labels; long ones are drawn denser, to stay in sight.
  const least = span <= 2 ? Math.max(m.least, ROOM_FOR_LABELS) : m.least;
  const perRow = Math.max(
    1,
    Math.min(span, Math.floor((room - (lead / pattern.grid) * least) / ((bar / pattern.grid) * least))),
  );
  // Rows as even as they can be: five bars with room for four make three and two.
  const rowCount = Math.ceil(span / perRow);
  const even = Math.ceil(span / rowCount);
  const whole = pattern.start > 0 || end >= bar;
  const rows = Array.from({ length: rowCount }, (_, i) => ({
    from: i * even * bar,
    until: Math.min(
      (i + 1) * even * bar,
      whole && end % bar === 0 ? span * bar : span === 1 && !whole ? end : Math.max(end, i * even * bar + 1),
    ),
  }));
  const widest = rows.reduce<number>((most, r) => Math.max(most, r.until - r.from), pattern.grid);
  const scale = Math.min(room / (widest + lead), m.most / pattern.grid);
  return { rows, scale, width: Math.ceil((widest + lead) * scale) + 2 * m.pad, inset: m.pad + lead * scale };
}
