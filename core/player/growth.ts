import type { Belief } from './belief';
import { overDays } from './history';

/** What growth is worked out from: seconds practised on a day, and what is believed at its end. */
export interface PaceDay {
  readonly day: number;
  readonly seconds: number;
  readonly belief: Belief;
}

/**
 * A law by which a phrase may grow. `way` says how far along it so many minutes of practice are; its gain is what one
 * unit of that way adds to the logarithm of the tempo.
 */
interface Law {
  readonly way: (minutes: number) => number;
  /** Gains as they are before any was seen. */
  readonly usual: Belief;
  /** How far a level strays from the law by each day of practice, a logarithm: little, or in steps. */
  readonly strays: number;
  /** How often it is this one before any was seen; together they need not be 1. */
  readonly often: number;
}

/** A law that was held against what was played. */
interface Followed {
  readonly law: Law;
  readonly chance: number;
  /** Where the phrase is, a logarithm, and its gain; `spread` is the variance of the level, of both, of the gain. */
  readonly level: number;
  readonly gain: number;
  readonly spread: readonly [level: number, both: number, gain: number];
}

/** How a phrase grew so far, by every law that may be the one. */
export interface Growth {
  /** Minutes practised so far. */
  readonly minutes: number;
  readonly laws: readonly Followed[];
}

type Kind = Omit<Law, 'strays'>;

/** A power law of practice, whose practice begins to count after so many minutes (Newell & Rosenbloom 1981). */
const byPower = (begun: number): Kind => ({
  way: (m) => Math.log(1 + m / begun),
  usual: { mean: 0.06, variance: 0.033 ** 2 },
  often: 0.25,
});
/** Towards a wall, of which a third is left after so many minutes (Heathcote, Brown & Mewhort 2000). */
const toAWall = (minutes: number): Kind => ({
  way: (m) => 1 - Math.exp(-m / minutes),
  usual: { mean: 0.4, variance: 0.25 ** 2 },
  often: 0.12,
});
/** So much for each minute, and only after a thousand of them less. */
const STEADY: Kind = {
  way: (m) => 2 * Math.log(1 + m / 1000),
  usual: { mean: 0.66, variance: 0.4 ** 2 },
  often: 2.4,
};
/** A plateau. */
const STILL: Kind = { way: () => 0, usual: { mean: 0, variance: 1e-6 }, often: 0.15 };

/**
 * What may be. Gains, how often and how far they stray were chosen by the logarithmic score of foretold days over
 * simulated learners of six kinds; the tests hold the result against others of their kinds.
 */
const LAWS: readonly Law[] = [
  { strays: 0.004, share: 1 },
  { strays: 0.027, share: 0.4 },
].flatMap(({ strays, share }) =>
  [...[2, 8, 30, 120].map(byPower), ...[25, 70, 180].map(toAWall), STEADY, STILL].map((kind) => ({
    ...kind,
    strays,
    often: kind.often * share,
  })),
);

/** Where a phrase begins is known only from its first day. */
const ANYWHERE = 0.3 ** 2;
/** A day's luck, and what days off add to it by the day, for a month at most. */
const LUCK = { mood: 0.02 ** 2, off: 0.002, days: 30 };
/** What a day's tries say weighs so much more than their own spread allows, for the beliefs follow them. */
const OWN_SPREAD = 0.9;
/** Less than this share of what is believed on an evening is no news. */
const NEWS = 0.05;
/** Laws count a little less than their odds: days are not as much apart as they are taken to be. */
const ODDS = 0.9;
/** Laws that are less likely than this are dropped. */
const UNLIKELY = 4e-3;

/** What the tries of a day say alone, taken out of what was believed before and after; null where it is nothing. */
function seenOn(now: PaceDay, before: PaceDay | undefined): Belief | null {
  if (!before) return { mean: now.belief.mean, variance: OWN_SPREAD * now.belief.variance + LUCK.mood };
  const gone = now.day - before.day;
  const expected = overDays(before.belief, gone);
  const share = 1 - now.belief.variance / expected.variance;
  if (share < NEWS) return null;
  const off = (LUCK.off * Math.min(LUCK.days, gone - 1)) ** 2;
  return {
    mean: expected.mean + (now.belief.mean - expected.mean) / share,
    variance: (OWN_SPREAD * now.belief.variance) / share + LUCK.mood + off,
  };
}

