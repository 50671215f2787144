import type { Grid } from '../../time';
import type { Level, Ornament, Voice } from '../../stroke';
import type { BarSaid, CountSaid } from './counts';
import type { LimbTerm } from '../lexicon/terms';

/** What each of several things is said to have: "the first of every triplet". */
export type Each = 'beat' | 'bar' | 'group' | 'repeat' | 'double';

export type Order =
  | { readonly kind: 'nth'; readonly n: number; readonly very: boolean }
  | { readonly kind: 'first' | 'last'; readonly n: number }
  /** `first`: the first is one of them, as was said. */
  | { readonly kind: 'every'; readonly n: number; readonly of: 'stroke' | 'slot'; readonly first?: true }
  /** `many` where several are meant: "the first two of every beat". */
  | { readonly kind: 'of'; readonly which: number | 'last'; readonly each: Each; readonly many?: number }
  /** What stands in the middle of each: "the middle of each triplet". */
  | { readonly kind: 'middle'; readonly each: Each }
  /** Strokes of doubles, or those that stand alone. */
  | { readonly kind: 'doubles' | 'singles' }
  /** "the next two": behind what was last spoken of. */
  | { readonly kind: 'next'; readonly n: number }
  /** "notes 3 to 5" */
  | { readonly kind: 'range'; readonly from: number; readonly to: number };

/** Strokes, or places, as they were said. Absent parts do not restrict. */
export interface Pick {
  /** `it`: what was last spoken of, or all of it. */
  readonly base: 'all' | 'hands' | 'else' | 'them' | 'it' | null;
  /** "The others": of what was spoken of, or of all. */
  readonly others?: true;
  /** "Everything" was said: a beat is all of the beat. */
  readonly everything?: true;
  /** Said of more than one stroke, "rights", "notes": on a beat they are all of the beat. */
  readonly many?: true;
  readonly limb?: LimbTerm;
  readonly levels?: readonly Level[];
  readonly voices?: readonly Voice[];
  readonly ornaments?: readonly Ornament[];
  readonly counts?: readonly CountSaid[];
  readonly bars?: readonly BarSaid[];
  readonly half?: 1 | 2;
  /** Of what it is the half, where no bar was said and it was asked. */
  readonly halfOf?: 'phrase' | 'bar';
  readonly order?: Order;
  /** Slots of this grid are meant, struck or not. */
  readonly grid?: Grid;
  readonly before?: CountSaid;
  readonly after?: CountSaid;
  readonly since?: CountSaid;
  readonly to?: CountSaid;
  readonly until?: CountSaid;
  readonly between?: readonly [CountSaid, CountSaid];
  /** Where these are struck: "where the kick is". */
  readonly where?: Pick;
  /** The next ones before or behind each of these: "the note before every kick". */
  readonly beside?: { readonly how: 'before' | 'after'; readonly what: Pick };
  /** So many there are: "the two rights". */
  readonly howMany?: number;
  readonly repeat?: 'first' | 'last';
  readonly except?: readonly Pick[];
  readonly and?: Pick;
  /** Words that were said, for what cannot be met. */
  readonly said: string;
}
