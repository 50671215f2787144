import { Type, type Static } from '@sinclair/typebox';
import { barTicks, parseCount, ticks, USUAL_SCHOOLS } from '../../time';
import { countingOf, countRef, placeWords, tidy, type Group, type Pattern } from '../../pattern';
import { done, passes, type Move } from './move';

export const RestartParams = Type.Object({
  /** The count from which it plays from its beginning again: "3", "2&", or "2:3" in bar 2. */
  at: Type.String({ minLength: 1, maxLength: 16 }),
  /** How long: to the end of that bar, or of the phrase. What comes after stays as it is. */
  until: Type.Union([Type.Literal('bar'), Type.Literal('end')]),
});
type Params = Static<typeof RestartParams>;

/** Groups with a stretch taken out and the groups of the beginning put in its place. */
function regrouped(groups: readonly Group[], from: number, until: number): Group[] {
  const outside = groups.flatMap((g): Group[] => {
    const [a, b] = [g.at as number, g.at + g.length];
    const before: Group[] = a < from ? [{ ...g, length: ticks(Math.min(b, from) - a) }] : [];
    const after: Group[] =
      b > until ? [{ ...g, at: ticks(Math.max(a, until)), length: ticks(b - Math.max(a, until)) }] : [];
    return [...before, ...after];
  });
  const again = groups.flatMap((g): Group[] => {
    const length = Math.min(g.length, until - from - g.at);
    return length > 0 ? [{ ...g, at: ticks(from + g.at), length: ticks(length) }] : [];
  });
  return [...outside, ...again].sort((a, b) => a.at - b.at).map((g, repeat) => ({ ...g, repeat }));
}

function restarted(pattern: Pattern, from: number, until: number): Pattern {
  const groups = regrouped(pattern.groups, from, until);
  const repeatAt = (at: number): number =>
    groups.findLast((g) => g.at <= at && at < g.at + g.length)?.repeat ?? groups.length;
  const outside = pattern.strokes.filter((s) => s.at < from || s.at >= until);
  const again = pattern.strokes.filter((s) => s.at < until - from).map((s) => ({ ...s, at: ticks(from + s.at) }));
  const strokes = [...outside, ...again].map((s) => ({ ...s, from: { ...s.from, repeat: repeatAt(s.at) } }));
  return tidy({ ...pattern, strokes, groups });
}

/** The beat turned round: from a count on it plays from its beginning again, in one bar or to the end. */
export const restart: Move<'restart', Params> = {
  name: 'restart',
  title: 'Start again from here',
  hint: 'From a chosen count on, the phrase plays from its start again.',
  schema: RestartParams,
  whole: true,
  defaults: (pattern) => {
    const slots = Math.floor(pattern.length / pattern.grid);
    return { at: countRef(pattern, Math.max(1, Math.floor(slots / 2)) * pattern.grid), until: 'bar' };
  },
  describe: ({ at, until }) => `Start again from ${at}${until === 'bar' ? ', to the end of that bar' : ''}`,
  apply: (pattern, { at, until }) => {
    const count = parseCount(at, countingOf(pattern, USUAL_SCHOOLS));
    const from = count === null ? null : count - pattern.start;
    if (from === null || from < 0 || from >= pattern.length)
      return passes(pattern, 'does-not-fit', `“${at}” is not a count inside this phrase.`);
    if (from === 0)
      return passes(pattern, 'does-not-fit', `It already begins on ${placeWords(pattern, from, USUAL_SCHOOLS)}.`);
    const bar = barTicks(pattern.meter);
    const barEnd = (Math.floor((pattern.start + from) / bar) + 1) * bar - pattern.start;
    return done(restarted(pattern, from, until === 'bar' ? Math.min(pattern.length, barEnd) : pattern.length));
  },
};
