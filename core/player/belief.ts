/**
 * What is believed of a player and one phrase: the natural logarithm of the tempo (counted beats a minute) at which
 * half of the tries are clean, as a bell curve.
 */
export interface Belief {
  readonly mean: number;
  readonly variance: number;
}

/** One try as a belief takes it in. Weights are shares of what a measured try of the whole phrase says. */
export interface Evidence {
  readonly bpm: number;
  readonly clean: boolean;
  readonly weight: number;
}

/**
 * How steep the curve of clean tries is over the logarithm of the tempo. What a day adds to what is not known is apart
 * from it.
 */
export const STEEP = 0.052;
/** The player's own share of their ceilings, before anything is known, and how sure that is. */
export const USUAL_SHARE: Belief = Object.freeze({ mean: Math.log(0.8), variance: 0.2 ** 2 });
/** How much phrases differ from what the share says. */
export const OF_PHRASE = 0.15 ** 2;
/** A belief is worked out at so many places, this many spreads to either side. */
const PLACES = 41;
const SPREADS = 4;

const logistic = (x: number): number => 1 / (1 + Math.exp(-x));

/** What is believed before any try, from the ceiling in counted beats a minute and the player's own share of it. */
export function beforeAnyTry(ceiling: number, share: Belief = USUAL_SHARE): Belief {
  return { mean: Math.log(ceiling) + share.mean, variance: share.variance + OF_PHRASE };
}

/** The places, in spreads, and how much of a bell curve stands at each: the same for every belief. */
const AT = Float64Array.from({ length: PLACES }, (_, i) => SPREADS * ((2 * i) / (PLACES - 1) - 1));
const BELL = AT.map((z) => Math.exp(-(z * z) / 2));
const STEP = (2 * SPREADS) / (PLACES - 1);

/**
 * A belief after a try. The bell curve that has the mean and the spread of what follows by Bayes' rule, worked out at
 * places along it: one Newton step towards the mode, as in rating systems (Glickman 1999, Parameter estimation in large
 * dynamic paired comparison experiments), leaps past it where a try is a surprise.
 */
export function afterTry({ mean, variance }: Belief, { bpm, clean, weight }: Evidence): Belief {
  const sd = Math.sqrt(variance);
  // The odds against a clean try fall by the same factor from place to place: a whole log is read by this, and an
  // exponential for each place would be most of the time that Today takes.
  let against = Math.exp((Math.log(bpm) - mean + SPREADS * sd) / STEEP);
  const less = Math.exp((-STEP * sd) / STEEP);
  let [sum, first, second] = [0, 0, 0];
  for (let i = 0; i < PLACES; i++) {
    const z = AT[i] as number;
    const chance = (clean ? 1 : against) / (1 + against);
    const mass = (BELL[i] as number) * (weight === 1 ? chance : chance ** weight);
    sum += mass;
    first += mass * z;
    second += mass * z * z;
    against *= less;
  }
  const moved = first / sum;
  return { mean: mean + moved * sd, variance: variance * Math.min(1, Math.max(1e-3, second / sum - moved * moved)) };
}

/** How wide the curve of clean tries is with what is not known of the player added to it (MacKay 1992). */
const width = ({ variance }: Belief): number => Math.sqrt(STEEP ** 2 + (Math.PI * variance) / 8);

/**
 * The chance that a try at a tempo is clean, 0–1.
 * @example
 * chanceAt({ mean: Math.log(100), variance: 0 }, 100) // => 0.5
 */
export function chanceAt(belief: Belief, bpm: number): number {
  return logistic((belief.mean - Math.log(bpm)) / width(belief));
}

/**
 * A chance as it is said: nothing is sure, and nothing is out of the question.
 * @example
 * chanceWords(0.612) // => "61%"
 * chanceWords(0.999) // => "over 98%"
 * chanceWords(0.001) // => "under 2%"
 */
export function chanceWords(chance: number): string {
  const percent = Math.round(100 * chance);
  return percent > 98 ? 'over 98%' : percent < 2 ? 'under 2%' : `${percent}%`;
}

/** The tempo at which a try is clean by a chance, 0–1, in counted beats a minute. */
export function tempoAt(belief: Belief, chance: number): number {
  return Math.exp(belief.mean - Math.log(chance / (1 - chance)) * width(belief));
}

/** At this chance a tempo is ready. */
export const READY = 0.8;
/** Four of five lie within so many spreads. */
const FOUR_OF_FIVE = 1.2816;

/** A tempo that is ready, in counted beats a minute: clean four times of five, and where four of five such lie. */
export interface Ready {
  readonly bpm: number;
  readonly low: number;
  readonly high: number;
}

/**
 * The tempo that is ready, with its interval.
 * @example
 * Math.round(readyTempo({ mean: Math.log(100), variance: 0 }).bpm) // => 93
 */
export function readyTempo(belief: Belief): Ready {
  const below = Math.log(READY / (1 - READY)) * STEEP;
  const to = FOUR_OF_FIVE * Math.sqrt(belief.variance);
  return {
    bpm: tempoAt(belief, READY),
    low: Math.exp(belief.mean - below - to),
    high: Math.exp(belief.mean - below + to),
  };
}

/** At this chance a rung is sure: where to start. */
export const SURE = 0.9;
/** Hard enough to learn from (Guadagnoli & Lee 2004, Challenge point). */
const WORTH = { least: 0.6, most: 0.8 };

/** The place of the first rung whose chance makes it worth trying, of some chances, 0–1; null where none does. */
export function worthTrying(chances: readonly number[]): number | null {
  const at = chances.findIndex((p) => p >= WORTH.least && p <= WORTH.most);
  return at < 0 ? null : at;
}
