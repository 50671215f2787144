import { extent } from 'd3-array';
import { area, line } from 'd3-shape';
import { IN_SIGHT } from '@core/log';
import { dateWords } from '@core/plan';
import { readyTempo, type PractisedDay, type Projection } from '@core/player';
import type { GoalDay } from '@core/recipe';
import { dayAxis, valueAxis } from './axes';
import { CHART_HEIGHT, MARGIN, type ChartModel, type Mark } from './model';

export interface TempoData {
  readonly days: readonly PractisedDay[];
  readonly goal: number;
  readonly by: GoalDay | null;
  readonly projection: Projection | null;
  readonly today: number;
}

/** A fan looks so far ahead at the most, in days, where it has no end. */
const AHEAD = 60;

/** Tempo against date: what was clean, what is believed ready with its band, the goal, its day, and the way there. */
export function tempoChart({ days, goal, by, projection, today }: TempoData, width: number): ChartModel {
  const on = projection?.kind === 'on' && projection.from < today + IN_SIGHT ? projection : null;
  const night = by && by.day >= today ? by.day : null;
  const [first = today, last = today] = extent(days, (d) => d.day) as [number?, number?];
  // The fan is drawn only where something is practised at all.
  const fan = on && days.length > 0 ? (on.until ?? Math.max(on.day ?? 0, on.from, today + AHEAD)) : today;
  const until = Math.max(last, night ?? 0, Math.min(fan, today + 2 * AHEAD));
  const { x, ticks: xTicks } = dayAxis(first, until, width);
  const ready = days.map((d) => ({ day: d.day, ...readyTempo(d.belief) }));
  const values = [goal, ...days.flatMap((d) => [d.tried, d.best ?? d.tried]), ...ready.map((r) => r.low)];
  const { y, ticks: yTicks } = valueAxis(Math.max(0, Math.min(...values) - 4), Math.max(...values) + 4);
  const clamped = (bpm: number): number => Math.max(MARGIN.top, Math.min(CHART_HEIGHT - MARGIN.bottom, y(bpm)));
  const band = area<(typeof ready)[number]>()
    .x((r) => x(r.day))
    .y0((r) => clamped(r.low))
    .y1((r) => clamped(r.high));
  const clean = days.filter((d) => d.best !== null);
  const path = line<{ readonly day: number; readonly bpm: number }>()
    .x((d) => x(d.day))
    .y((d) => clamped(d.bpm));
  const end = ready.at(-1);
  const ahead = (day: number | null): string | null =>
    end && day !== null
      ? path([
          { day: end.day, bpm: end.bpm },
          { day: Math.min(day, until), bpm: goal },
        ])
      : null;
  const fanArea =
    end && on
      ? `M${x(end.day)} ${clamped(end.bpm)}L${x(Math.min(on.from, until))} ${y(goal)}L${x(Math.min(on.until ?? until, until))} ${on.until === null ? clamped(end.bpm) : y(goal)}Z`
      : null;
  const likely = on ? ahead(on.day) : null;
  const marks: Mark[] = days.flatMap((d, i): Mark[] => {
    const r = ready[i];
    const believed = r ? `, ready ${Math.round(r.bpm)} (${Math.round(r.low)} to ${Math.round(r.high)})` : '';
    const date = dateWords(d.day);
    if (d.best !== null && d.best >= d.tried)
      return [
        { x: x(d.day), y: y(d.best), as: 'disc', tone: 'accent', words: `${date}: ${d.best} bpm clean${believed}` },
      ];
    const tried: Mark = {
      x: x(d.day),
      y: y(d.tried),
      as: 'ring',
      tone: 'quiet',
      words: `${date}: ${d.tried} bpm tried, messy${believed}`,
    };
    return d.best === null
      ? [tried]
      : [
          tried,
          { x: x(d.day), y: y(d.best), as: 'disc', tone: 'accent', words: `${date}: ${d.best} bpm clean${believed}` },
        ];
  });
  return {
    width,
    height: CHART_HEIGHT,
    xName: 'day',
    yName: 'beats a minute',
    xTicks,
    yTicks,
    areas: [
      ...(ready.length > 1 ? [{ path: band(ready) ?? '', tone: 'metal' as const }] : []),
      ...(fanArea ? [{ path: fanArea, tone: 'wood' as const }] : []),
    ],
    lines: [
      ...(ready.length > 1
        ? [{ path: path(ready.map((r) => ({ day: r.day, bpm: r.bpm }))) ?? '', tone: 'metal' as const, dashed: false }]
        : []),
      ...(clean.length > 1
        ? [
            {
              path: path(clean.map((d) => ({ day: d.day, bpm: d.best ?? 0 }))) ?? '',
              tone: 'accent' as const,
              dashed: true,
            },
          ]
        : []),
      ...(likely ? [{ path: likely, tone: 'wood' as const, dashed: true }] : []),
    ],
    rules: [
      { x1: MARGIN.left, x2: width - MARGIN.right, y1: y(goal), y2: y(goal), tone: 'mark', text: `goal ${goal}` },
      ...(night === null
        ? []
        : [
            {
              x1: x(night),
              x2: x(night),
              y1: CHART_HEIGHT - MARGIN.bottom,
              y2: MARGIN.top + 8,
              tone: 'foot' as const,
              text: by?.what === 'day' ? 'wanted' : (by?.what ?? ''),
            },
          ]),
    ],
    marks,
    keys: [
      { tone: 'accent', as: 'disc', text: 'best clean of the day' },
      { tone: 'quiet', as: 'ring', text: 'faster, but messy' },
      { tone: 'metal', as: 'area', text: 'ready, four of five within the band' },
      ...(fanArea ? [{ tone: 'wood' as const, as: 'area' as const, text: 'at the present pace' }] : []),
    ],
  };
}
