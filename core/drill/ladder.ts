import { clamp } from '../base';
import { TEMPO } from '../time';

/** The most rungs a ladder may have. */
export const MOST_RUNGS = 60;

/**
 * Tempos from start to goal in fixed steps; the last rung is always the goal. A start above the goal gives the goal alone. A step too small for the
 * distance is widened until the ladder has at most 60 rungs.
 * @example
 * fixedLadder(60, 84, 10) // => [60, 70, 80, 84]
 * fixedLadder(90, 80, 5) // => [80]
 */
export function fixedLadder(start: number, goal: number, step: number): readonly number[] {
  const from = clamp(start, TEMPO.least, TEMPO.most);
  const to = clamp(goal, TEMPO.least, TEMPO.most);
  if (from >= to) return [to];
  const width = Math.max(step, 1, Math.ceil((to - from) / (MOST_RUNGS - 1)));
  const rungs: number[] = [];
  for (let bpm = from; bpm < to; bpm += width) rungs.push(bpm);
  return [...rungs, to];
}

/** Rungs per session that feel like progress: about eight from start to goal. */
const RUNGS_WANTED = 8;

/** Where to begin and how wide to step, with the reason in words. */
export interface Suggestion {
  readonly start: number;
  readonly step: number;
  readonly why: string;
}

/**
 * Suggested start: 60 % of the goal, never above the last clean tempo, rounded down to a multiple of 5; and a step that makes about eight rungs.
 * @example
 * suggestLadder(104, null) // => { start: 60, step: 5, why: '60 % of the goal.' }
 * suggestLadder(104, 50) // => { start: 50, step: 6, why: 'Your last clean tempo.' }
 */
export function suggestLadder(goal: number, lastClean: number | null): Suggestion {
  const share = goal * 0.6;
  const capped = lastClean !== null && lastClean < share;
  const start = clamp(Math.floor((capped ? lastClean : share) / 5) * 5, TEMPO.least, goal);
  const step = Math.max(1, Math.floor((goal - start) / RUNGS_WANTED));
  return { start, step, why: capped ? 'Your last clean tempo.' : '60 % of the goal.' };
}
