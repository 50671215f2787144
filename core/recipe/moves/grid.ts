import { Type, type Static } from '@sinclair/typebox';
import { GRID, gridName, gridsOf, ticks, wholeTicks } from '../../time';
import { tidy, type Pattern } from '../../pattern';
import { done, passes, type Move } from '../move';

export const GridParams = Type.Object({ grid: Type.Integer({ minimum: 105, maximum: 20160 }) });
type Params = Static<typeof GridParams>;

/** Every time of a pattern multiplied by `numerator / denominator`; null when a single one would not stay on whole ticks. */
export function scaled(pattern: Pattern, numerator: number, denominator: number): Pattern | null {
  const times = [pattern.length, ...pattern.strokes.map((s) => s.at), ...pattern.groups.flatMap((g) => [g.at, g.length])];
  const scale = (t: number): number => (t * numerator) / denominator;
  if (times.some((t) => wholeTicks(scale(t)) === null)) return null;
  return tidy({
    ...pattern,
    length: ticks(scale(pattern.length)),
    strokes: pattern.strokes.map((s) => ({ ...s, at: ticks(scale(s.at)) })),
    groups: pattern.groups.map((g) => ({ ...g, at: ticks(scale(g.at)), length: ticks(scale(g.length)) })),
  });
}

/** The same slots on another grid: a nine-note cell from triplets to 16ths, a two-bar idea in one bar. */
export const grid: Move<'grid', Params> = {
  name: 'grid',
  title: 'Put it on another grid',
  hint: 'Same strokes, faster or slower: triplets, 16ths, sextuplets …',
  schema: GridParams,
  defaults: (pattern) => {
    const grids = gridsOf(pattern.meter);
    return { grid: grids.find((g) => g < pattern.grid) ?? grids[0] ?? GRID.sixteenths };
  },
  describe: (params) => `Put it on ${gridName(params.grid)}`,
  apply: (pattern, params) => {
    const moved = scaled(pattern, params.grid, pattern.grid);
    if (!moved) return passes(pattern, 'not-whole', `Some strokes would fall between ticks on ${gridName(params.grid)}.`);
    return done({ ...moved, grid: ticks(params.grid) });
  },
};
