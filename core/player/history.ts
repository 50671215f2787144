import { afterTry, beforeAnyTry, OF_PHRASE, USUAL_SHARE, type Belief, type Evidence } from './belief';
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
const BY_THE_DAY = 0.026 ** 2;
/** What lies between two days of practice adds this much a day. */
const WITHOUT = 0.012 ** 2;
/**
 * So much of the logarithm of the tempo goes when all is forgotten. The falls of many short breaks add up, while what
 * was lost comes back within a few tries: of simulated learners 0.15 expects too little the day after.
 */
const FORGOTTEN = 0.06;
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
  return {
    mean: belief.mean - FORGOTTEN * (1 - recall(memory, day)),
    variance: Math.min(Math.max(before.variance, belief.variance), belief.variance + BY_THE_DAY + WITHOUT * gone),
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

function dayOf(known: Known, day: number, tries: readonly DatedTry[]): Known {
  const goesOn = known.memory.lastDay === day;
  return {
    before: known.before,
    belief: tries.reduce(
      (before, t, i) => {
        const after = afterTry(before, t);
        return { ...after, mean: after.mean + TAUGHT.at / (1 + (known.tries + i) / TAUGHT.halves) };
      },
      onDay(known, day),
    ),
    memory: goesOn
      ? known.memory
      : remembered(known.memory, day, gradeOf(tries.filter((t) => t.clean).length, tries.length)),
    tries: known.tries + tries.length,
    days: known.days + (goesOn ? 0 : 1),
  };
}

/** What one phrase says of the player's own share of their ceilings. */
export interface ShareSaid {
  readonly known: Known;
  readonly ceiling: number;
}

/**
 * The player's own share of their ceilings, from all phrases with tries: each says as much as its tries do, and never
 * more than phrases differ. The usual one where there are none.
 */
export function shareOf(phrases: readonly ShareSaid[]): Belief {
  let precision = 1 / USUAL_SHARE.variance;
  let weighted = USUAL_SHARE.mean * precision;
  for (const { known, ceiling } of phrases) {
    // What the tries alone say: the belief without what was believed before them.
    const own = 1 / known.belief.variance - 1 / known.before.variance;
    if (own <= 1e-9) continue;
    const mean = (known.belief.mean / known.belief.variance - known.before.mean / known.before.variance) / own;
    const says = 1 / (1 / own + OF_PHRASE);
    precision += says;
    weighted += says * (mean - Math.log(ceiling));
  }
  return { mean: weighted / precision, variance: 1 / precision };
}
