import type { KeptFinding, StageKind } from '../drill';
import type { Known, PaceDay } from '../player';
import type { Family, GoalDay } from '../recipe';

/**
 * warm-up: loose and slow, first · keep: what is ready stays ready · rise: towards a goal · mend: what went wrong last,
 * by itself · new: never tried yet · play: freely over time · break: hands and ears rest.
 */
export const BLOCK_KINDS = ['warm-up', 'keep', 'rise', 'mend', 'new', 'play', 'break'] as const;
export type BlockKind = (typeof BLOCK_KINDS)[number];

/** Where it is played: at a kit, on a pad, or with hands on knees. */
export const PLAN_PLACES = ['kit', 'pad', 'none'] as const;
export type PlanPlace = (typeof PLAN_PLACES)[number];

/** One after the other, or in rounds of a few minutes (Shea & Morgan 1979, Contextual interference). */
export const PLAN_ORDERS = ['in-turn', 'rounds'] as const;
export type PlanOrder = (typeof PLAN_ORDERS)[number];

/** What is known of a phrase when a day is planned. Days are days since 1970-01-01 on the player's own calendar. */
export interface PlanPhrase {
  readonly id: string;
  readonly name: string;
  readonly family: Family;
  /** Counted beats a minute, as are all tempos here. */
  readonly goal: number;
  readonly by: GoalDay | null;
  readonly ceiling: number;
  readonly best: number | null;
  readonly known: Known;
  readonly days: readonly PaceDay[];
  /** Strokes of each hand in a counted beat. */
  readonly hands: { readonly R: number; readonly L: number };
  /** Whether more than one pad is needed: feet, or several drums. */
  readonly kit: boolean;
  /** The fix that was named most often in the last tries; null where none was named twice. */
  readonly fix: NamedFix | null;
  /** The chance that it comes by itself in free play, 0–1; null where it never came, absent where nobody listened. */
  readonly comes?: number | null;
}

export interface NamedFix {
  readonly finding: KeptFinding;
  readonly times: number;
}

/** A block that the player wants as it is. */
export interface HeldBlock {
  readonly id: string;
  readonly minutes: number;
}

/** What was played of today's plan already. */
export interface DoneBlock {
  readonly id: string;
  readonly minutes: number;
  /** How many of them something was played; all where it is absent. */
  readonly played?: number;
}

export interface TodayAsked {
  readonly day: number;
  /** The minutes there are, with what is done already. */
  readonly minutes: number;
  readonly place: PlanPlace;
  readonly order: PlanOrder;
  readonly held: readonly HeldBlock[];
  /** Phrases that are not wanted today. */
  readonly dropped: readonly string[];
  /** Ids of blocks in the order in which the player laid them. */
  readonly arranged: readonly string[];
  readonly done: readonly DoneBlock[];
  /** Strokes of the busier hand: played today, and on each day of the last week that was practised. */
  readonly strokes: { readonly today: number; readonly week: readonly number[] };
}

/** A block of the day, as it lies on the timeline. */
export interface Block {
  /** The same for the same phrase and kind, however the day is planned. */
  readonly id: string;
  readonly kind: BlockKind;
  /** Null for a break, and for a warm-up or play without a phrase. */
  readonly phrase: string | null;
  readonly name: string;
  /** Phrases to bring in while playing freely. */
  readonly bring: readonly { readonly id: string; readonly name: string }[];
  readonly minutes: number;
  /** Minutes from the beginning of the day's practice. */
  readonly at: number;
  /** Where to begin and where to go; null where nothing climbs. */
  readonly from: number | null;
  readonly to: number | null;
  /** What is played of the phrase; null for the stages that are proposed. */
  readonly stage: StageKind | null;
  /** Why, with its numbers. */
  readonly words: string;
  readonly held: boolean;
  /** Which round of how many; null where it is played in one. */
  readonly round: { readonly n: number; readonly of: number } | null;
}

export interface LeftOut {
  readonly phrase: string;
  readonly name: string;
  readonly kind: BlockKind;
  readonly why: LeftWhy;
  readonly words: string;
}

/** Why a phrase is no candidate today. */
export type NotToday = 'dropped' | 'kept' | 'no-hands' | 'before-night' | 'done';

/** Why something is left out: there are no minutes for it, the hands are spared, one new phrase a day, or itself. */
export type LeftWhy = 'minutes' | 'load' | 'one-new' | NotToday;

export interface TodayPlan {
  readonly blocks: readonly Block[];
  /** What was left out, the most wanted first, and how many more. */
  readonly left: readonly LeftOut[];
  readonly more: number;
  /** What to know about the whole: nights that are near, the load of the hands. */
  readonly notes: readonly string[];
  /** Minutes that nothing was worth. */
  readonly free: number;
  /** Strokes of the busier hand: planned and played, and the most that is wise; null where no week tells. */
  readonly load: { readonly strokes: number; readonly most: number | null };
}
