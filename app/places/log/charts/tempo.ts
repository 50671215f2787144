import { extent } from 'd3-array';
import { area, line } from 'd3-shape';
import { IN_SIGHT } from '@core/log';
import { dateWords } from '@core/plan';
import { readySaid, wholesOf, type PractisedDay, type Projection, type ReadySaid } from '@core/player';
import type { GoalDay } from '@core/recipe';
import { dayAxis, valueAxis } from './axes';
import { CHART_HEIGHT, MARGIN, type ChartModel, type Mark } from './model';

export interface TempoData {
  readonly days: readonly PractisedDay[];
  readonly goal: number;
  readonly by: GoalDay | null;
  readonly projection: Projection | null;
  readonly today: number;
  /** How fast it can go; null where nothing limits it. */
  readonly ceiling: number | null;
}

/** A fan looks so far ahead at the most, in days, where it has no end. */
const AHEAD = 60;

/** So many tries of the whole phrase are looked at for each day. */
const LOOKED_AT = 240;

/** What is believed ready on a day. */
type Ready = { readonly day: number } & Extract<ReadySaid, { kind: 'ready' }>;

/** What a date is for, as it stands beside its line. */
const FOR = { night: 'show', lesson: 'lesson', recording: 'recording', day: 'wanted' } as const;

/** What all parts of one chart share: the scales in px, what is ready, and how far it looks. */
interface Sheet {
  readonly x: (day: number) => number;
  readonly y: (bpm: number) => number;
  /** The same, held inside the chart. */
  readonly held: (bpm: number) => number;
  readonly ready: readonly Ready[];
  readonly until: number;
  readonly on: (Extract<Projection, { kind: 'on' }> & { readonly from: number }) | null;
}

/** What could be said to be ready at the end of each day; days on which it was too early are left out. */
export function readyDays(days: readonly PractisedDay[], ceiling: number | null): readonly Ready[] {
  const wholes = wholesOf(days);
  let until = 0;
  return days.flatMap((d): Ready[] => {
    until += d.wholes.length;
    // Later tries say nothing of that day.
    const said = readySaid(d.belief, wholes.slice(Math.max(0, until - LOOKED_AT), until), ceiling);
    return said.kind === 'ready' ? [{ ...said, day: d.day }] : [];
  });
}

/** Tempo against date: what was clean, what is believed ready with its band, the goal, its day, and the way there. */
export function tempoChart(data: TempoData, width: number): ChartModel {
  const { days, goal, by, projection, today, ceiling } = data;
  const on =
    projection?.kind === 'on' && projection.from !== null && projection.from < today + IN_SIGHT
      ? { ...projection, from: projection.from }
      : null;
  const night = by && by.day >= today ? by : null;
  const [first = today, last = today] = extent(days, (d) => d.day) as [number?, number?];
  // The fan is drawn only where something is practised at all.
  const fan = on && days.length > 0 ? (on.until ?? Math.max(on.day ?? 0, on.from, today + AHEAD)) : today;
  const until = Math.max(last, night?.day ?? 0, Math.min(fan, today + 2 * AHEAD));
  const { x, ticks: xTicks } = dayAxis(first, until, width);
  const ready = readyDays(days, ceiling);
  const values = [goal, ...days.flatMap((d) => [d.tried, d.best ?? d.tried]), ...ready.map((r) => r.low)];
  const { y, ticks: yTicks } = valueAxis(Math.max(0, Math.min(...values) - 4), Math.max(...values) + 4);
  const held = (bpm: number): number => Math.max(MARGIN.top, Math.min(CHART_HEIGHT - MARGIN.bottom, y(bpm)));
  const sheet: Sheet = { x, y, held, ready, until, on };
  const ahead = fanOf(sheet, goal);
  return {
    width,
    height: CHART_HEIGHT,
    xName: 'day',
    yName: 'bpm',
    xTicks,
    yTicks,
    areas: [...bandOf(sheet), ...(ahead ? [{ path: ahead, tone: 'wood' as const }] : [])],
    lines: linesOf(sheet, days, goal),
    rules: rulesOf(sheet, goal, night, width),
    marks: days.flatMap((d) =>
      marksOf(
        sheet,
        d,
        ready.find((r) => r.day === d.day),
      ),
    ),
    keys: [
      { tone: 'accent', as: 'disc', text: 'best clean of the day' },
      { tone: 'quiet', as: 'ring', text: 'faster, but messy' },
      { tone: 'metal', as: 'area', text: 'ready: the band holds 4 in 5' },
      ...(ahead ? [{ tone: 'wood' as const, as: 'area' as const, text: 'at this pace' }] : []),
    ],
  };
}

