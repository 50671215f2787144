import { Type, type Static } from '@sinclair/typebox';
import { count, mod } from '../../base';
import { ticks } from '../../time';
import { tidy, type Group, type Pattern } from '../../pattern';
import { done, finding, type Move } from '../move';

export const ShiftParams = Type.Object({
  slots: Type.Integer({ minimum: -2048, maximum: 2048 }),
  /** wrap: what leaves at one end comes in at the other. push: it is left out. */
  mode: Type.Union([Type.Literal('wrap'), Type.Literal('push')]),
});
type Params = Static<typeof ShiftParams>;

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

/** Displacement: the phrase starts some slots later or earlier in the same space. */
export const shift: Move<'shift', Params> = {
  name: 'shift',
  title: 'Displace it',
  hint: 'Start a slot later or earlier; what falls off comes round.',
  schema: ShiftParams,
  defaults: () => ({ slots: 1, mode: 'wrap' }),
  describe: ({ slots, mode }) => {
    if (slots === 0) return 'Leave it where it is';
    const way = slots > 0 ? 'later' : 'earlier';
    return `Displace it ${count(Math.abs(slots), 'slot')} ${way}${mode === 'push' ? ', cut what falls off' : ''}`;
  },
  apply: (pattern, { slots, mode }) => {
    const by = slots * pattern.grid;
    if (pattern.length === 0 || by === 0) return done(pattern);
    if (mode === 'wrap') {
      const strokes = pattern.strokes.map((s) => ({ ...s, at: ticks(mod(s.at + by, pattern.length)) }));
      return done(tidy({ ...pattern, strokes, groups: wrappedGroups(pattern, by) }));
    }
    const strokes = pattern.strokes.map((s) => ({ ...s, at: ticks(s.at + by) }));
    const pushed = tidy({ ...pattern, strokes, groups: pushedGroups(pattern, by) });
    const lost = pattern.strokes.length - pushed.strokes.length;
    return done(pushed, lost > 0 ? [finding('cut', 'check', `${count(lost, 'stroke')} fell off the end.`)] : []);
  },
};
