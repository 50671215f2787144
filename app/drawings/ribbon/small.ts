import { isHand } from '@core/stroke';
import type { RibbonRow } from './model';
import { buzzPath, headPath } from './shapes';

/** Strokes of one look as one shape: a card of hundreds of strokes is a handful of elements. */
export interface SmallShape {
  readonly look: string;
  readonly width: number;
  readonly stems: string;
  readonly heads: string;
  readonly ring: boolean;
  readonly buzz: string;
}

/** The hands of a row, gathered by how they look. */
export function smallShapes(row: RibbonRow): readonly SmallShape[] {
  const shapes = new Map<string, SmallShape>();
  for (const stem of row.stems) {
    if (!isHand(stem.limb)) continue;
    const ring = stem.head === 'ring';
    const look = `stem ${stem.family} ${stem.role}`;
    const key = `${look} ${stem.width} ${ring}`;
    const old = shapes.get(key) ?? { look, width: stem.width, stems: '', heads: '', ring, buzz: '' };
    shapes.set(key, {
      ...old,
      stems: `${old.stems}M${stem.x} ${stem.base}V${stem.end}${stem.graces.map((g) => `M${g.foot} ${stem.base}V${g.top}`).join('')}`,
      heads: old.heads + headPath(stem),
      buzz: stem.buzz ? old.buzz + buzzPath(stem) : old.buzz,
    });
  }
  return [...shapes.values()];
}

/** The feet of a row as one shape. */
export function smallBlocks(row: RibbonRow): string {
  return row.blocks.map((b) => `M${b.x} ${b.y}h${b.width}v${b.height}h${-b.width}z`).join('');
}
