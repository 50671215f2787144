import { READY, STEEP, type Belief } from './belief';

/** What the pace of a phrase is worked out from: minutes practised on a day, and what is believed at its end. */
export interface PaceDay {
  readonly day: number;
  readonly seconds: number;
  readonly belief: Belief;
}

/**
 * How a phrase grows with practice: so much of the logarithm of its tempo for each e-fold of the minutes practised (a
 * power law: Newell & Rosenbloom 1981, Mechanisms of skill acquisition and the law of practice).
 */
export interface Pace {
  readonly rate: number;
  readonly sd: number;
  /** Minutes practised so far. */
  readonly minutes: number;
  /** Minutes a day at the pace of the last weeks, days off counted in. */
  readonly aDay: number;
}

/** What is usual before a phrase shows its own: rate and spread. */
const USUAL_RATE = { mean: 0.045, sd: 0.03 };
/** No phrase is taken to grow slower than this. */
const LEAST_RATE = 0.004;
/** Minutes after which practice counts as begun. */
const BEGUN = 4;
/** A day's belief strays from the line by this much beside its own spread: days are good and bad. */
const STRAYS = 0.03;
/** The pace is that of the last four weeks. */
const LOOKED_BACK = 28;

/** How a phrase grew so far. The usual rate where it was hardly practised. */
export function paceOf(days: readonly PaceDay[], today: number): Pace {
  let minutes = 0;
  const points = days.map(({ seconds, belief }) => {
    minutes += seconds / 60;
    return { x: Math.log(1 + minutes / BEGUN), y: belief.mean, weight: 1 / (belief.variance + STRAYS ** 2) };
  });
  const sum = points.reduce((s, p) => s + p.weight, 0);
  const mean = (of: (p: (typeof points)[number]) => number): number =>
    sum === 0 ? 0 : points.reduce((s, p) => s + p.weight * of(p), 0) / sum;
  const [x, y] = [mean((p) => p.x), mean((p) => p.y)];
  // A ridge towards the usual rate. Beliefs follow each other: of the days together fewer count.
  const share = points.length > 0 ? points.length ** -0.25 : 0;
  const own = share * points.reduce((s, p) => s + p.weight * (p.x - x) ** 2, 0);
  const with_ = share * points.reduce((s, p) => s + p.weight * (p.x - x) * (p.y - y), 0);
  const prior = 1 / USUAL_RATE.sd ** 2;
  const rate = (with_ + prior * USUAL_RATE.mean) / (own + prior);
  const from = Math.max(today - LOOKED_BACK, (days[0]?.day ?? today) - 1);
  const recent = days.filter((d) => d.day > from && d.day <= today).reduce((s, d) => s + d.seconds / 60, 0);
  return {
    rate: Math.max(LEAST_RATE, rate),
    sd: Math.sqrt(1 / (own + prior)),
    minutes,
    aDay: recent / Math.max(7, today - from),
  };
}

/** How far the practice of some more minutes goes on the line, as a share of the rate. */
function onTheLine({ minutes }: Pace, more: number): number {
  return Math.log((BEGUN + minutes + more) / (BEGUN + minutes));
}

/** What is believed after so many more minutes of practice. */
export function afterMinutes(belief: Belief, pace: Pace, more: number): Belief {
  const far = onTheLine(pace, more);
  return { mean: belief.mean + pace.rate * far, variance: belief.variance + (pace.sd * far) ** 2 };
}

/** How far above a tempo half of the tries must be clean for that tempo to be ready: a logarithm. */
const ABOVE = Math.log(READY / (1 - READY)) * STEEP;

/** The bell curve's share below a place, by a logistic curve that is within 0.01 of it (Bowling 2009). */
const below = (z: number): number => 1 / (1 + Math.exp(-1.702 * z));

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
  /** `until` is null where it may be never at this pace, and `day` too where that is the likelier. */
  | { readonly kind: 'on'; readonly day: number | null; readonly from: number; readonly until: number | null };

/** On fewer days of tries nothing is said. */
const DAYS_NEEDED = 4;
/**
 * Good and bad luck in spreads, between which four of five simulated learners reached their goals: level and rate stray
 * together, and a goal is reached first on a good day.
 */
const LUCK = { good: 1.4, bad: -0.66 };
/** What lies farther ahead than two years is never. */
const NEVER = 730;

/** The day on which a goal will be ready at the present pace, with an interval that holds four times of five. */
export function projected(belief: Belief, days: readonly PaceDay[], goal: number, today: number): Projection {
  const far = Math.log(goal) + ABOVE - belief.mean;
  if (far <= 0) return { kind: 'ready' };
  if (days.length < DAYS_NEEDED) return { kind: 'unknown', days: days.length };
  const pace = paceOf(days, today);
  if (pace.aDay <= 0) return { kind: 'resting', since: days.at(-1)?.day ?? today };
  // Days until the line with this much luck is at the goal.
  const dayAt = (luck: number): number | null => {
    const [level, rate] = [luck * Math.sqrt(belief.variance), pace.rate + luck * pace.sd];
    if (far - level <= 0) return today;
    if (rate <= LEAST_RATE) return null;
    const minutes = (BEGUN + pace.minutes) * (Math.exp((far - level) / rate) - 1);
    const gone = Math.ceil(minutes / pace.aDay);
    return gone > NEVER ? null : today + gone;
  };
  return { kind: 'on', day: dayAt(0), from: dayAt(LUCK.good) ?? today + NEVER, until: dayAt(LUCK.bad) };
}
