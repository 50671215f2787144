import { Type, type Static } from '@sinclair/typebox';
import { count, sentence } from '../base';
import { barTicks, meterText, ticks } from '../time';
import { barsSpan, tidy, type Group, type Pattern } from '../pattern';
import { done, passes, type Move } from './moves/move';
import { PlainRecipeSchema } from './plain';

const bars = Type.Object({
  from: Type.Integer({ minimum: 1, maximum: 64 }),
  bars: Type.Integer({ minimum: 1, maximum: 64 }),
});
export const JoinParams = Type.Object({
  /** The other phrase, whole, so that it stays what it was when it was joined. */
  other: PlainRecipeSchema,
  name: Type.String({ maxLength: 200 }),
  /** Bars of this phrase that stay, and bars of the other that follow; absent for all. */
  own: Type.Optional(bars),
  their: Type.Optional(bars),
  /** Nothing of this phrase stays: the other stands in its place. */
  alone: Type.Optional(Type.Literal(true)),
});
type Params = Static<typeof JoinParams>;
type Bars = Static<typeof bars>;

/** Some whole bars of a pattern as a pattern that starts on the bar line; all of them when nothing is said. */
function barsOf(pattern: Pattern, part: Bars | undefined): Pattern {
  const bar = barTicks(pattern.meter);
  const from = ((part?.from ?? 1) - 1) * bar;
  const length = (part?.bars ?? Math.max(0, barsSpan(pattern).bars - from / bar)) * bar;
  const groups = pattern.groups.flatMap((g): Group[] => {
    const [a, b] = [Math.max(0, g.at + pattern.start - from), Math.min(length, g.at + pattern.start - from + g.length)];
    return b > a ? [{ ...g, at: ticks(a), length: ticks(b - a) }] : [];
  });
  return tidy({
    ...pattern,
    start: ticks(0),
    length: ticks(length),
    strokes: pattern.strokes.map((s) => ({ ...s, at: ticks(s.at + pattern.start - from) })),
    groups,
  });
}

function partWords(part: Bars | undefined): string {
  if (!part) return '';
  return part.bars === 1 ? `bar ${part.from} of ` : `bars ${part.from} to ${part.from + part.bars - 1} of `;
}

/** Bars of one phrase followed by bars of another. */
export const join: Move<'join', Params> = {
  name: 'join',
  title: 'Join another phrase',
  hint: 'Bars of this one, then bars of another.',
  schema: JoinParams,
  // Without another phrase at hand it is joined to what it began with: call and answer.
  defaults: (pattern) => ({
    other: {
      source: { kind: 'typed', text: 'R L R L', meter: meterText(pattern.meter), grid: pattern.grid },
      moves: [],
    },
    name: 'four singles',
  }),
  describe: ({ name, own, their, alone }) =>
    alone
      ? `${sentence(partWords(their))}“${name || 'another phrase'}” in place of this`
      : `${own ? `Keep ${partWords(own)}this, then join` : 'Join'} ${partWords(their)}“${name || 'another phrase'}”`,
  apply: (pattern, { other, own, their, name, alone }, { id, build }) => {
    const follows = build(other);
    if (follows.length === 0) return passes(pattern, 'no-source', `“${name}” is empty, so there is nothing to join.`);
    if (alone) {
      const instead = barsOf(follows, their);
      return done({ ...instead, strokes: instead.strokes.map((s) => ({ ...s, from: { ...s.from, move: id } })) });
    }
    if (barTicks(follows.meter) !== barTicks(pattern.meter)) {
      return passes(
        pattern,
        'does-not-fit',
        `“${name}” is in ${meterText(follows.meter)}, this in ${meterText(pattern.meter)}: their bars do not join.`,
      );
    }
    const [first, second] = [barsOf(pattern, own), barsOf(follows, their)];
    if (second.strokes.length === 0 && first.strokes.length === 0)
      return passes(
        pattern,
        'nothing-chosen',
        `There is nothing in those bars: “${name}” has ${count(barsSpan(follows).bars, 'bar')}.`,
      );
    const repeats = first.groups.reduce((most, g) => Math.max(most, g.repeat + 1), 0);
    return done(
      tidy({
        ...first,
        length: ticks(first.length + second.length),
        strokes: [
          ...first.strokes,
          ...second.strokes.map((s) => ({
            ...s,
            at: ticks(s.at + first.length),
            from: { ...s.from, repeat: s.from.repeat + repeats, move: id },
          })),
        ],
        groups: [
          ...first.groups,
          ...second.groups.map((g) => ({ ...g, at: ticks(g.at + first.length), repeat: g.repeat + repeats })),
        ],
      }),
    );
  },
};
