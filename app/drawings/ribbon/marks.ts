import type { Limb } from '@core/stroke';

/** What is marked on a ribbon beside the strokes themselves. Ticks are measured from the pattern's start. */
export interface RibbonMarks {
  /** Where the cursor stands; null for no cursor. */
  readonly cursor: number | null;
  /** A chosen stretch, up to but not including `until`. */
  readonly range: { readonly from: number; readonly until: number } | null;
  /** Indexes of chosen strokes. */
  readonly chosen: readonly number[];
  /** Ticks that a move changed or that differ from another phrase. */
  readonly changed: readonly number[];
  /** Two strokes of one limb that are too near each other at the tempo, by index. */
  readonly tight: readonly { readonly from: number; readonly to: number }[];
  /** Hits at their true time, in ticks from the bar line; an old one belongs to the turn before. */
  readonly dots: readonly { readonly tick: number; readonly limb: Limb | null; readonly old: boolean }[];
  /** Where chosen strokes would land, by ticks, while they are dragged. */
  readonly shadow: number;
}

export const NO_MARKS: RibbonMarks = Object.freeze({
  cursor: null,
  range: null,
  chosen: [],
  changed: [],
  tight: [],
  dots: [],
  shadow: 0,
});
