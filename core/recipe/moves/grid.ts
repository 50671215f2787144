import { Type, type Static } from '@sinclair/typebox';
import { GRID, gridName, gridsOf, ticks, wholeTicks, type Ticks } from '../../time';
import { slotsLong, tidy, type Pattern } from '../../pattern';
import { done, passes, type Move } from '../move';
import { scaled } from '../scale';

const slot = Type.Integer({ minimum: 1, maximum: 2048 });
export const GridParams = Type.Object({
  grid: Type.Integer({ minimum: 105, maximum: 20160 }),
  /** Only these slots, counted from 1: the rest moves up behind them, and the home grid stays. */
  part: Type.Optional(Type.Object({ from: slot, to: slot })),
});
type Params = Static<typeof GridParams>;

/**
 * The times between two ticks bent to another grid; what comes after follows. Null when something would not stay on
 * whole ticks.
 */
function partly(pattern: Pattern, grid: number, from: number, to: number): Pattern | null {
  const bend = (t: number): number =>
    t <= from
      ? t
      : t >= to
        ? t + ((to - from) * grid) / pattern.grid - (to - from)
        : from + ((t - from) * grid) / pattern.grid;
  const bent = new Map<number, Ticks>();
  for (const t of [
    pattern.length,
    ...pattern.strokes.map((s) => s.at),
    ...pattern.groups.flatMap((g) => [g.at, g.at + g.length]),
  ]) {
    const whole = wholeTicks(bend(t));
    if (whole === null) return null;
    bent.set(t, whole);
  }
  const at = (t: number): Ticks => bent.get(t) ?? ticks(0);
  return tidy({
    ...pattern,
    length: at(pattern.length),
    strokes: pattern.strokes.map((s) => ({ ...s, at: at(s.at) })),
    groups: pattern.groups.map((g) => ({ ...g, at: at(g.at), length: ticks(at(g.at + g.length) - at(g.at)) })),
  });
}

/**
 * The same slots on another grid: a nine-note cell from triplets to 16ths, a two-bar idea in one bar; or some of its
 * slots only, as a burst.
 */
export const grid: Move<'grid', Params> = {
  name: 'grid',
  title: 'Put it on another grid',
  hint: 'Same strokes, faster or slower: triplets, 16ths, sextuplets …; or a few slots only.',
  schema: GridParams,
  whole: true,
  defaults: (pattern) => {
    const grids = gridsOf(pattern.meter);
    return { grid: grids.find((g) => g < pattern.grid) ?? grids[0] ?? GRID.sixteenths };
  },
  describe: ({ grid: to, part }) =>
    part ? `Put slots ${part.from} to ${part.to} on ${gridName(to)}` : `Put it on ${gridName(to)}`,
  apply: (pattern, params) => {
    const { part } = params;
    if (!part) {
      const moved = scaled(pattern, params.grid, pattern.grid);
      return moved
        ? done({ ...moved, grid: ticks(params.grid) })
        : passes(pattern, 'not-whole', `Some strokes would fall between ticks on ${gridName(params.grid)}.`);
    }
    const [from, to] = [(part.from - 1) * pattern.grid, part.to * pattern.grid];
    if (from >= to || to > pattern.length)
      return passes(
        pattern,
        'does-not-fit',
        `The phrase has ${slotsLong(pattern)} slots; ${part.from} to ${part.to} are not among them.`,
      );
    const moved = partly(pattern, params.grid, from, to);
    return moved
      ? done(moved)
      : passes(pattern, 'not-whole', `Some strokes would fall between ticks on ${gridName(params.grid)}.`);
  },
};
