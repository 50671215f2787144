import { line } from 'd3-shape';
import { dateWords, mostStrokes } from '@core/plan';
import { busier, minutesOf, type Avoided, type Break, type Fails, type LimbDay, type PracticeDay } from '@core/log';
import { chanceWords } from '@core/player';
import { FAMILIES, type Family } from '@core/recipe';
import { LIMBS, LIMB_WORDS, type Limb } from '@core/stroke';
import { FIX_KINDS, type FixKind } from '@core/drill';
import { FIX_NAMES, lateWords, timingWords } from '@core/take';
import { dayAxis, valueAxis } from './axes';
import { CHART_HEIGHT, MARGIN, type ChartModel, type Mark, type Tone } from './model';

const BASE = CHART_HEIGHT - MARGIN.bottom;
const FAMILY_TONES: Readonly<Record<Family, Tone>> = {
  fill: 'skin',
  lick: 'wood',
  groove: 'metal',
  'warm-up': 'quiet',
};
const LIMB_TONES: Readonly<Record<Limb, Tone>> = { R: 'skin', L: 'metal', K: 'foot', J: 'wood', H: 'good' };

/** How wide a bar of one day is, px. */
const dayWidth = (width: number, days: number): number =>
  Math.max(1.5, Math.min(26, ((width - MARGIN.left - MARGIN.right) / Math.max(1, days)) * 0.7));

/** Scales in px, and how wide a bar of one day is. */
interface Bars {
  readonly x: (day: number) => number;
  readonly y: (value: number) => number;
  readonly wide: number;
}

/** Minutes a day by family and of free play, one on the other, with what was planned as rings. */
export function minutesChart(
  days: readonly PracticeDay[],
  { planned, free }: { readonly planned: ReadonlyMap<number, number>; readonly free: ReadonlyMap<number, number> },
  today: number,
  width: number,
): ChartModel {
  const first = Math.min(today, days[0]?.day ?? today, ...planned.keys(), ...free.keys());
  const drilled = new Map(days.map((d) => [d.day, minutesOf(d)]));
  const { x, ticks: xTicks } = dayAxis(first, today, width);
  const most = Math.max(
    10,
    ...days.map((d) => minutesOf(d) + (free.get(d.day) ?? 0)),
    ...free.values(),
    ...planned.values(),
  );
  const { y, ticks: yTicks } = valueAxis(0, most);
  const bars: Bars = { x, y, wide: dayWidth(width, today - first + 1) };
  const inSight = ([day]: readonly [number, number]): boolean => day >= first && day <= today;
  const freely = [...free].filter(inSight).map(([d, minutes]) => freeBar(bars, d, drilled.get(d) ?? 0, minutes));
  const rings = [...planned].filter(inSight).map(([d, minutes]): Mark => ({
    ...{ x: x(d), y: y(minutes), as: 'ring', tone: 'accent' },
    get words() {
      return `${dateWords(d)}: ${minutes} min planned`;
    },
  }));
  return {
    ...empty(width, 'day', 'minutes'),
    xTicks,
    yTicks,
    marks: [...days.flatMap((d) => familyBars(bars, d)), ...freely, ...rings].sort((a, b) => a.x - b.x),
    keys: [
      ...FAMILIES.map((f) => ({ tone: FAMILY_TONES[f], as: 'bar' as const, text: `${f}s` })),
      ...(freely.length > 0 ? [{ tone: 'good' as const, as: 'bar' as const, text: 'free play' }] : []),
      ...(rings.length > 0 ? [{ tone: 'accent' as const, as: 'ring' as const, text: 'planned' }] : []),
    ],
  };
}

/** What was drilled on a day, family on family. */
function familyBars({ x, y, wide }: Bars, d: PracticeDay): readonly Mark[] {
  let sum = 0;
  return FAMILIES.flatMap((family): Mark[] => {
    const minutes = (d.seconds[family] ?? 0) / 60;
    if (minutes <= 0) return [];
    const from = sum;
    sum += minutes;
    const height = Math.max(0.5, y(from) - y(sum));
    return [
      {
        ...{ x: x(d.day), y: y(sum), as: 'bar', width: wide, height, tone: FAMILY_TONES[family] },
        // Read one at a time: of thousands the words took most of the drawing.
        get words() {
          return `${dateWords(d.day)}: ${oneDigit(minutes)} min of ${family}s, ${oneDigit(minutesOf(d))} min in all`;
        },
      },
    ];
  });
}

