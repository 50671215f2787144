import { FEW, restsOfReady } from '../../knowledge/believed-words';
import { chanceAt, chanceWords, readyTempo, worthTrying, type Belief, type Known } from '@core/player';

/** What is believed of a ladder, in words. */
export interface Chances {
  /** The chance of each rung. */
  readonly rungs: readonly string[];
  /** "Try 82 today. Ready at 81; 6% chance of a clean try at 104." */
  readonly words: string;
  /** What ready means, and what it rests on. */
  readonly rests: string;
}

/** What is believed of the rungs of a ladder and of its goal. */
export function chancesOf(
  { belief, known }: { readonly belief: Belief; readonly known: Known },
  rungs: readonly number[],
  goal: number,
): Chances {
  const ready = readyTempo(belief);
  const bpm = Math.round(ready.bpm);
  const chances = rungs.map((rung) => chanceAt(belief, rung));
  const worth = rungs[worthTrying(chances) ?? -1];
  const about = known.tries < FEW ? 'about ' : '';
  return {
    rungs: chances.map(chanceWords),
    words: `${worth === undefined ? '' : `Try ${worth} today. `}Ready at ${about}${bpm}; ${chanceWords(chanceAt(belief, goal))} chance of a clean try at ${goal}.`,
    rests: restsOfReady({
      low: Math.round(ready.low),
      high: Math.round(ready.high),
      tries: known.tries,
      days: known.days,
    }),
  };
}
