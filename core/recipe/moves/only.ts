import { Type, type Static } from '@sinclair/typebox';
import { mod } from '../../base';
import { barTicks, ticks } from '../../time';
import { tidy, withoutPickup, type Group, type Pattern } from '../../pattern';
import { SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, passes, type Move } from './move';
import { partWords, spansOf, type Span } from './named-slots';

export const OnlyParams = Type.Object({
  select: SelectionSchema,
  /** It stays on the count it had; absent: it begins on the 1. */
  stays: Type.Optional(Type.Literal(true)),
});
type Params = Static<typeof OnlyParams>;

/** The stretches one after the other; the groups of each are cut to it. */
function taken(pattern: Pattern, kept: readonly Span[]): Pick<Pattern, 'strokes' | 'groups' | 'length'> {
  const { grid } = pattern;
  let length = 0;
  const groups: Group[] = [];
  const strokes = kept.flatMap((span) => {
    const [from, until] = [span.from * grid, Math.min(pattern.length, span.until * grid)];
    const to = length - from;
    const first = groups.length - pattern.groups.findIndex((g) => g.at + g.length > from);
    for (const g of pattern.groups) {
      const [a, b] = [Math.max(g.at, from), Math.min(g.at + g.length, until)];
      if (b > a) groups.push({ ...g, at: ticks(a + to), length: ticks(b - a), repeat: groups.length });
    }
    length += until - from;
    return pattern.strokes
      .filter((s) => s.at >= from && s.at < until)
      .map((s) => ({ ...s, at: ticks(s.at + to), from: { ...s.from, repeat: Math.max(0, s.from.repeat + first) } }));
  });
  return { strokes, groups, length: ticks(length) };
}

/** A part on its own: the phrase is what is chosen, and nothing else. */
export const only: Move<'only', Params> = {
  name: 'only',
  title: 'Keep only a part',
  hint: 'A bar, a beat or any stretch on its own. Keep as new makes a phrase of it that remembers where it is from.',
  schema: OnlyParams,
  defaults: (pattern) =>
    pattern.length > barTicks(pattern.meter)
      ? { select: { is: 'bar', bars: ['last'] } }
      : { select: { is: 'half', half: 1, of: 'phrase' } },
  describe: (params, on) => `Only ${partWords(params.select, on)}, ${params.stays ? 'where it stands' : 'on its own'}`,
  apply: (pattern, params) => {
    const kept = spansOf(pattern, params.select);
    const [first] = kept;
    if (!first) return choseNothing(pattern, selectionWords(params.select, pattern));
    const part = taken(pattern, kept);
    if (part.length === pattern.length) return passes(pattern, 'does-not-fit', 'That is all of it already.');
    const start = params.stays ? mod(pattern.start + first.from * pattern.grid, barTicks(pattern.meter)) : 0;
    return done(tidy({ ...withoutPickup(pattern), ...part, start: ticks(start) }));
  },
};
