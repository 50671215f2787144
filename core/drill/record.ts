import { ofPhrase } from './of-whole';
import { isEvidence } from './played';
import type { Attempt } from './state';
import { withShown, type ShownTry } from './shown';

/** What a phrase's attempts add up to. */
export interface Best {
  /** The fastest clean tempo of all of the phrase, and the last. */
  readonly clean: number | null;
  readonly lastClean: number | null;
  readonly attempts: number;
  /** Milliseconds since 1970 of the newest attempt. */
  readonly lastAt: number | null;
  /** And of the newest clean one. */
  readonly cleanAt: number | null;
  /** What the clean tries show of what can be played; absent where they were counted before that was kept. */
  readonly shown?: readonly ShownTry[];
  /** When its tries were corrected or removed last; absent where they never were. */
  readonly edited?: number;
  /** How many tries are kept apart: they were played by a program or on keys, and are counted in nothing else. */
  readonly apart?: number;
}

export const NO_BEST: Best = Object.freeze({ clean: null, lastClean: null, attempts: 0, lastAt: null, cleanAt: null });

/**
 * What some tries and one more add up to. Tries that come in late, as from another device, count as what they are: the
 * last clean one is the one that is clean and newest. One that was taken out of the log adds nothing, and one that the
 * player did not play on a drum is only counted apart.
 * @example
 * withTry(NO_BEST, { id: '1', phrase: 'a', at: 5, bpm: 80, goal: 100, loops: 4, seconds: 9, verdict: 'clean' }) // => { clean: 80, lastClean: 80, attempts: 1, lastAt: 5, cleanAt: 5, shown: [{ bpm: 80, at: 5, measured: false }] }
 */
export function withTry(before: Best, attempt: Attempt): Best {
  if (attempt.off) return before;
  if (!isEvidence(attempt)) return { ...before, apart: (before.apart ?? 0) + 1 };
  const { at, bpm, verdict } = attempt;
  const shown = withShown(before.shown ?? [], attempt);
  // What is clean of a part is no tempo of the phrase.
  const isClean = verdict === 'clean' && ofPhrase(attempt);
  const isLast = isClean && at >= (before.cleanAt ?? -1);
  return {
    clean: isClean ? Math.max(before.clean ?? 0, bpm) : before.clean,
    lastClean: isLast ? bpm : before.lastClean,
    attempts: before.attempts + 1,
    lastAt: Math.max(before.lastAt ?? 0, at),
    cleanAt: isLast ? at : before.cleanAt,
    ...(shown.length > 0 ? { shown } : {}),
    ...(before.apart === undefined ? {} : { apart: before.apart }),
  };
}

/** What the tries of one phrase add up to, in whatever order they come. */
export function bestOf(attempts: readonly Attempt[]): Best {
  return attempts.reduce(withTry, NO_BEST);
}

/**
 * The fastest clean tempo among tries of one phrase, in beats a minute: the same as `bestOf` has, without the rest.
 * Null where none was clean.
 * @example
 * fastestClean([]) // => null
 */
export function fastestClean(attempts: readonly Attempt[]): number | null {
  let fastest: number | null = null;
  for (const one of attempts)
    if (!one.off && one.verdict === 'clean' && one.bpm > (fastest ?? 0) && isEvidence(one) && ofPhrase(one))
      fastest = one.bpm;
  return fastest;
}