/** One law held against all days: a Kalman filter of level and gain, and how well it foresaw them (a logarithm). */
function follow(
  law: Law,
  days: readonly PaceDay[],
  seen: readonly (Belief | null)[],
): Omit<Followed, 'chance'> & { readonly log: number } {
  let [level, gain] = [days[0]?.belief.mean ?? 0, law.usual.mean];
  let [a, b, c] = [ANYWHERE, 0, law.usual.variance];
  let [minutes, at, log] = [0, 0, Math.log(law.often)];
  const go = (to: number): void => {
    const step = to - at;
    at = to;
    level += gain * step;
    a += 2 * step * b + step * step * c;
    b += step * c;
  };
  for (const [i, { seconds }] of days.entries()) {
    // What a day's tries say is said of its middle.
    const middle = law.way(minutes + seconds / 120);
    if (i === 0) at = middle;
    minutes += seconds / 60;
    go(middle);
    a += law.strays ** 2;
    const says = seen[i];
    if (!says) continue;
    const [off, of] = [says.mean - level, a + says.variance];
    if (i > 0) log -= 0.5 * (Math.log(of) + (off * off) / of);
    const [k, l] = [a / of, b / of];
    level += k * off;
    gain += l * off;
    c -= l * b;
    b -= l * a;
    a -= k * a;
  }
  go(law.way(minutes));
  return { law, level, gain, spread: [a, b, c], log };
}

const found = new WeakMap<readonly PaceDay[], Growth>();

/**
 * How a phrase grew, by all the laws that may be it, each as likely as it foresaw the days. Of no days: what is usual.
 * It is worked out once for each list of days.
 */
export function growthOf(days: readonly PaceDay[]): Growth {
  const known = found.get(days);
  if (known) return known;
  const seen = days.map((d, i) => seenOn(d, days[i - 1]));
  const all = LAWS.map((law) => follow(law, days, seen));
  const top = Math.max(...all.map((f) => f.log));
  const odds = all.map((f) => Math.exp(ODDS * (f.log - top)));
  const sum = odds.reduce((s, o) => s + o, 0);
  const likely = all
    .map(({ log: _log, ...f }, i) => ({ ...f, chance: (odds[i] ?? 0) / sum }))
    .filter((f) => f.chance >= UNLIKELY);
  const kept = likely.reduce((s, f) => s + f.chance, 0);
  const growth = {
    minutes: days.reduce((s, d) => s + d.seconds / 60, 0),
    laws: likely.map((f) => ({ ...f, chance: f.chance / kept })),
  };
  found.set(days, growth);
  return growth;
}

/** What some more minutes are expected to add: a logarithm. Nobody gets slower by practising. */
export function added({ minutes, laws }: Growth, more: number): number {
  return laws.reduce(
    (sum, { law, chance, gain }) => sum + chance * Math.max(0, gain) * (law.way(minutes + more) - law.way(minutes)),
    0,
  );
}

/** The bell curve's share below a place, by a logistic curve that is within 0.01 of it (Bowling 2009). */
export const below = (z: number): number => 1 / (1 + Math.exp(-1.702 * z));

/** Gains are looked at in so many places, in spreads, with the mass of a bell curve. */
const PLACES = Array.from({ length: 9 }, (_, i) => (i - 4) * 0.65);
const MASS = PLACES.map((z) => Math.exp((-z * z) / 2));
const ALL = MASS.reduce((s, m) => s + m, 0);

/** The chance, 0–1, that a level (a logarithm) is reached after so many more minutes on so many days. */
export function chanceThere(
  { minutes, laws }: Growth,
  more: { readonly minutes: number; readonly days: number },
  level: number,
): number {
  let sum = 0;
  for (const f of laws) {
    const [a, b, c] = f.spread;
    const way = f.law.way(minutes + more.minutes) - f.law.way(minutes);
    const [sd, rest] = [Math.sqrt(c), Math.sqrt(Math.max(1e-8, a - (b * b) / c) + f.law.strays ** 2 * more.days)];
    for (const [i, z] of PLACES.entries()) {
      const at = f.level + (b / c) * z * sd + Math.max(0, f.gain + z * sd) * way;
      sum += ((f.chance * (MASS[i] ?? 0)) / ALL) * below((at - level) / rest);
    }
  }
  return sum;
}
