import type { Counting, Schools } from '@core/time';
import type { Family, Head, Level, Limb, OwnSyllables, Stroke } from '@core/stroke';
import type { Role } from '@core/pattern';

/** The sizes a ribbon is drawn in: a row of the shelf, a card of the recipe, the Bench, the practice room. */
export type RibbonSize = 'strip' | 'card' | 'bench' | 'room';

export interface RibbonOptions {
  readonly size: RibbonSize;
  /** Width there is, in px. A strip uses only as much of it as the pattern is long. */
  readonly width: number;
  readonly schools: Schools;
  /** Ticks that a strip's full width stands for, so that strips beside one another show true relative lengths. */
  readonly stripTicks?: number;
  readonly pace?: Counting['pace'];
  /** A line to sing, with the user's own syllables in it; absent for none. */
  readonly sung?: OwnSyllables;
  /** Lines that are left away: counts over the slots, letters of the hands at the line. */
  readonly hide?: readonly RibbonLine[];
  /** Whether the stroke types stand under the counts. */
  readonly types?: boolean;
  /** Only these bars, from 0, each in a row of its own, in this order. */
  readonly bars?: readonly number[];
}

export type RibbonLine = 'counts' | 'letters';

export interface Stem {
  readonly index: number;
  readonly x: number;
  readonly base: number;
  readonly end: number;
  readonly width: number;
  readonly family: Family;
  readonly head: Head;
  readonly headSize: number;
  readonly role: Role;
  readonly level: Level;
  readonly limb: Limb;
  /** Letters beside the head and the sticking at the hands' line; null where there is no room. */
  readonly label: string | null;
  /** Where the label stands: what it begins, ends or is centred at, and the middle of its height. */
  readonly labelX: number;
  readonly labelY: number;
  readonly labelSide: 'start' | 'middle' | 'end';
  readonly letter: string | null;
  readonly letterX: number;
  /** x of each grace stem's foot and head. */
  readonly graces: readonly { readonly foot: number; readonly top: number }[];
  readonly buzz: boolean;
  readonly stroke: Stroke;
}

export interface Block {
  readonly index: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly limb: Limb;
  readonly role: Role;
  readonly letter: string | null;
  readonly stroke: Stroke;
}

export interface RibbonRow {
  readonly top: number;
  readonly height: number;
  readonly line: number;
  readonly floor: number;
  readonly left: number;
  readonly right: number;
  /** "bar 2" where there are several rows. */
  readonly head: string | null;
  readonly countY: number;
  readonly bodyTop: number;
  readonly lines: readonly { readonly x: number; readonly weight: 'bar' | 'beat' }[];
  readonly counts: readonly { readonly x: number; readonly text: string; readonly strong: boolean }[];
  readonly sung: readonly { readonly x: number; readonly text: string }[];
  readonly types: readonly {
    readonly x: number;
    readonly y: number;
    readonly text: string;
    readonly hand: 'R' | 'L';
  }[];
  readonly tints: readonly { readonly x: number; readonly width: number }[];
  readonly brackets: readonly {
    readonly x1: number;
    readonly x2: number;
    readonly text: string;
    readonly close: boolean;
    readonly open: boolean;
    readonly goesOn: boolean;
  }[];
  readonly stems: readonly Stem[];
  readonly blocks: readonly Block[];
  /** First tick of the row and px to a tick, from the bar line on. */
  readonly from: number;
  readonly until: number;
  readonly scale: number;
  readonly inset: number;
}

export interface RibbonLayout {
  /** Tick of the bar line at which the pattern starts: strokes are measured from it, rows from the bar line. */
  readonly start: number;
  readonly grid: number;
  readonly width: number;
  readonly height: number;
  readonly rows: readonly RibbonRow[];
  /** What is heard once before the 1, left of the first row; its ticks are those of the bar before. */
  readonly lead: RibbonRow | null;
  readonly size: RibbonSize;
  readonly title: string;
}
