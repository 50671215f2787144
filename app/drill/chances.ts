import { count } from '@core/base';
import { chanceAt, readyTempo, rungChances, tempoAt, type Belief, type Known } from '@core/player';

/** What is believed of a ladder, in figures and words. */
export interface Chances {
  /** The chance of each rung, 0–1. */
  readonly rungs: readonly number[];
  /** "Ready 96 · 61 % at the goal". */
  readonly words: string;
  /** What that rests on. */
  readonly rests: string;
  /** The highest tempo that is nine of ten. */
  readonly sure: number;
}

const NINE_OF_TEN = 0.9;
/** Below so many tries a tempo is given as a guess. */
const FEW = 5;

/** A chance as it is shown: nothing is sure, and nothing is out of the question. */
export function chanceWords(chance: number): string {
  const percent = Math.round(100 * chance);
  return percent > 98 ? 'over 98 %' : percent < 2 ? 'under 2 %' : `${percent} %`;
}

/** What is believed of the rungs of a ladder and of its goal. */
export function chancesOf(
  { belief, known }: { readonly belief: Belief; readonly known: Known },
  rungs: readonly number[],
  goal: number,
): Chances {
  const ready = readyTempo(belief);
  const [bpm, low, high] = [ready.bpm, ready.low, ready.high].map(Math.round);
  const about = known.tries < FEW ? 'about ' : '';
  return {
    rungs: rungChances(belief, rungs).chances,
    words: `Ready ${about}${bpm} · ${chanceWords(chanceAt(belief, goal))} at the goal`,
    rests: `between ${low} and ${high}, from ${count(known.tries, 'try', 'tries')} on ${count(known.days, 'day')}`,
    sure: Math.floor(tempoAt(belief, NINE_OF_TEN)),
  };
}
