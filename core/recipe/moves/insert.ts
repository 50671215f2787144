import { Type, type Static } from '@sinclair/typebox';
import { count, mod } from '../../base';
import { gridName, ticks } from '../../time';
import { usualVoice, type Stroke, type TypedStroke } from '../../stroke';
import { MOST_STROKES, slotsLong, tidy, type Group, type Pattern } from '../../pattern';
import { select, SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, passes, type Move } from './move';
import { readSlots, TextSchema } from './text-param';

const slots = Type.Integer({ minimum: 1, maximum: 2048 });
export const InsertParams = Type.Object({
  text: TextSchema,
  /** Slot of the added strokes in ticks, when it is not the home grid: a burst of 32nds between 16ths. */
  grid: Type.Optional(Type.Integer({ minimum: 105, maximum: 20160 })),
  where: Type.Union([
    Type.Object({ kind: Type.Literal('end') }),
    Type.Object({ kind: Type.Literal('start') }),
    Type.Object({ kind: Type.Literal('after'), slot: slots }),
    Type.Object({ kind: Type.Literal('every'), slots }),
    Type.Object({ kind: Type.Literal('behind'), select: SelectionSchema }),
  ]),
});
type Params = Static<typeof InsertParams>;

/** Ticks of the old pattern at which something is put in, ascending. */
function points(pattern: Pattern, where: Params['where']): number[] {
  switch (where.kind) {
    case 'start':
      return [0];
    case 'end':
      return [pattern.length];
    case 'after':
      return where.slot * pattern.grid <= pattern.length ? [where.slot * pattern.grid] : [];
    case 'behind': {
      const slots = select(pattern, where.select).map((i) => Math.floor((pattern.strokes[i]?.at ?? 0) / pattern.grid));
      return [...new Set(slots)].map((slot) => Math.min(pattern.length, (slot + 1) * pattern.grid));
    }
    case 'every': {
      const step = where.slots * pattern.grid;
      return Array.from({ length: Math.floor(pattern.length / step) }, (_, i) => (i + 1) * step);
    }
  }
}

/**
 * Opens the pattern at each point by the length of the new slots and puts them there; a group that ends at a point
 * grows.
 */
function opened(
  pattern: Pattern,
  at: readonly number[],
  added: readonly (readonly TypedStroke[])[],
  slot: number,
  move: string,
): Pattern {
  const gap = added.length * slot;
  // How many points lie at or before a tick of the old pattern.
  const passed = (t: number): number => at.filter((p) => p <= t).length;
  const groups = pattern.groups.map((g): Group => {
    // What is put in front belongs to the first group.
    const start = g.at === 0 ? 0 : g.at + passed(g.at) * gap;
    const end = g.at + g.length + passed(g.at + g.length) * gap;
    return { ...g, at: ticks(start), length: ticks(end - start) };
  });
  const fresh = at.flatMap((p, nth) =>
    added.flatMap((together, i) =>
      together.map((s): Stroke => {
        const when = p + nth * gap + i * slot;
        return {
          ...s,
          at: ticks(when),
          voice: s.voice ?? usualVoice(s.limb),
          from: { index: 0, repeat: groupAt(groups, when)?.repeat ?? 0, move },
        };
      }),
    ),
  );
  const strokes = [...pattern.strokes.map((s) => ({ ...s, at: ticks(s.at + passed(s.at) * gap) })), ...fresh];
  return tidy({
    ...pattern,
    groups,
    length: ticks(pattern.length + at.length * gap),
    strokes: strokes.map((s) => reindexed(s, groups, pattern.grid)),
  });
}

function groupAt(groups: readonly Group[], at: number): Group | undefined {
  return groups.find((g) => at >= g.at && at < g.at + g.length);
}

/** The place in the cell follows from where the stroke now stands in its group. */
function reindexed(stroke: Stroke, groups: readonly Group[], slot: number): Stroke {
  const start = groupAt(groups, stroke.at)?.at ?? 0;
  return {
    ...stroke,
    from: { ...stroke.from, index: Math.floor(mod(stroke.at - start, Number.MAX_SAFE_INTEGER) / slot) },
  };
}

/** Grow the cell: four strokes and a kick make five. */
export const insert: Move<'insert', Params> = {
  name: 'insert',
  title: 'Add strokes',
  hint: 'A kick at the end turns four into five.',
  schema: InsertParams,
  whole: true,
  defaults: () => ({ text: 'K', where: { kind: 'end' } }),
  describe: ({ text, grid, where }, on) => {
    const strokes = text.trim().toUpperCase() === 'K' ? 'a kick' : text.trim() || 'nothing';
    const what = grid === undefined ? strokes : `${strokes} on ${gridName(grid)}`;
    switch (where.kind) {
      case 'start':
        return `Add ${what} in front`;
      case 'end':
        return `Add ${what} at the end`;
      case 'after':
        return `Add ${what} after ${count(where.slot, 'slot')}`;
      case 'every':
        return `Add ${what} after every ${count(where.slots, 'slot')}`;
      case 'behind':
        return `Add ${what} behind ${selectionWords(where.select, on)}`;
    }
  },
  apply: (pattern, params, { id }) => {
    const read = readSlots(params.text);
    if ('wrong' in read) return passes(pattern, 'bad-text', read.wrong);
    const at = points(pattern, params.where);
    if (at.length === 0 && params.where.kind === 'behind')
      return choseNothing(pattern, selectionWords(params.where.select, pattern));
    if (at.length === 0)
      return passes(
        pattern,
        'does-not-fit',
        `The phrase is only ${count(slotsLong(pattern), 'slot')} long, so nothing is added.`,
      );
    if (at.length * read.slots.length * 5 > MOST_STROKES)
      return passes(pattern, 'too-many', `That would be more than ${MOST_STROKES} strokes.`);
    return done(opened(pattern, at, read.slots, params.grid ?? pattern.grid, id));
  },
};