function bandOf({ x, held, ready }: Sheet): ChartModel['areas'] {
  const band = area<Ready>()
    .x((r) => x(r.day))
    .y0((r) => held(r.low))
    .y1((r) => held(r.high));
  return ready.length > 1 ? [{ path: band(ready) ?? '', tone: 'metal' }] : [];
}

/**
 * From what is ready to the goal, as early and as late as the pace allows; open where it may be never. Null where there
 * is none.
 */
function fanOf({ x, y, held, ready, until, on }: Sheet, goal: number): string | null {
  const end = ready.at(-1);
  if (!end || !on) return null;
  const last = x(Math.min(on.until ?? until, until));
  const open = on.until === null ? `L${last} ${held(end.bpm)}` : '';
  return `M${x(end.day)} ${held(end.bpm)}L${x(Math.min(on.from, until))} ${y(goal)}L${last} ${y(goal)}${open}Z`;
}

function linesOf({ x, held, ready, until, on }: Sheet, days: TempoData['days'], goal: number): ChartModel['lines'] {
  const path = line<{ readonly day: number; readonly bpm: number }>()
    .x((d) => x(d.day))
    .y((d) => held(d.bpm));
  const clean = days.flatMap(({ day, best }) => (best === null ? [] : [{ day, bpm: best }]));
  const end = ready.at(-1);
  const likely = end && on && on.day !== null ? [end, { day: Math.min(on.day, until), bpm: goal }] : [];
  return [
    { points: ready, tone: 'metal' as const, dashed: false },
    { points: clean, tone: 'accent' as const, dashed: true },
    { points: likely, tone: 'wood' as const, dashed: true },
  ].flatMap(({ points, ...look }) => (points.length > 1 ? [{ path: path(points) ?? '', ...look }] : []));
}

function rulesOf({ x, y }: Sheet, goal: number, night: GoalDay | null, width: number): ChartModel['rules'] {
  const level = y(goal);
  const own = { x1: MARGIN.left, x2: width - MARGIN.right, y1: level, y2: level, tone: 'mark' as const };
  if (!night) return [{ ...own, text: `goal ${goal}` }];
  const at = x(night.day);
  return [
    { ...own, text: `goal ${goal}` },
    {
      ...{ x1: at, x2: at, y1: CHART_HEIGHT - MARGIN.bottom, y2: MARGIN.top + 8, tone: 'foot' },
      text: FOR[night.what],
    },
  ];
}

/** The best clean tempo of a day, and what was tried beyond it. */
function marksOf({ x, y }: Sheet, d: PractisedDay, r: Ready | undefined): readonly Mark[] {
  const believed = r ? `, ready ${Math.round(r.bpm)} (${Math.round(r.low)} to ${Math.round(r.high)})` : '';
  const at = (bpm: number, as: Mark['as'], tone: Mark['tone'], how: string): Mark => ({
    ...{ x: x(d.day), y: y(bpm), as, tone },
    get words() {
      return `${dateWords(d.day)}: ${bpm} bpm ${how}${believed}`;
    },
  });
  const tried = d.best !== null && d.best >= d.tried ? [] : [at(d.tried, 'ring', 'quiet', 'tried, messy')];
  return d.best === null ? tried : [...tried, at(d.best, 'disc', 'accent', 'clean')];
}
