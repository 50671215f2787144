import type { Pattern } from '../../pattern';
import type { MoveEntry } from '../../recipe';
import type { Voice } from '../../stroke';
import type { Order } from '../grammar/playing';
import type { ShelfPhrase } from '../lexicon/phrases';
import type { LetteredPhrase } from '../rules/versions';

/** What a line can mean: moves, one after the other, and the phrase they make. */
export interface Meant {
  readonly words: string;
  readonly moves: readonly MoveEntry[];
  readonly pattern: Pattern;
}

/** A part of a line that is not understood or cannot be met, where it stands, and why. */
export interface Diagnostic {
  readonly words: string;
  readonly from: number;
  readonly until: number;
  readonly why: string;
}

/** All a line can mean for a phrase; where it means nothing, which words are to blame. */
export type LineReading =
  | { readonly kind: 'meant'; readonly all: readonly Meant[] }
  | { readonly kind: 'not'; readonly diagnostics: readonly Diagnostic[] }
  | { readonly kind: 'playing'; readonly words: string; readonly order: Order | null; readonly says: string };

/** What is known beside the phrase: its tempo, and what the player's own pieces are called. */
export interface Around {
  readonly tempo?: number;
  readonly own?: readonly { readonly name: string; readonly voice: Voice }[];
  /** Phrases of the shelf that can be named. */
  readonly phrases?: readonly ShelfPhrase[];
  /** Orchestrations of the phrase by their letters, and its own letter; null where it is not on the shelf. */
  readonly versions?: readonly LetteredPhrase[];
  readonly letter?: string | null;
  /** The kit has no second kick pedal: a left foot is the hi-hat's. */
  readonly isOnePedal?: boolean;
}