/** What was played freely on a day, on top of what was drilled. */
function freeBar({ x, y, wide }: Bars, day: number, drilled: number, minutes: number): Mark {
  const top = y(drilled + minutes);
  return {
    ...{ x: x(day), y: top, as: 'bar', width: wide, height: y(drilled) - top, tone: 'good' },
    get words() {
      return `${dateWords(day)}: ${oneDigit(minutes)} min free play`;
    },
  };
}

/** Strokes of the busier hand a day, with what the week before each day allows. */
export function loadChart(days: readonly PracticeDay[], today: number, width: number): ChartModel {
  const first = days[0]?.day ?? today;
  const { x, ticks: xTicks } = dayAxis(first, today, width);
  const allowed = days.map((d, i) => {
    const week: number[] = [];
    for (let j = i - 1; j >= 0 && (days[j]?.day ?? -Infinity) >= d.day - 7; j--) week.push(busier(days[j] ?? d));
    return { day: d.day, most: mostStrokes(week) };
  });
  const known = allowed.flatMap((a) => (a.most === null ? [] : [{ day: a.day, most: a.most }]));
  const { y, ticks: yTicks } = valueAxis(0, Math.max(100, ...days.map(busier), ...known.map((k) => k.most)));
  const wide = dayWidth(width, today - first + 1);
  const path = line<(typeof known)[number]>()
    .x((d) => x(d.day))
    .y((d) => y(d.most));
  return {
    ...empty(width, 'day', 'strokes per hand'),
    xTicks,
    yTicks,
    lines: known.length > 1 ? [{ path: path(known) ?? '', tone: 'quiet', dashed: true }] : [],
    marks: days.map((d, i): Mark => {
      const strokes = busier(d);
      const most = allowed[i]?.most ?? null;
      const over = most !== null && strokes > most;
      const hand = d.R >= d.L ? 'right' : 'left';
      return {
        x: x(d.day),
        y: y(strokes),
        as: 'bar',
        width: wide,
        height: BASE - y(strokes),
        tone: over ? 'mark' : 'accent',
        get words() {
          return `${dateWords(d.day)}: ${strokes.toLocaleString('en')} strokes of the ${hand} hand${most === null ? '' : `, ${Math.round(most).toLocaleString('en')} is the limit`}`;
        },
      };
    }),
    keys: [
      { tone: 'accent', as: 'bar', text: 'within your limit' },
      { tone: 'mark', as: 'bar', text: 'over your limit' },
      { tone: 'quiet', as: 'line', text: 'your limit' },
    ],
  };
}

/** Offset and spread of each limb day by day. */
export function limbsChart(days: readonly LimbDay[], width: number): ChartModel {
  const first = days[0]?.day ?? 0;
  const { x, ticks: xTicks } = dayAxis(first, days.at(-1)?.day ?? first, width);
  const most = Math.max(10, ...days.map((d) => Math.abs(d.mean) + d.spread));
  const { y, ticks: yTicks } = valueAxis(-most, most);
  const used = LIMBS.filter((l) => days.some((d) => d.limb === l));
  const path = line<LimbDay>()
    .x((d) => x(d.day))
    .y((d) => y(d.mean));
  const bandOf = (own: readonly LimbDay[]): string =>
    own.length < 2
      ? ''
      : `M${own.map((d) => `${x(d.day)} ${y(d.mean + d.spread)}`).join('L')}L${[...own]
          .reverse()
          .map((d) => `${x(d.day)} ${y(d.mean - d.spread)}`)
          .join('L')}Z`;
  const of = (l: Limb): readonly LimbDay[] => days.filter((d) => d.limb === l);
  return {
    ...empty(width, 'day', 'ms: late above, early below'),
    xTicks,
    yTicks,
    areas: used.map((l) => ({ path: bandOf(of(l)), tone: LIMB_TONES[l] })),
    lines: used.map((l) => ({ path: path([...of(l)]) ?? '', tone: LIMB_TONES[l], dashed: false })),
    rules: [{ x1: MARGIN.left, x2: width - MARGIN.right, y1: y(0), y2: y(0), tone: 'quiet', text: 'on time' }],
    marks: days.map((d): Mark => ({
      x: x(d.day),
      y: y(d.mean),
      as: 'disc',
      tone: LIMB_TONES[d.limb],
      get words() {
        return `${dateWords(d.day)}, ${LIMB_WORDS[d.limb]}: ${timingWords(d.mean, d.spread)}`;
      },
    })),
    keys: used.map((l) => ({ tone: LIMB_TONES[l], as: 'line', text: LIMB_WORDS[l] })),
  };
}

