import {
  afterMinutes,
  chanceAt,
  chanceReady,
  onDay,
  paceOf,
  recall,
  recovered,
  remembered,
  type Belief,
  type Pace,
} from '../player';
import type { PlanPhrase } from './block';

/** A phrase is owned when a try at its goal is clean by this chance. */
export const OWNED = 0.93;
/** So many days before its day what is ready is freshened up, and kept though it is not due. */
export const FRESH = 14;

/** What a phrase is worth practising today. */
export interface Worth {
  readonly belief: Belief;
  readonly pace: Pace;
  /** The chance that a try at the goal is clean today, 0–1. */
  readonly sure: number;
  /** Whether it needs no more than to be kept. */
  readonly owned: boolean;
  /** The chance that the goal is ready, 0–1: clean four times of five. */
  readonly ready: number;
  /** Days until it is wanted; null without a day, and where the day has passed. */
  readonly left: number | null;
  /** What some minutes towards the goal are worth. */
  readonly rise: (minutes: number) => number;
  /** What keeping it is worth: 0 where it is not due. */
  readonly keep: number;
}

/** Without a day it is looked so many days ahead. */
const AHEAD = 30;
/** Minutes a day that one phrase may get until its day. */
const A_DAY = 6;
const MOST_MINUTES = 400;
/** Without a day a goal weighs less than with one. */
const WITHOUT_DAY = 0.3;
/** Of what a minute adds on one day a third is gone after so many minutes: the rest comes overnight. */
const TIRES = 8;
/** What is kept is looked at after a week. */
const KEPT_FOR = 7;
const KEEP_WEIGHT = 0.35;
/**
 * Towards any goal a minute is worth this much at least, so that what is far off is not given up where there is time.
 */
const LEAST = 2e-4;

/** Places along the way to a goal, in minutes. */
const ON_THE_WAY: readonly number[] = [4, 8, 12, 18, 26, 40, 60, 90, 140, 200, 300, MOST_MINUTES];

/** What a phrase is worth today. */
export function worthOf(phrase: PlanPhrase, today: number): Worth {
  const { known, days, goal, by } = phrase;
  const belief = onDay(known, today);
  const pace = paceOf(days, today);
  const left = by && by.day >= today ? by.day - today : null;
  // What comes back within a few tries need not be there all the weeks before.
  const counts = left !== null && left > FRESH ? known.belief : belief;
  const ready = chanceReady(counts, goal);
  const sure = chanceAt(belief, goal);
  // The chance rises slowly at first and slowly at last: a minute is worth its share of the best way up, or the far
  // goals would never be begun.
  const room = Math.min(MOST_MINUTES, TIRES + A_DAY * (left ?? AHEAD));
  const owned = chanceAt(counts, goal) >= OWNED;
  let aMinute = owned ? 0 : LEAST;
  for (const minutes of ON_THE_WAY) {
    if (minutes > room) break;
    aMinute = Math.max(
      aMinute,
      (chanceReady(afterMinutes(recovered(counts, known.belief, minutes), pace, minutes), goal) - ready) / minutes,
    );
  }
  const weight = left === null ? WITHOUT_DAY : 1;
  // What was practised today already took the best of the day.
  const last = days.at(-1);
  const before = last?.day === today ? last.seconds / 60 : 0;
  const over = (minutes: number): number => 1 - Math.exp(-minutes / TIRES);
  return {
    belief,
    pace,
    sure,
    ready,
    owned,
    left,
    rise: (minutes) => weight * aMinute * TIRES * (over(before + minutes) - over(before)),
    keep:
      known.memory.lastDay !== null && (known.memory.dueDay <= today || (left !== null && left <= FRESH))
        ? keepWorth(phrase, today, left)
        : 0,
  };
}

/** What keeping saves: the chance to be there later, with a day of practice and without. */
function keepWorth({ known }: PlanPhrase, today: number, left: number | null): number {
  const later = today + Math.max(1, Math.min(left ?? KEPT_FOR, AHEAD));
  const saved = recall(remembered(known.memory, today, 3), later) - recall(known.memory, later);
  return Math.max(0, saved) * (left === null ? KEEP_WEIGHT : 2 * KEEP_WEIGHT);
}
