// Players that learn by rules of their own, for tests of what is believed of them: none of it is the model's formula.

/** Numbers from 0 to 1 in an order that a seed decides (mulberry32). */
export function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A number of a bell curve of mean 0 and spread 1 (Box & Muller). */
export function bell(roll: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - roll())) * Math.cos(2 * Math.PI * roll());
}

/** The share of a bell curve below a place (Abramowitz & Stegun 7.1.26). */
export function below(z: number): number {
  const t = 1 / (1 + (0.3275911 * Math.abs(z)) / Math.SQRT2);
  const erf =
    1 -
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) *
      t *
      Math.exp((-z * z) / 2);
  return z >= 0 ? (1 + erf) / 2 : (1 - erf) / 2;
}

/** A try of a simulated player, with what was true of them. */
export interface TrueTry {
  readonly day: number;
  readonly bpm: number;
  readonly clean: boolean;
  /** The chance for who knows the player but not the day, and the tempo that is clean four times of five. */
  readonly chance: number;
  readonly ready: number;
}

export interface Learner {
  readonly ceiling: number;
  readonly tries: readonly TrueTry[];
}

/**
 * A player on one phrase over some weeks: clean by a bell curve of their own width, faster by a power of what was
 * practised up to a wall of their own, worse on bad days, slower after weeks off. They climb by what just happened.
 */
export function learner(roll: () => number, tries: number, share = 0.8 * Math.exp(0.2 * bell(roll))): Learner {
  const ceiling = 70 + 120 * roll();
  const wide = 0.06 + 0.06 * roll();
  const begins = Math.log(ceiling * share) + 0.12 * bell(roll);
  const wall = begins + 0.1 + 0.1 * roll();
  const gain = 0.03 + 0.05 * roll();
  const lost = 0.003 + 0.006 * roll();
  const out: TrueTry[] = [];
  let [day, practised, gone] = [20_000, 0, 0];
  let next = Math.exp(begins - 0.15 + 0.1 * bell(roll));
  while (out.length < tries) {
    const mood = 0.025 * bell(roll) - (roll() < 0.08 ? 0.05 : 0);
    const today = 4 + Math.floor(6 * roll());
    for (let i = 0; i < today && out.length < tries; i++) {
      const skill = Math.min(wall, begins + gain * Math.log(1 + practised / 6)) - gone;
      const chance = below((skill + mood - Math.log(next)) / wide);
      const clean = roll() < chance;
      // Who knows the player does not know the day.
      const known = below((skill - Math.log(next)) / Math.hypot(wide, 0.03));
      out.push({
        day,
        bpm: Math.round(next),
        clean,
        chance: known,
        ready: Math.exp(skill - 0.8416 * Math.hypot(wide, 0.03)),
      });
      practised++;
      gone *= 0.8;
      next *= clean ? 1.03 + 0.03 * roll() : 0.95 + 0.03 * roll();
    }
    const off = roll() < 0.1 ? 7 + Math.floor(14 * roll()) : 1 + Math.floor(2.5 * roll());
    day += off;
    gone = Math.min(0.15, gone + lost * (off - 1));
    next *= 0.94;
  }
  return { ceiling, tries: out };
}

/** The ways in which one phrase may grow. */
export const WAYS_TO_GROW = ['power', 'wall', 'steady', 'steps', 'weeks off', 'still'] as const;
export type WayToGrow = (typeof WAYS_TO_GROW)[number];

/** A day of practice of one phrase, with the tempo that who knows the player would call ready. */
export interface TrueDay {
  readonly day: number;
  readonly seconds: number;
  readonly tries: readonly { readonly bpm: number; readonly clean: boolean }[];
  readonly ready: number;
}

/** How much of a logarithm is gained after so many minutes on so many days, by numbers of the player's own. */
function gains(roll: () => number, way: WayToGrow): (minutes: number, days: number) => number {
  const [gain, begun] = [0.03 + 0.06 * roll(), 3 + 10 * roll()];
  const [room, most] = [0.12 + 0.25 * roll(), 30 + 170 * roll()];
  const aDay = 0.004 + 0.016 * roll();
  const [often, step] = [1 / (2 + Math.floor(5 * roll())), 0.02 + 0.05 * roll()];
  let [stepped, on] = [0, 0];
  switch (way) {
    case 'power':
    case 'weeks off':
      return (minutes) => gain * Math.log(1 + minutes / begun);
    case 'wall':
      return (minutes) => room * (1 - Math.exp(-minutes / most));
    case 'steady':
      return (_, days) => Math.min(0.6, aDay * days);
    case 'steps':
      return (_, days) => {
        for (; on < Math.floor(days); on++) if (roll() < often) stepped += step * (0.5 + roll());
        return Math.min(0.6, stepped);
      };
    case 'still':
      return () => 0;
  }
}

/** A player on one phrase over so many days of practice, some weekdays off, growing in one way. */
export function grower(
  roll: () => number,
  way: WayToGrow,
  many: number,
): { readonly ceiling: number; readonly days: readonly TrueDay[] } {
  const ceiling = 120 + 80 * roll();
  const wide = 0.05 + 0.05 * roll();
  const begins = Math.log(ceiling * (0.45 + 0.3 * roll()));
  const gained = gains(roll, way);
  const [often, aDay, lost] = [0.5 + 0.5 * roll(), 4 + 10 * roll(), 0.003 + 0.004 * roll()];
  const out: TrueDay[] = [];
  let [day, minutes, gone, next] = [20_000, 0, 0, Math.exp(begins - 0.08)];
  while (out.length < many) {
    const today = aDay * Math.exp(0.3 * bell(roll));
    const mood = 0.025 * bell(roll);
    const few = Math.max(3, Math.round(0.9 * today));
    let skill = begins;
    const tries = Array.from({ length: few }, (_, i) => {
      minutes += today / few;
      skill = begins + gained(minutes, out.length + i / few);
      const clean = roll() < below((skill - gone + mood - Math.log(next)) / wide);
      const bpm = Math.round(next);
      next *= clean ? 1.02 + 0.03 * roll() : 0.95 + 0.03 * roll();
      gone *= 0.8;
      return { bpm, clean };
    });
    out.push({ day, seconds: 60 * today, tries, ready: Math.exp(skill - 0.8416 * Math.hypot(wide, 0.025)) });
    let off = 1;
    while (roll() > often) off++;
    if (way === 'weeks off' && roll() < 0.12) off += 7 + Math.floor(14 * roll());
    day += off;
    gone = Math.min(0.15, gone + lost * (off - 1));
    next *= 0.95;
  }
  return { ceiling, days: out };
}