const FIX_TONES: Readonly<Record<FixKind, Tone>> = {
  late: 'skin',
  uneven: 'wood',
  'left-out': 'mark',
  extra: 'foot',
  heights: 'metal',
  ornament: 'good',
  swing: 'accent',
  tempo: 'quiet',
  part: 'quiet',
  silence: 'quiet',
};

/** Messy tries by tempo, by what was to be fixed. */
export function failsChart(fails: readonly Fails[], width: number): ChartModel {
  const [least, most] = [fails[0]?.from ?? 60, fails.at(-1)?.until ?? 70];
  const x = (bpm: number): number =>
    MARGIN.left + ((bpm - least) / Math.max(1, most - least)) * (width - MARGIN.left - MARGIN.right);
  const many = (f: Fails): number => Object.values(f.by).reduce((a, b) => a + b, 0) + f.untold;
  const { y, ticks: yTicks } = valueAxis(0, Math.max(4, ...fails.map(many)), 4);
  const wide = Math.min(60, (x(least + 10) - x(least)) * 0.75);
  const kinds = FIX_KINDS.filter((k) => fails.some((f) => f.by[k]));
  return {
    ...empty(width, 'bpm', 'messy tries'),
    xTicks: fails.map((f) => ({ x: x(f.from + 5), text: `${f.from}–${f.until - 1}` })),
    yTicks: yTicks.filter((t) => !t.text.includes('.')),
    marks: fails.flatMap((f): Mark[] => {
      let sum = 0;
      const bar = (n: number, tone: Tone, name: string): Mark[] => {
        if (n === 0) return [];
        const from = sum;
        sum += n;
        return [
          {
            x: x(f.from + 5),
            y: y(sum),
            as: 'bar',
            width: wide,
            height: y(from) - y(sum),
            tone,
            words: `${f.from} to ${f.until - 1} bpm: ${n} ${name}, ${f.clean} clean`,
          },
        ];
      };
      return [
        ...kinds.flatMap((k) => bar(f.by[k] ?? 0, FIX_TONES[k], FIX_NAMES[k])),
        ...bar(f.untold, 'quiet', 'by ear'),
      ];
    }),
    keys: [
      ...kinds.map((k) => ({ tone: FIX_TONES[k], as: 'bar' as const, text: FIX_NAMES[k] })),
      ...(fails.some((f) => f.untold > 0) ? [{ tone: 'quiet' as const, as: 'bar' as const, text: 'by ear' }] : []),
    ],
  };
}

/** A stroke's place as it is read, and as it stands on the axis. */
export interface StrokeName {
  readonly long: string;
  readonly short: string;
}

/**
 * At each stroke how often it was left out: now full, before as a ring. Where nothing was, how far each lies off
 * instead.
 */
