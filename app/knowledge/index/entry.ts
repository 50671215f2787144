import type { Best } from '@core/drill';
import type { ShelfMap, Square } from '@core/map';
import type { Avoided, PracticeDay } from '@core/log';
import type { PractisedDay, Projection, ReadySaid } from '@core/player';
import type { Lesson, Taught, Top } from '@core/reach';
import type { Family, GoalDay } from '@core/recipe';
import type { Facts } from '@core/shelf';

/** What the index keeps of a phrase between visits. */
export interface PackedEntry {
  readonly id: string;
  readonly changed: number;
  readonly created: number;
  readonly name: string;
  readonly family: Family;
  readonly tags: readonly string[];
  readonly note: string;
  readonly goal: number;
  readonly by: GoalDay | null;
  readonly parent: { readonly id: string; readonly change: string } | null;
  /** What the facts and the ceiling were worked out from. */
  readonly key: string;
  readonly facts: Facts | null;
  readonly ceiling: Ceiling | null;
}

/** The ceiling of a phrase on a kit for a player, with what it was worked out for. */
export interface Ceiling {
  readonly for: string;
  readonly bpm: number | null;
  readonly estimate: boolean;
  /** With what other phrases showed; null where nothing did, or it was not worked out yet. */
  readonly taught: (Taught & { readonly for: string }) | null;
  /** What a clean try above it teaches of the player, with the try; null where none went beyond it. */
  readonly teaches: { readonly bpm: number; readonly at: number; readonly lessons: readonly Lesson[] } | null;
}

/** What is believed of a player and a phrase today. Tempos in counted bpm. */
export interface Believed {
  /** Clean four times of five, and where that lies four times of five; or what is missing to say it. */
  readonly ready: ReadySaid;
  /** The chance that a try at the goal is clean, 0–1. */
  readonly atGoal: number;
  readonly tries: number;
  readonly days: number;
  /** The practice day on which it is due. */
  readonly due: number;
}

/** What the Log draws of a phrase without reading its tries. */
export interface PhraseLog {
  readonly days: readonly PractisedDay[];
  readonly projection: Projection | null;
  /** What is ready today; null before any try. */
  readonly ready: ReadySaid | null;
  /** How fast it can go, in counted bpm; null where nothing limits it. */
  readonly ceiling: number | null;
}

/** What the Log draws of the whole shelf. */
export interface LookBack {
  readonly days: readonly PracticeDay[];
  readonly avoided: readonly Avoided[];
}

/** A row of the shelf as it is shown. */
export interface ShelfRow {
  readonly id: string;
  readonly name: string;
  readonly family: Family;
  readonly tags: readonly string[];
  readonly goal: number;
  readonly by: GoalDay | null;
  /** The goal it has where no show wants another. */
  readonly own: { readonly goal: number; readonly by: GoalDay | null };
  readonly best: Best;
  /** Null before any try, and until it is worked out. */
  readonly believed: Believed | null;
  /** "1 bar of 4/4 · 16ths"; null until it is worked out. */
  readonly facts: string | null;
  readonly length: number | null;
  /** The highest tempo, with what it rests on; null until it is worked out. */
  readonly top: Top | null;
  /** Changes whenever what is drawn of it does. */
  readonly key: string;
}

export type ShelfSort =
  'family' | 'name' | 'goal' | 'clean' | 'to go' | 'played' | 'newest' | 'ceiling' | 'length' | 'ready';

/** What is asked of the index. */
export interface ShelfQuestion {
  readonly words: string;
  /** A board in the player's own order, whose phrases alone are meant. */
  readonly board: readonly string[] | null;
  readonly sort: ShelfSort;
  readonly descending: boolean;
  /** How many rows are wanted at once, from the top. */
  readonly first: number;
}

/** A condition that was understood, with how many phrases it leaves. */
export interface Chip {
  readonly words: string;
  readonly typed: string;
  readonly leaves: number;
}

export interface ShelfAnswer {
  /** Places of the phrases found, in order; `rows` gives what stands there. */
  readonly order: Uint32Array;
  readonly heads: readonly { readonly at: number; readonly family: Family; readonly many: number }[];
  readonly first: readonly ShelfRow[];
  readonly chips: readonly Chip[];
  /** What was not understood, and is looked for in names, tags and notes. */
  readonly rest: string;
  /** Phrases on the shelf, and those not worked out yet. */
  readonly all: number;
  readonly unread: number;
  /** Ticks that the strips' full width stands for: most of what was found is no longer. */
  readonly scale: number;
}

export interface NamedPhrase {
  readonly id: string;
  readonly name: string;
  readonly family: Family;
}

/** A phrase of a square of the map. */
export interface MapPhrase {
  readonly id: string;
  readonly name: string;
  /** The tempo that is ready as a share of its ceiling; null where nothing is. */
  readonly share: number | null;
}

/** The map of the shelf: how many phrases each square has, and the readiest of them by name. */
export interface MapAnswer extends Omit<ShelfMap, 'squares'> {
  readonly squares: readonly (Omit<Square, 'ids'> & { readonly many: number; readonly first: readonly MapPhrase[] })[];
  /** Phrases that are not worked out yet. */
  readonly unread: number;
}

/** What a phrase is to others of the shelf. */
export interface KinLine {
  readonly id: string;
  readonly name: string;
  readonly depth: number;
  readonly change: string;
  readonly own: boolean;
}
export interface KinAnswer {
  readonly tree: readonly KinLine[];
  /** "the same as Cold rope, two slots later". */
  readonly same: readonly { readonly id: string; readonly name: string; readonly words: string }[];
}
