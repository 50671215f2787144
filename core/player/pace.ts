import { READY, STEEP, type Belief } from './belief';
import { added, below, chanceThere, growthOf, type Growth, type PaceDay } from './growth';

/** How a phrase grows, and how much it is practised. */
export interface Pace {
  readonly growth: Growth;
  /** Minutes, and days of practice, a day: at the pace of the last weeks, days off counted in. */
  readonly aDay: { readonly minutes: number; readonly days: number };
}

/** The pace is that of the last four weeks. */
const LOOKED_BACK = 28;

/** How a phrase grew so far, and how much it is practised. What is usual where it was not. */
export function paceOf(days: readonly PaceDay[], today: number): Pace {
  const recent = days.filter((d) => d.day > today - LOOKED_BACK && d.day <= today);
  const [first] = days;
  const last = days.at(-1);
  // Each day of practice has its days off behind it, the last as many as the others had.
  const over =
    first && last ? today - first.day + Math.max(1, (last.day - first.day) / Math.max(1, days.length - 1)) : 1;
  const span = Math.min(LOOKED_BACK, over);
  return {
    growth: growthOf(days),
    aDay: { minutes: recent.reduce((s, d) => s + d.seconds / 60, 0) / span, days: recent.length / span },
  };
}

/**
 * What will be believed after so many more minutes of practice. It is no less sure: what is open about the growth is
 * found out on the way. (A plan that took it as chance too gave the minutes to what will hardly get there.)
 */
export function afterMinutes(belief: Belief, pace: Pace, more: number): Belief {
  return { mean: belief.mean + added(pace.growth, more), variance: belief.variance };
}

/** What days off took is nearly there again after twice so many minutes. */
const COMES_BACK = 4;

/** What days off took comes back within minutes: so much of it is there again after them. */
export function recovered(now: Belief, once: Belief, minutes: number): Belief {
  const share = 1 - Math.exp(-minutes / COMES_BACK);
  return {
    mean: now.mean + share * Math.max(0, once.mean - now.mean),
    variance: now.variance - share * Math.max(0, now.variance - once.variance),
  };
}

/** How far above a tempo half of the tries must be clean for that tempo to be ready: a logarithm. */
const ABOVE = Math.log(READY / (1 - READY)) * STEEP;

/**
 * The chance that a tempo is ready, 0–1: that it would be clean four times of five.
 * @example
 * chanceReady({ mean: Math.log(100) + Math.log(4) * 0.052, variance: 0.001 }, 100) // => 0.5
 */
export function chanceReady({ mean, variance }: Belief, goal: number): number {
  return below((mean - ABOVE - Math.log(goal)) / Math.sqrt(variance));
}

/** When a goal will be ready. */
export type Projection =
  | { readonly kind: 'ready' }
  /** Fewer than four days of tries. */
  | { readonly kind: 'unknown'; readonly days: number }
  /** Nothing was practised for four weeks: there is no pace. */
  | { readonly kind: 'resting'; readonly since: number }
  | {
      readonly kind: 'on';
      /** The day by which it is as likely as not; null where it is likelier never. */
      readonly day: number | null;
      /** Four of five reach it from here on, and by then; null where it may be never at this pace. */
      readonly from: number | null;
      readonly until: number | null;
      /** The chance that it is reached at all at this pace, 0–1. */
      readonly chance: number;
      /** Days of practice, the last ones, in which nearly nothing was gained; null where something was. */
      readonly still: number | null;
    };

/** On fewer days of tries nothing is said. */
const DAYS_NEEDED = 4;
/**
 * The chances at which an interval begins and ends that holds four of five. It is no mirror: what may be never is
 * likelier told by who stopped growing than by who goes on.
 */
const WITHIN = { from: 0.07, until: 0.8 };
/** What lies farther ahead than two years is never. */
const NEVER = 730;
/** Days ahead at which it is looked. */
const AHEAD = [0, 1, 2, 3, 4, 5, 7, 9, 12, 15, 19, 24, 30, 38, 48, 60, 76, 98, 125, 160, 210, 300, 450, NEVER];
/** In so many days of practice less than this, a logarithm, is a standstill. */
const STANDSTILL = { days: 8, gain: 0.01 };

/** The day on which a goal will be ready at the present pace, with an interval that holds four times of five. */
export function projected(belief: Belief, days: readonly PaceDay[], goal: number, today: number): Projection {
  const far = Math.log(goal) + ABOVE;
  if (belief.mean >= far) return { kind: 'ready' };
  if (days.length < DAYS_NEEDED) return { kind: 'unknown', days: days.length };
  const { growth, aDay } = paceOf(days, today);
  if (aDay.minutes <= 0) return { kind: 'resting', since: days.at(-1)?.day ?? today };
  let most = 0;
  const chances = AHEAD.map((t) => {
    most = Math.max(most, chanceThere(growth, { minutes: aDay.minutes * t, days: aDay.days * t }, far));
    return most;
  });
  const dayAt = (chance: number): number | null => {
    const i = chances.findIndex((c) => c >= chance);
    if (i < 0) return null;
    const [t, c, before, less] = [AHEAD[i] ?? 0, chances[i] ?? 1, AHEAD[i - 1], chances[i - 1]];
    if (before === undefined || less === undefined) return today;
    return today + Math.ceil(before + ((t - before) * (chance - less)) / (c - less));
  };
  return {
    kind: 'on',
    day: dayAt(0.5),
    from: dayAt(WITHIN.from),
    until: dayAt(WITHIN.until),
    chance: most,
    still: standstill(growth, days),
  };
}

/** The last days of practice, where they gained next to nothing. */
function standstill({ minutes, laws }: Growth, days: readonly PaceDay[]): number | null {
  const last = days.slice(-STANDSTILL.days);
  if (last.length < STANDSTILL.days) return null;
  const before = minutes - last.reduce((s, d) => s + d.seconds / 60, 0);
  const gained = laws.reduce((s, f) => s + f.chance * f.gain * (f.law.way(minutes) - f.law.way(before)), 0);
  return gained < STANDSTILL.gain ? last.length : null;
}