export function breaksChart(breaks: readonly Break[], names: readonly StrokeName[], width: number): ChartModel {
  const x = (i: number): number =>
    MARGIN.left + ((i + 0.5) / Math.max(1, breaks.length)) * (width - MARGIN.left - MARGIN.right);
  const share = (s: Break['now']): number => (s.wanted === 0 ? 0 : (100 * s.missed) / s.wanted);
  const anyMissed = breaks.some((b) => b.now.missed > 0);
  const valueOf = (s: Break['now'] | null): number | null => (s ? (anyMissed ? share(s) : s.late) : null);
  const values = breaks.flatMap((b) => [valueOf(b.now) ?? 0, valueOf(b.before) ?? 0]);
  const most = Math.max(10, ...values.map(Math.abs));
  const { y, ticks: yTicks } = valueAxis(anyMissed ? 0 : -most, most);
  const wide = Math.max(2, Math.min(26, ((width - MARGIN.left - MARGIN.right) / Math.max(1, breaks.length)) * 0.6));
  const every = Math.max(1, Math.ceil(breaks.length / Math.max(1, Math.floor(width / 46))));
  const words = ({ now, before }: Break, i: number): string => {
    const late = now.late === null ? '' : `, ${lateWords(now.late)}`;
    const was = before
      ? `; before ${before.missed} of ${before.wanted}${before.late === null ? '' : `, ${lateWords(before.late)}`}`
      : '';
    return `${names[i]?.long ?? ''}: missed ${now.missed} of ${now.wanted}${late}${was}`;
  };
  return {
    ...empty(width, 'stroke', anyMissed ? '% missed' : 'ms: late above, early below'),
    xTicks: names.flatMap(({ short }, i) => (i % every === 0 ? [{ x: x(i), text: short }] : [])),
    yTicks,
    rules: anyMissed
      ? []
      : [{ x1: MARGIN.left, x2: width - MARGIN.right, y1: y(0), y2: y(0), tone: 'quiet', text: 'on time' }],
    marks: breaks.flatMap((b, i): Mark[] => {
      const [now, before] = [valueOf(b.now), valueOf(b.before)];
      const here = { x: x(i), words: words(b, i) };
      return [
        ...(now === null
          ? []
          : anyMissed
            ? [
                {
                  ...here,
                  y: y(now),
                  as: 'bar' as const,
                  width: wide,
                  height: BASE - y(now),
                  tone: now >= 5 ? ('mark' as const) : ('accent' as const),
                },
              ]
            : [{ ...here, y: y(now), as: 'disc' as const, tone: 'accent' as const }]),
        ...(before === null ? [] : [{ ...here, y: y(before), as: 'ring' as const, tone: 'quiet' as const }]),
      ];
    }),
    keys: [
      anyMissed
        ? { tone: 'mark', as: 'bar', text: 'in the last takes' }
        : { tone: 'accent', as: 'disc', text: 'in the last takes' },
      ...(breaks.some((b) => b.before)
        ? [{ tone: 'quiet' as const, as: 'ring' as const, text: 'in those before' }]
        : []),
    ],
  };
}

/** A bar of a chart that has a name under it. */
interface NamedBar {
  readonly name: string;
  readonly value: number;
  readonly words: string;
  readonly tone: Tone;
}

/** So many bars have room for their names. */
const MOST_BARS = 14;
/** Width of a letter of a name, in px. */
const LETTER = 9;

/** Bars by name, the first of them as many as there is room for; `least` is what the scale reaches at least. */
export function namedBars(
  rows: readonly NamedBar[],
  of: { readonly value: string; readonly least: number; readonly width: number },
  keys: ChartModel['keys'],
): ChartModel {
  const { width } = of;
  const shown = rows.slice(0, MOST_BARS);
  const room = (width - MARGIN.left - MARGIN.right) / Math.max(1, shown.length);
  const x = (i: number): number => MARGIN.left + (i + 0.5) * room;
  const { y, ticks: yTicks } = valueAxis(0, Math.max(of.least, ...shown.map((a) => a.value)));
  const letters = Math.max(3, Math.floor(room / LETTER));
  return {
    ...empty(width, 'phrase', of.value),
    xTicks: shown.map((a, i) => ({
      x: x(i),
      text: a.name.length > letters ? `${a.name.slice(0, letters - 1)}…` : a.name,
    })),
    yTicks,
    marks: shown.map((a, i): Mark => ({
      x: x(i),
      y: y(a.value),
      as: 'bar',
      width: Math.min(40, room * 0.6),
      height: BASE - y(a.value),
      tone: a.tone,
      words: a.words,
    })),
    keys,
  };
}

/** Days since what is owned was played, the most pressing first; at most twenty. */
export function avoidedChart(avoided: readonly Avoided[], width: number): ChartModel {
  const rows = avoided.map((a): NamedBar => ({
    name: a.name,
    value: a.days,
    tone: a.night === null ? 'accent' : 'mark',
    words: `${a.name}: ${a.days} days, ${chanceWords(a.sure)} chance at its goal${a.night === null ? '' : `, needed in ${a.night} days`}`,
  }));
  return namedBars(rows, { value: 'days since it was played', least: 14, width }, [
    { tone: 'mark', as: 'bar', text: 'has a date' },
    { tone: 'accent', as: 'bar', text: 'owned' },
  ]);
}

function empty(width: number, xName: string, yName: string): ChartModel {
  return {
    width,
    height: CHART_HEIGHT,
    xName,
    yName,
    xTicks: [],
    yTicks: [],
    areas: [],
    lines: [],
    rules: [],
    marks: [],
    keys: [],
  };
}

const oneDigit = (n: number): string => n.toFixed(1).replace(/\.0$/, '');
