import { count } from '@core/base';
import { chanceAt, readyTempo, SURE, tempoAt, worthTrying, type Belief, type Known } from '@core/player';

/** What is believed of a ladder, in words. */
export interface Chances {
  /** The chance of each rung. */
  readonly rungs: readonly string[];
  /** "Ready 96 · 61 % at the goal". */
  readonly words: string;
  /** What that rests on, and which rung is worth trying. */
  readonly rests: string;
  /** The highest tempo that is nine of ten. */
  readonly sure: number;
}

/** Below so many tries a tempo is given as a guess. */
const FEW = 5;

/** A chance as it is shown: nothing is sure, and nothing is out of the question. */
export function chanceWords(chance: number): string {
  const percent = Math.round(100 * chance);
  return percent > 98 ? '> 98 %' : percent < 2 ? '< 2 %' : `${percent} %`;
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
    words: `Ready ${about}${bpm} · ${chanceWords(chanceAt(belief, goal))} at the goal`,
    rests: `between ${low} and ${high}, from ${count(known.tries, 'try', 'tries')} on ${count(known.days, 'day')}${worth === undefined ? '' : ` · worth trying: ${worth}`}`,
    sure: Math.floor(tempoAt(belief, SURE)),
  };
}
