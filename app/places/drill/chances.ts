import { restsOfReady } from '../../knowledge/believed-words';
import { chanceAt, chanceWords, earlyWords, worthTrying, type Belief, type Known, type ReadySaid } from '@core/player';

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
  { belief, known, ready }: { readonly belief: Belief; readonly known: Known; readonly ready: ReadySaid },
  rungs: readonly number[],
  goal: number,
): Chances {
  const chances = rungs.map((rung) => chanceAt(belief, rung));
  const worth = rungs[worthTrying(chances) ?? -1];
  const said =
    ready.kind === 'ready' ? `Ready at ${ready.bpm}` : `Too early to say what is ready (${earlyWords(ready)})`;
  return {
    rungs: chances.map(chanceWords),
    words: `${worth === undefined ? '' : `Try ${worth} today. `}${said}; ${chanceWords(chanceAt(belief, goal))} chance of a clean try at ${goal}.`,
    rests: restsOfReady({ ready, tries: known.tries, days: known.days }),
  };
}
