import type { Attempt } from './state';

/** What a phrase's attempts add up to. */
export interface Best {
  readonly clean: number | null;
  readonly lastClean: number | null;
  readonly attempts: number;
  /** Milliseconds since 1970 of the newest attempt. */
  readonly lastAt: number | null;
}

export const NO_BEST: Best = Object.freeze({ clean: null, lastClean: null, attempts: 0, lastAt: null });

/** Best clean tempo, last clean tempo and number of attempts of every phrase, by its id. */
export function bestByPhrase(attempts: readonly Attempt[]): ReadonlyMap<string, Best> {
  const found = new Map<string, Best>();
  for (const a of [...attempts].sort((x, y) => x.at - y.at)) {
    const before = found.get(a.phrase) ?? NO_BEST;
    const clean = a.verdict === 'clean';
    found.set(a.phrase, {
      clean: clean ? Math.max(before.clean ?? 0, a.bpm) : before.clean,
      lastClean: clean ? a.bpm : before.lastClean,
      attempts: before.attempts + 1,
      lastAt: a.at,
    });
  }
  return found;
}

/** A day of practice on one phrase: the best clean tempo of the day, null when nothing was clean. */
export interface DayPoint {
  readonly day: number;
  readonly clean: number | null;
  readonly tried: number;
}

/**
 * Attempts of one phrase by day, oldest first. `dayOf` turns a time into the start of its day, since only the caller
 * knows the time zone.
 */
export function byDay(attempts: readonly Attempt[], dayOf: (at: number) => number): readonly DayPoint[] {
  const days = new Map<number, DayPoint>();
  for (const a of attempts) {
    const day = dayOf(a.at);
    const before = days.get(day) ?? { day, clean: null, tried: 0 };
    days.set(day, {
      day,
      clean: a.verdict === 'clean' ? Math.max(before.clean ?? 0, a.bpm) : before.clean,
      tried: Math.max(before.tried, a.bpm),
    });
  }
  return [...days.values()].sort((x, y) => x.day - y.day);
}
