import { afterTry, beforeAnyTry, chanceAt, USUAL_SHARE, type Belief, type Evidence } from './belief';
import { gradeOf, newMemory, recall, remembered, type Memory } from './memory';

/** A try with its practice day: days since 1970-01-01 on the player's own calendar. */
export interface DatedTry extends Evidence {
  readonly day: number;
}

/** What is known of a player and one phrase on the day it was played last. */
export interface Known {
  readonly belief: Belief;
  readonly memory: Memory;
  /** What would be believed without any try: a belief never becomes less sure than that. */
  readonly before: Belief;
  readonly tries: number;
  /** Days on which it was tried. */
  readonly days: number;
}

/** What a day adds to what is not known: hands have good days and bad ones, and learn overnight. */
const BY_THE_DAY = 0.031 ** 2;
/** What lies between two days of practice adds this much a day. */
const WITHOUT = 0.014 ** 2;
/** So much of the logarithm of the tempo goes when all is forgotten. */
const FORGOTTEN = 0.02;
/**
 * The hands lose this much by each day without practice, for a month at most; what was lost comes back within a few
 * tries. A memory that is all there (as FSRS says of what was often practised) does not keep a tempo: simulated
 * learners who come back after weeks are foreseen only with both.
 */
const STIFFER = { aDay: 0.004, days: 30 };
/** On so many days a player is another one than was expected, by so much. */
const LEAP = { often: 0.1, variance: 0.07 ** 2 };
/** What a try teaches at first; less by each that came before (Newell & Rosenbloom 1981, a power law of practice). */
const TAUGHT = { at: 0.01, halves: 6 };

/** What is known before any try. `ceiling` is in counted beats a minute. */
export function unknownYet(ceiling: number, day: number, share: Belief = USUAL_SHARE): Known {
  const before = beforeAnyTry(ceiling, share);
  return { belief: before, before, memory: newMemory(day), tries: 0, days: 0 };
}

/**
 * What is believed on a later day: less sure by each day, up to what would be believed without any try, and lower by
 * what is forgotten. The day it was played last, or one before it, changes nothing.
 */
export function onDay({ belief, before, memory }: Known, day: number): Belief {
  if (memory.lastDay === null) return belief;
  const gone = day - memory.lastDay;
  if (gone <= 0) return belief;
  const later = overDays(belief, gone);
  return {
    mean: later.mean - FORGOTTEN * (1 - recall(memory, day)),
    variance: Math.min(Math.max(before.variance, belief.variance), later.variance),
  };
}

/** What so many days make of a belief, one at least, but for what a memory loses: lower and less sure. */
export function overDays({ mean, variance }: Belief, days: number): Belief {
  return {
    mean: mean - STIFFER.aDay * Math.min(days - 1, STIFFER.days),
    variance: variance + BY_THE_DAY + WITHOUT * days,
  };
}

/** What is known after some tries, in the order they were played; a clock that was set back counts as the last day. */
export function learnt(known: Known, tries: readonly DatedTry[]): Known {
  let now = known;
  for (let at = 0; at < tries.length;) {
    const day = Math.max(tries[at]?.day ?? 0, now.memory.lastDay ?? -Infinity);
    let end = at;
    while (end < tries.length && (tries[end]?.day ?? 0) <= day) end++;
    now = dayOf(now, day, tries.slice(at, end));
    at = end;
  }
  return now;
}

/** What a day's tries make of a belief, and how likely they were by it: a logarithm. */
function tried(
  before: Belief,
  tries: readonly DatedTry[],
  already: number,
): { readonly belief: Belief; readonly log: number } {
  let [belief, log] = [before, 0];
  for (const [i, t] of tries.entries()) {
    const p = chanceAt(belief, t.bpm);
    log += t.weight * Math.log(t.clean ? p : 1 - p);
    const after = afterTry(belief, t);
    const taught = after.mean + TAUGHT.at / (1 + (already + i) / TAUGHT.halves);
    // A messy try teaches too, but nothing is said to be easier for it.
    belief = { ...after, mean: t.clean ? taught : Math.min(belief.mean, taught) };
  }
  return { belief, log };
}

/**
 * A day's tries. Most days are like the one before; on some a player comes back another one, after a lesson or an
 * illness. Both are followed, and count by how well they foresaw the tries (a switching filter: Hamilton 1989, A new
 * approach to the economic analysis of nonstationary time series).
 */
function dayTried(start: Belief, tries: readonly DatedTry[], already: number, mayLeap: boolean): Belief {
  const usual = tried(start, tries, already);
  if (!mayLeap) return usual.belief;
  const other = tried({ ...start, variance: start.variance + LEAP.variance }, tries, already);
  const odds = (LEAP.often / (1 - LEAP.often)) * Math.exp(Math.min(50, other.log - usual.log));
  const leapt = odds / (1 + odds);
  const mean = (1 - leapt) * usual.belief.mean + leapt * other.belief.mean;
  const between = leapt * (1 - leapt) * (usual.belief.mean - other.belief.mean) ** 2;
  return { mean, variance: (1 - leapt) * usual.belief.variance + leapt * other.belief.variance + between };
}

function dayOf(known: Known, day: number, tries: readonly DatedTry[]): Known {
  const goesOn = known.memory.lastDay === day;
  return {
    before: known.before,
    belief: dayTried(onDay(known, day), tries, known.tries, !goesOn && known.tries > 0),
    memory: goesOn
      ? known.memory
      : remembered(known.memory, day, gradeOf(tries.filter((t) => t.clean).length, tries.length)),
    tries: known.tries + tries.length,
    days: known.days + (goesOn ? 0 : 1),
  };
}
