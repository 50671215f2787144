import { count } from '@core/base';
import { FEW } from '../../knowledge/believed-words';
import { chanceAt, chanceWords, readyTempo, worthTrying, type Belief, type Known } from '@core/player';

/** What is believed of a ladder, in words. */
export interface Chances {
  /** The chance of each rung. */
  readonly rungs: readonly string[];
  /** "Ready 96 · 61 % at 104". */
  readonly words: string;
  /** What that rests on, and which rung is worth trying. */
  readonly rests: string;
}

/** What is believed of the rungs of a ladder and of its goal. */
export function chancesOf(
  { belief, known }: { readonly belief: Belief; readonly known: Known },
  rungs: readonly number[],
  goal: number,
): Chances {
  const ready = readyTempo(belief);
  const [bpm, low, high] = [ready.bpm, ready.low, ready.high].map(Math.round);
  const chances = rungs.map((rung) => chanceAt(belief, rung));
  const worth = rungs[worthTrying(chances) ?? -1];
  const about = known.tries < FEW ? 'about ' : '';
  return {
    rungs: chances.map(chanceWords),
    words: `Ready ${about}${bpm} · ${chanceWords(chanceAt(belief, goal))} at ${goal}`,
    rests: `between ${low} and ${high}, from ${count(known.tries, 'try', 'tries')} on ${count(known.days, 'day')}${worth === undefined ? '' : ` · worth trying: ${worth}`}`,
  };
}
