import { afterMinutes, chanceReady, onDay, paceOf, recovered, type Known, type PaceDay } from '../player';

/** What is known of a phrase when a night is looked ahead to. Tempos are in counted beats a minute. */
export interface NightPhrase {
  readonly known: Known;
  readonly days: readonly PaceDay[];
  readonly ceiling: number;
}

/** A tempo that is ready by this chance is safe. */
export const SAFE = 0.8;
/** More minutes than that are not foreseen. */
const MOST_MINUTES = 400;

/**
 * The chance that a tempo is ready on a night, 0–1: clean four times of five, after so many minutes of practice from
 * today on. Without any it is what days off leave. 0 above the ceiling.
 */
export function chanceOn(
  { known, days, ceiling }: NightPhrase,
  tempo: number,
  { today, night }: { readonly today: number; readonly night: number },
  minutes: number,
): number {
  if (tempo > ceiling) return 0;
  const left = chanceReady(onDay(known, Math.max(today, night)), tempo);
  if (minutes <= 0) return left;
  const back = recovered(onDay(known, today), known.belief, minutes);
  return Math.max(left, chanceReady(afterMinutes(back, paceOf(days, today), minutes), tempo));
}

/**
 * The minutes of practice after which a tempo is ready on a night by a chance, 0–1: whole, 0 where it is without any,
 * null where they are more than 400, or it lies above the ceiling.
 */
export function minutesTo(
  phrase: NightPhrase,
  tempo: number,
  when: { readonly today: number; readonly night: number },
  chance = SAFE,
): number | null {
  const at = (minutes: number): number => chanceOn(phrase, tempo, when, minutes);
  if (at(0) >= chance) return 0;
  if (at(MOST_MINUTES) < chance) return null;
  // What practice adds never becomes less with more of it, so it can be halved.
  let [low, high] = [0, MOST_MINUTES];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (at(middle) >= chance) high = middle;
    else low = middle;
  }
  return high;
}
