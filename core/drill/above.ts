import { count, sentence } from '../base';

/** What lies above what a player can do on their kit: the goal, and how many rungs of the ladder. */
export interface Above {
  readonly rungs: number;
  /** The fastest whole tempo that does not. */
  readonly most: number;
  readonly words: string;
}

/**
 * The rungs and the goal that lie above a ceiling, all in counted beats a minute. Null where none does.
 * @example
 * aboveCeiling([100, 120, 140], 140, 125.5).words // => "The goal of 140 is above your ceiling of 125."
 * aboveCeiling([100, 130, 140], 140, 125).words // => "The goal of 140 and 1 rung before it are above your ceiling of 125."
 * aboveCeiling([150, 100], 100, 125).words // => "1 rung is above your ceiling of 125."
 * aboveCeiling([100, 120], 120, 125) // => null
 */
export function aboveCeiling(rungs: readonly number[], goal: number, ceiling: number): Above | null {
  const over = rungs.filter((bpm) => bpm > ceiling).length;
  if (over === 0 && goal <= ceiling) return null;
  const most = Math.floor(ceiling);
  const before = over - (goal > ceiling && rungs.includes(goal) ? 1 : 0);
  const parts = [
    ...(goal > ceiling ? [`the goal of ${goal}`] : []),
    ...(before > 0 ? [`${count(before, 'rung')}${goal > ceiling ? ' before it' : ''}`] : []),
  ];
  const many = parts.length > 1 || (goal <= ceiling && before > 1);
  return {
    rungs: over,
    most,
    words: sentence(`${parts.join(' and ')} ${many ? 'are' : 'is'} above your ceiling of ${most}.`),
  };
}
