import { Type, type Static } from '@sinclair/typebox';
import { count, mod } from '../../base';
import { barTicks, parseCount, ticks, USUAL_SCHOOLS } from '../../time';
import { countingOf, tidy, type Group, type Pattern } from '../../pattern';
import { done, finding, passes, type Move, type Outcome } from './move';

export const ShiftParams = Type.Object({
  slots: Type.Integer({ minimum: -2048, maximum: 2048 }),
  /** wrap: what leaves at one end comes in at the other. push: it is left out. */
  mode: Type.Union([Type.Literal('wrap'), Type.Literal('push')]),
  /** Only from a count on, "2&" or "2:1"; what comes before stays. */
  from: Type.Optional(Type.String({ maxLength: 16 })),
  /** Only inside every n-th group. */
  groups: Type.Optional(Type.Integer({ minimum: 1, maximum: 64 })),
  /** The count its first stroke falls on, instead of so many slots: "3", "3e", or "4:3" in bar 4. */
  start: Type.Optional(Type.String({ maxLength: 16 })),
});
type Params = Static<typeof ShiftParams>;

interface TickRange {
  readonly from: number;
  readonly until: number;
}

/** The stretches of the pattern that move, each in itself. */
function stretchesOf(pattern: Pattern, { from, groups }: Params): TickRange[] | null {
  const start = from === undefined ? 0 : parseCount(from, countingOf(pattern, USUAL_SCHOOLS));
  if (start === null) return null;
  const first = Math.max(0, from === undefined ? 0 : start - pattern.start);
  if (groups === undefined) return first < pattern.length ? [{ from: first, until: pattern.length }] : null;
  return pattern.groups
    .filter((g, i) => i % groups === groups - 1 && g.at >= first)
    .map((g) => ({ from: g.at, until: g.at + g.length }));
}

/** Groups moved round the loop; one that crosses the end stands in two pieces with the same repeat. */
function wrappedGroups(pattern: Pattern, by: number): Group[] {
  const { length } = pattern;
  return pattern.groups
    .flatMap((g): Group[] => {
      const at = mod(g.at + by, length);
      const over = at + g.length - length;
      if (over <= 0) return [{ ...g, at: ticks(at) }];
      return [
        { ...g, at: ticks(0), length: ticks(over) },
        { ...g, at: ticks(at), length: ticks(g.length - over) },
      ];
    })
    .sort((a, b) => a.at - b.at);
}

function pushedGroups(pattern: Pattern, by: number): Group[] {
  return pattern.groups.flatMap((g): Group[] => {
    const from = Math.max(0, g.at + by);
    const to = Math.min(pattern.length, g.at + g.length + by);
    return to > from ? [{ ...g, at: ticks(from), length: ticks(to - from) }] : [];
  });
}

/**
 * The phrase with its first stroke on a count: one shorter than a bar begins there, and is as long as it was; a longer
 * one is turned round its loop.
 */
function startOn(pattern: Pattern, count: string): Outcome {
  const tick = parseCount(count, countingOf(pattern, USUAL_SCHOOLS));
  const first = pattern.strokes[0]?.at;
  if (tick === null || first === undefined)
    return passes(pattern, 'does-not-fit', `“${count.slice(0, 16)}” is not a count of this phrase.`);
  const bar = barTicks(pattern.meter);
  if (pattern.length < bar) return done({ ...pattern, start: ticks(mod(tick - first, bar)) });
  const by = mod(tick - pattern.start - first, pattern.length);
  const strokes = pattern.strokes.map((s) => ({ ...s, at: ticks(mod(s.at + by, pattern.length)) }));
  return done(tidy({ ...pattern, strokes, groups: by === 0 ? pattern.groups : wrappedGroups(pattern, by) }));
}

/**
 * Displacement: the phrase, what follows a count, or every n-th group starts some slots later or earlier in the same
 * space.
 */
export const shift: Move<'shift', Params> = {
  name: 'shift',
  title: 'Displace it',
  hint: 'Start some slots later or earlier; the end wraps to the front.',
  schema: ShiftParams,
  whole: true,
  defaults: () => ({ slots: 1, mode: 'wrap' }),
  describe: ({ slots, mode, from, groups, start }) => {
    if (start !== undefined) return `Start on ${start}`;
    if (slots === 0) return 'Leave it where it is';
    const what =
      groups === undefined
        ? 'it'
        : groups === 1
          ? 'every group'
          : `every ${groups === 2 ? 'second' : groups === 3 ? 'third' : `${groups}th`} group`;
    const where = from === undefined ? '' : ` from ${from} on`;
    return `Displace ${what}${where} ${count(Math.abs(slots), 'slot')} ${slots > 0 ? 'later' : 'earlier'}${mode === 'push' ? ', cut what falls off' : ''}`;
  },
  apply: (pattern, params) => {
    if (params.start !== undefined) return startOn(pattern, params.start);
    const by = params.slots * pattern.grid;
    if (pattern.length === 0 || by === 0) return done(pattern);
    const moving = stretchesOf(pattern, params);
    if (!moving || moving.length === 0)
      return passes(pattern, 'does-not-fit', 'There is nothing to displace from there on.');
    const wrap = params.mode === 'wrap';
    const strokes = pattern.strokes.flatMap((s) => {
      const w = moving.find((m) => s.at >= m.from && s.at < m.until);
      if (!w) return [s];
      const at = wrap ? w.from + mod(s.at - w.from + by, w.until - w.from) : s.at + by;
      return at >= w.from && at < w.until ? [{ ...s, at: ticks(at) }] : [];
    });
    const whole = params.from === undefined && params.groups === undefined;
    const groups = !whole ? pattern.groups : wrap ? wrappedGroups(pattern, by) : pushedGroups(pattern, by);
    const moved = tidy({ ...pattern, strokes, groups });
    const lost = pattern.strokes.length - moved.strokes.length;
    return done(moved, lost > 0 ? [finding('cut', 'check', `${count(lost, 'stroke')} fell off the end.`)] : []);
  },
};
