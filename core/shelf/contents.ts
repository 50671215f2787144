import type { Attempt, DrillState } from '../drill';
import { LESSON_LIMITS, type KeptLesson } from '../lesson';
import type { Phrase } from '../recipe';
import { CLIP_LIMITS, type Clip } from '../listen';
import type { KeptTake } from '../take';
import { BOARD_LIMITS, type Board } from './board';
import type { Named } from './named';
import { MOST_REMOVALS, type Removal } from './removal';
import { SHOW_LIMITS, type Show, type ShowState } from './show';
import { SITTING_LIMITS, type FreeSitting } from './sitting';
import type { KeptState } from './state';

/** Everything a shelf holds. */
export interface ShelfContents {
  readonly phrases: readonly Phrase[];
  readonly attempts: readonly Attempt[];
  readonly drills: readonly DrillState[];
  readonly takes: readonly KeptTake[];
  readonly states: readonly KeptState[];
  readonly removals: readonly Removal[];
  readonly boards: readonly Board[];
  readonly shows: readonly Show[];
  /** What shows were before. */
  readonly showStates: readonly ShowState[];
  /** What was played freely. */
  readonly freeSittings: readonly FreeSitting[];
  /** Lessons that are given or were taken, and reports. */
  readonly lessons: readonly KeptLesson[];
  /** Bars of records that are kept with phrases. */
  readonly clips: readonly Clip[];
  /** Settings, kits, limbs, maps, latencies, levels, habits, each under its name. */
  readonly named: readonly Named[];
  /** Parts of which only a later version knows. */
  readonly others: Readonly<Record<string, unknown>>;
}

export const EMPTY_SHELF: ShelfContents = Object.freeze({
  phrases: [],
  attempts: [],
  drills: [],
  takes: [],
  states: [],
  removals: [],
  boards: [],
  shows: [],
  showStates: [],
  freeSittings: [],
  lessons: [],
  clips: [],
  named: [],
  others: {},
});

/** Sizes a shelf is made for. What would go beyond is refused, or thinned out in words, where it is made. */
export const SHELF_LIMITS = Object.freeze({
  phrases: 10_000,
  attempts: 200_000,
  /** One to a phrase, also to those that were taken off. */
  drills: 30_000,
  takes: 300,
  /** Twenty to a phrase, also to those that were taken off. */
  states: 600_000,
  removals: MOST_REMOVALS,
  boards: BOARD_LIMITS.kept,
  shows: SHOW_LIMITS.kept,
  showStates: SHOW_LIMITS.kept * SHOW_LIMITS.states,
  freeSittings: SITTING_LIMITS.sittings,
  lessons: LESSON_LIMITS.kept,
  clips: CLIP_LIMITS.clips,
  named: 200,
});
