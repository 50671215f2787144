import { Type, type Static } from '@sinclair/typebox';
import { ticks } from '../../time';
import type { Origin, Stroke } from '../../stroke';
import { tidy, type Pattern } from '../../pattern';
import { done, type Move } from './move';

export const ReverseParams = Type.Object({
  /** Each group by itself; absent: the whole phrase. */
  by: Type.Optional(Type.Literal('group')),
});
type Params = Static<typeof ReverseParams>;

interface Span {
  readonly at: number;
  readonly length: number;
}

/** The slots of a stretch on the home grid; the last may be shorter. */
function slotsOf({ at, length }: Span, grid: number): readonly Span[] {
  return Array.from({ length: Math.ceil(length / grid) }, (_, i) => ({
    at: at + i * grid,
    length: Math.min(grid, length - i * grid),
  }));
}

/** The strokes of a slot from its last to its first, in the rhythm that it has; one alone stays where it is in it. */
function turned(own: readonly Stroke[], slot: Span, to: number): Stroke[] {
  const onsets = [...new Set(own.map((s): number => s.at))];
  return own.map((s) => {
    const at = onsets[onsets.length - 1 - onsets.indexOf(s.at)] ?? s.at;
    return { ...s, at: ticks(to + at - slot.at) };
  });
}

/** The strokes of a stretch, the last slot first. */
function backwards(strokes: readonly Stroke[], span: Span, grid: number): Stroke[] {
  let to = span.at;
  return [...slotsOf(span, grid)].reverse().flatMap((slot) => {
    const own = strokes.filter((s) => s.at >= slot.at && s.at < slot.at + slot.length);
    const moved = turned(own, slot, to);
    to += slot.length;
    return moved;
  });
}

/** Where a stroke stands in its group, counted from the end of it. */
function placeFromEnd({ groups, grid }: Pattern, { from }: Stroke): Origin {
  const own = groups.find((g) => g.repeat === from.repeat);
  const slots = Math.ceil((own?.length ?? 0) / grid);
  return { ...from, index: from.index < slots ? slots - 1 - from.index : from.index };
}

/** Backwards: what was played last comes first, each stroke with its own limb. */
export const reverse: Move<'reverse', Params> = {
  name: 'reverse',
  title: 'Play it backwards',
  hint: 'The last stroke first. The hands are not swapped: that is a move of its own.',
  schema: ReverseParams,
  whole: true,
  defaults: () => ({}),
  describe: ({ by }) => (by ? 'Play every group backwards' : 'Play it backwards'),
  apply: (pattern, { by }) => {
    const { grid, length, groups } = pattern;
    const strokes = pattern.strokes.map((s) => ({ ...s, from: placeFromEnd(pattern, s) }));
    if (by) {
      const inside = (s: Stroke): boolean => groups.some((g) => s.at >= g.at && s.at < g.at + g.length);
      const moved = groups.flatMap((g) => backwards(strokes, g, grid));
      return done(tidy({ ...pattern, strokes: [...strokes.filter((s) => !inside(s)), ...moved] }));
    }
    const last = groups.reduce((most, g) => Math.max(most, g.repeat), 0);
    const moved = backwards(strokes, { at: 0, length }, grid).map((s) => ({
      ...s,
      from: { ...s.from, repeat: Math.max(0, last - s.from.repeat) },
    }));
    const turnedGroups = [...groups]
      .reverse()
      .map((g, repeat) => ({ ...g, at: ticks(length - g.at - g.length), repeat }));
    return done(tidy({ ...pattern, strokes: moved, groups: turnedGroups }));
  },
};
