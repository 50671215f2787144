import { Type, type Static } from '@sinclair/typebox';
import { count, fraction } from '../../base';
import {
  barTicks,
  GRID,
  gridName,
  slotsWords,
  gridsOf,
  parseCount,
  ticks,
  USUAL_SCHOOLS,
  wholeTicks,
  type Ticks,
} from '../../time';
import { countingOf, fitSum, MOST_STROKES, slotsLong, tidy, type Group, type Pattern } from '../../pattern';
import { SelectionSchema } from '../../selection';
import { done, finding, passes, type Move, type Outcome } from './move';
import { laidWithin } from './grid-within';
import { partWords } from './named-slots';
import { scaled } from './scale';

const slot = Type.Integer({ minimum: 1, maximum: 2048 });
export const GridParams = Type.Object({
  grid: Type.Integer({ minimum: 105, maximum: 20160 }),
  /**
   * Only these slots, counted from 1, and the home grid stays. The rest moves up behind them; with a count, "3" or
   * "2:3&", they are played from there instead, and all else stays as it was.
   */
  part: Type.Optional(Type.Object({ from: slot, to: slot, on: Type.Optional(Type.String({ maxLength: 16 })) })),
  /**
   * Only this part, and its time is kept: its slots again from the first until it is full (`order`), or each new slot
   * as what stood there, so that strokes are doubled or left out (`place`).
   */
  within: Type.Optional(
    Type.Object({ select: SelectionSchema, by: Type.Union([Type.Literal('order'), Type.Literal('place')]) }),
  ),
  /** Of all slots: the cell is laid anew until the same time is filled, and what is over is cut off. */
  fill: Type.Optional(Type.Literal(true)),
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

/** What a burst takes of the room, and what is left. */
function burstWords(grid: number, slots: number, before: Pattern, after: Pattern): string {
  const taken = (slots * grid) / before.grid;
  const said = `${count(slots, 'slot')} as ${gridName(grid)} take ${slotsWords(taken, before.grid)} of time`;
  const long = slotsLong(after);
  if (after.length === before.length) return `${said}. The other ${fraction(long - taken)} stay as they are.`;
  const bar = barTicks(after.meter);
  const over = (after.start + after.length) % bar;
  const fits =
    over === 0 ? 'in whole bars' : `${slotsWords((bar - over) / after.grid, after.grid)} short of the bar line`;
  return `${said}. The phrase is now ${slotsWords(long, after.grid)} long, ${fits}.`;
}

/** Some slots played on another grid from a count on, over what stood there; null when they would fall off ticks. */
function burst(pattern: Pattern, grid: number, from: number, to: number, at: number): Pattern | null {
  const until = at + ((to - from) * grid) / pattern.grid;
  const placed = pattern.strokes
    .filter((s) => s.at >= from && s.at < to)
    .map((s) => ({ ...s, at: wholeTicks(at + ((s.at - from) * grid) / pattern.grid) }));
  const whole = placed.flatMap((s) => (s.at === null ? [] : [{ ...s, at: s.at }]));
  if (whole.length < placed.length) return null;
  return tidy({ ...pattern, strokes: [...pattern.strokes.filter((s) => s.at < at || s.at >= until), ...whole] });
}

function burstOn(pattern: Pattern, grid: number, from: number, to: number, on: string): Outcome {
  const tick = parseCount(on, countingOf(pattern, USUAL_SCHOOLS));
  const at = tick === null ? -1 : tick - pattern.start;
  if (at < 0 || at >= pattern.length)
    return passes(pattern, 'does-not-fit', `“${on}” is not a count inside this phrase.`);
  if (at + ((to - from) * grid) / pattern.grid > pattern.length)
    return passes(pattern, 'does-not-fit', `There is no room for so many from ${on} on.`);
  const moved = burst(pattern, grid, from, to, at);
  if (!moved) return passes(pattern, 'not-whole', `Some strokes do not fit on ${gridName(grid)}. Nothing changed.`);
  return done(moved, [finding('fit', 'sum', burstWords(grid, (to - from) / pattern.grid, pattern, moved))]);
}

/** The cell of a pattern: what repeats, where one length does; else all of it. */
function cellOf(pattern: Pattern): Pattern {
  const cells = pattern.groups.filter((g) => g.kind === 'cell');
  const [first] = cells;
  const last = pattern.groups.at(-1);
  const isAlike =
    first?.at === 0 && cells.every((g) => g.length === first.length || (g === last && g.length < first.length));
  const length = first && isAlike ? first.length : pattern.length;
  return { ...pattern, length, strokes: pattern.strokes.filter((s) => s.at < length), groups: [] };
}

/** The cell on another grid, again and again over the time there was; what is over is cut off. */
function laidAnew(pattern: Pattern, grid: number): Outcome {
  const cell = scaled(cellOf(pattern), grid, pattern.grid);
  const sum = cell && fitSum(pattern.length / grid, cell.length / grid);
  if (!cell || !sum)
    return passes(pattern, 'not-whole', `Some strokes do not fit on ${gridName(grid)}. Nothing changed.`);
  const turns = Math.ceil(pattern.length / cell.length);
  if (turns * cell.strokes.length > MOST_STROKES)
    return passes(pattern, 'too-many', `That would be more than ${MOST_STROKES} strokes.`);
  const all = Array.from({ length: turns }, (_, repeat) => ({ repeat, at: repeat * cell.length }));
  const strokes = all.flatMap(({ repeat, at }) =>
    cell.strokes.map((s) => ({ ...s, at: ticks(at + s.at), from: { ...s.from, repeat } })),
  );
  const groups = all.map(({ repeat, at }): Group => {
    const length = Math.min(cell.length, pattern.length - at);
    return { at: ticks(at), length: ticks(length), repeat, kind: length < cell.length ? 'close' : 'cell' };
  });
  return done(tidy({ ...pattern, grid: ticks(grid), strokes, groups }), [finding('fit', 'sum', sum.text)]);
}

/**
 * The same slots on another grid: a nine-note cell from triplets to 16ths, a two-bar idea in one bar; or some of its
 * slots only, as a burst.
 */
export const grid: Move<'grid', Params> = {
  name: 'grid',
  title: 'Change the subdivision',
  hint: 'Same strokes, faster or slower: triplets, 16ths, sextuplets … For all or a few slots.',
  schema: GridParams,
  whole: true,
  defaults: (pattern) => {
    const grids = gridsOf(pattern.meter);
    return { grid: grids.find((g) => g < pattern.grid) ?? grids[0] ?? GRID.sixteenths };
  },
  describe: ({ grid: to, part, fill, within }, on) =>
    within
      ? `Put ${partWords(within.select, on)} on ${gridName(to)} in the same time, ${within.by === 'order' ? 'in order' : 'each in its place'}`
      : part
        ? `Put ${part.from === part.to ? `slot ${part.from}` : `slots ${part.from} to ${part.to}`} on ${gridName(to)}${part.on === undefined ? '' : `, from ${part.on} on`}`
        : `Put it on ${gridName(to)}${fill ? ', over the same time' : ''}`,
  apply: (pattern, params) => {
    const { part, within } = params;
    if (within) return laidWithin(pattern, params.grid, within);
    if (!part) {
      const moved = scaled(pattern, params.grid, pattern.grid);
      if (moved && params.fill) return laidAnew(pattern, params.grid);
      return moved
        ? done({ ...moved, grid: ticks(params.grid) })
        : passes(pattern, 'not-whole', `Some strokes do not fit on ${gridName(params.grid)}. Nothing changed.`);
    }
    const [from, to] = [(part.from - 1) * pattern.grid, part.to * pattern.grid];
    if (from >= to || to > pattern.length)
      return passes(
        pattern,
        'does-not-fit',
        `The phrase has ${fraction(slotsLong(pattern))} slots; ${part.from} to ${part.to} are not among them.`,
      );
    if (part.on !== undefined) return burstOn(pattern, params.grid, from, to, part.on);
    const moved = partly(pattern, params.grid, from, to);
    return moved
      ? done(moved, [finding('fit', 'sum', burstWords(params.grid, part.to - part.from + 1, pattern, moved))])
      : passes(pattern, 'not-whole', `Some strokes do not fit on ${gridName(params.grid)}. Nothing changed.`);
  },
};
