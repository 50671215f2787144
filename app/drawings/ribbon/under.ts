import type { Level, Limb } from '@core/stroke';
import { measuresOf } from './measures';
import type { RibbonLayout, RibbonRow } from './model';

/** What lies under a point of a ribbon. */
export interface Under {
  /** Tick of the slot from the pattern's start; it can lie before 0 or behind the end. */
  readonly at: number;
  readonly limb: Limb;
  /** The stroke whose stem or block is there; null for an empty place. */
  readonly stroke: number | null;
  /** Whether it is the stem's end, which can be dragged for its height. */
  readonly end: boolean;
}

/** How near a point must be to a stem to mean it, in px: a finger's half width on a tablet is near 10. */
const NEAR = 9;

function rowAt(layout: RibbonLayout, y: number): RibbonRow | null {
  const rows = layout.rows.filter((r) => y >= r.top - 4);
  return rows.at(-1) ?? layout.rows[0] ?? null;
}

/** What is under a point, in px of the drawing. Null for a drawing without rows. */
export function underPoint(layout: RibbonLayout, x: number, y: number): Under | null {
  const row = rowAt(layout, y);
  if (!row) return null;
  const stem = row.stems.find(
    (s) => Math.abs(s.x - x) <= NEAR && y >= Math.min(s.base, s.end) - NEAR && y <= Math.max(s.base, s.end) + NEAR,
  );
  const block = row.blocks.find(
    (b) => x >= b.x - 3 && x <= b.x + b.width + 3 && y >= b.y - 4 && y <= b.y + b.height + 4,
  );
  const tick = row.from + (x - row.inset) / row.scale - layout.start;
  const at = Math.floor(tick / layout.grid) * layout.grid;
  if (stem) return { at, limb: stem.limb, stroke: stem.index, end: Math.abs(y - stem.end) <= NEAR + 2 };
  if (block) return { at, limb: block.limb, stroke: block.index, end: Math.abs(y - block.y) <= NEAR };
  const limb: Limb = y > row.floor - 26 && y > row.line + 12 ? 'K' : y < row.line ? 'R' : 'L';
  return { at, limb, stroke: null, end: false };
}

/** The level whose stem is nearest to a height over the hands' line, in px. */
export function levelAt(layout: RibbonLayout, height: number): Level {
  const { stem } = measuresOf(layout.size, layout.rows.length);
  const levels: readonly Level[] = ['ghost', 'tap', 'accent'];
  return levels.reduce((best, l) => (Math.abs(stem[l] - height) < Math.abs(stem[best] - height) ? l : best));
}

/** The row and x of a tick from the pattern's start; null when it is in no row. */
export function placeOf(layout: RibbonLayout, at: number): { readonly row: RibbonRow; readonly x: number } | null {
  const tick = layout.start + at;
  const row =
    layout.rows.find((r) => tick >= r.from && tick < r.until) ??
    (tick === layout.rows.at(-1)?.until ? layout.rows.at(-1) : undefined);
  return row ? { row, x: row.inset + (tick - row.from) * row.scale } : null;
}
