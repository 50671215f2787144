import { isEvidence, ofPhrase, type Attempt } from '../drill';
import type { DatedTry } from './history';

/** What a try says beside a measured one of the whole phrase. */
const SAYS = { whole: 1, part: 0.3, ear: 0.8 };
/**
 * A try as a belief takes it in; null for one that no player played on a drum. `dayOf` gives the practice day of a
 * time, as only the caller knows the player's calendar. Parts and bare stickings say less than the whole or the phrase
 * in context, and an ear less than what was measured.
 */
export function evidenceOf(attempt: Attempt, dayOf: (at: number) => number): DatedTry | null {
  const { at, bpm, verdict, measured } = attempt;
  if (!isEvidence(attempt)) return null;
  return {
    day: dayOf(at),
    bpm,
    clean: verdict === 'clean',
    weight: (ofPhrase(attempt) ? SAYS.whole : SAYS.part) * (measured ? 1 : SAYS.ear),
  };
}
