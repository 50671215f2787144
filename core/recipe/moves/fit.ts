import { Type, type Static } from '@sinclair/typebox';
import { count, fraction } from '../../base';
import { barTicks, beatTicks, meterText, parseCount, ticks, USUAL_SCHOOLS } from '../../time';
import { otherHand, usualVoice, type Stroke } from '../../stroke';
import { countingOf, fitSum, MOST_BARS, MOST_STROKES, tidy, type Finding, type Group, type Pattern } from '../../pattern';
import { done, finding, passes, type Move } from '../move';
import { readSlots, TextSchema } from '../text-param';

export const FitParams = Type.Object({
  space: Type.Union([
    Type.Object({ bars: Type.Integer({ minimum: 1, maximum: MOST_BARS }) }),
    Type.Object({ beats: Type.Integer({ minimum: 1, maximum: 256 }) }),
  ]),
  /** Count on which it starts, in bar 1. */
  start: Type.String({ maxLength: 16 }),
  /** Every second repeat with the hands swapped. */
  mirrored: Type.Boolean(),
  close: Type.Union([
    Type.Object({ kind: Type.Literal('rest') }),
    Type.Object({ kind: Type.Literal('cut') }),
    Type.Object({ kind: Type.Literal('strokes'), text: TextSchema }),
    // Every repeat stretched or shortened to its group's size, in slots.
    Type.Object({
      kind: Type.Literal('groups'),
      groups: Type.Array(Type.Integer({ minimum: 1, maximum: 64 }), { minItems: 1, maxItems: 512 }),
    }),
  ]),
});
type Params = Static<typeof FitParams>;

/** Length of the space in ticks: bars reach from the start count to the last bar line, beats count from the start. */
function spaceTicks(pattern: Pattern, space: Params['space'], start: number): number {
  return 'bars' in space ? space.bars * barTicks(pattern.meter) - start : space.beats * beatTicks(pattern.meter);
}

/** The cell's strokes at repeat r, those beyond `until` left out. */
function repeated(cell: Pattern, r: number, mirrored: boolean, until: number): Stroke[] {
  const swap = mirrored && r % 2 === 1;
  return cell.strokes.flatMap((s) => {
    const at = r * cell.length + s.at;
    if (at >= until) return [];
    return [{ ...s, at: ticks(at), limb: swap ? otherHand(s.limb) : s.limb, from: { ...s.from, repeat: r } }];
  });
}

interface Closing {
  readonly strokes: readonly Stroke[];
  readonly findings: readonly Finding[];
}

/** The cell once to a group: cut where the group is shorter, followed by a rest where it is longer. Null when the groups do not add up to the space. */
function grouped(cell: Pattern, sizes: readonly number[], mirrored: boolean, space: number): Pick<Pattern, 'strokes' | 'groups'> | null {
  const starts = sizes.map((_, i) => sizes.slice(0, i).reduce((a, b) => a + b, 0) * cell.grid);
  if (sizes.reduce((a, b) => a + b, 0) * cell.grid !== space) return null;
  const groups = sizes.map((size, i): Group => ({ at: ticks(starts[i] ?? 0), length: ticks(size * cell.grid), repeat: i, kind: 'cell' }));
  const strokes = groups.flatMap((g) => {
    const swap = mirrored && g.repeat % 2 === 1;
    return cell.strokes
      .filter((s) => s.at < g.length)
      .map((s): Stroke => ({
        ...s,
        at: ticks(g.at + s.at),
        limb: swap ? otherHand(s.limb) : s.limb,
        from: { ...s.from, repeat: g.repeat },
      }));
  });
  return { strokes, groups };
}

/** What stands in the slots left over after the last whole repeat. */
function closing(
  cell: Pattern,
  params: Params & { readonly close: Exclude<Params['close'], { kind: 'groups' }> },
  repeats: number,
  space: number,
  move: string,
): Closing | { readonly wrong: string } {
  const start = repeats * cell.length;
  const { close } = params;
  switch (close.kind) {
    case 'rest':
      return { strokes: [], findings: [] };
    case 'cut':
      return { strokes: repeated(cell, repeats, params.mirrored, space), findings: [] };
    case 'strokes': {
      const read = readSlots(close.text);
      if ('wrong' in read) return read;
      const room = Math.floor((space - start) / cell.grid);
      const strokes = read.slots.slice(0, room).flatMap((slot, index) =>
        slot.map((s): Stroke => ({
          ...s,
          at: ticks(start + index * cell.grid),
          voice: usualVoice(s.limb),
          from: { index, repeat: repeats, move },
        })),
      );
      const over = read.slots.length - room;
      const findings =
        over > 0 && room > 0
          ? [finding('cut', 'check', `Only ${count(room, 'slot')} to close: ${count(over, 'slot')} of the closing left out.`)]
          : [];
      return { strokes, findings };
    }
  }
}

function groupsOf(cell: number, repeats: number, space: number): Group[] {
  const whole = Array.from({ length: repeats }, (_, r): Group => ({ at: ticks(r * cell), length: ticks(cell), repeat: r, kind: 'cell' }));
  const rest = space - repeats * cell;
  return rest > 0 ? [...whole, { at: ticks(repeats * cell), length: ticks(rest), repeat: repeats, kind: 'close' }] : whole;
}

function closeWords(close: Params['close']): string {
  switch (close.kind) {
    case 'rest':
      return 'close with a rest';
    case 'cut':
      return 'cut the last one';
    case 'strokes':
      return `close with ${close.text.trim() || 'nothing'}`;
    case 'groups':
      return `in groups of ${close.groups.join(' + ')}`;
  }
}

/** Fill a space with the cell, and close what is left over. */
export const fit: Move<'fit', Params> = {
  name: 'fit',
  title: 'Fill the bars',
  hint: 'Repeat it over the bars there are and close the gap.',
  schema: FitParams,
  defaults: (pattern) => ({
    space: { bars: Math.max(1, Math.ceil(pattern.length / barTicks(pattern.meter))) },
    start: '1',
    mirrored: false,
    close: { kind: 'cut' },
  }),
  describe: ({ space, start, mirrored, close }) => {
    const room = 'bars' in space ? count(space.bars, 'bar') : count(space.beats, 'beat');
    const from = start.trim() === '1' ? '' : ` from ${start.trim()}`;
    const hands = mirrored ? ', hands swapped on every repeat' : '';
    return `Fill ${room}${from}${hands}, ${closeWords(close)}`;
  },
  apply: (pattern, params, { id }) => {
    const start = parseCount(params.start, countingOf(pattern, USUAL_SCHOOLS));
    const bar = barTicks(pattern.meter);
    if (start === null || start < 0 || start >= bar) {
      return passes(pattern, 'does-not-fit', `“${params.start}” is no count of a ${meterText(pattern.meter)} bar on this grid.`);
    }
    const space = spaceTicks(pattern, params.space, start);
    const sum = fitSum(space / pattern.grid, pattern.length / pattern.grid);
    if (!sum) return passes(pattern, 'does-not-fit', 'There is nothing to repeat yet.');
    if (space + start > MOST_BARS * bar) return passes(pattern, 'too-long', `A phrase is at most ${MOST_BARS} bars long.`);
    if ((sum.repeats + 1) * Math.max(1, pattern.strokes.length) > MOST_STROKES)
      return passes(pattern, 'too-many', `That would be more than ${MOST_STROKES} strokes.`);
    if (sum.repeats === 0 && params.close.kind === 'rest') {
      return passes(
        pattern,
        'does-not-fit',
        `The cell of ${fraction(sum.cell)} slots is longer than the space of ${fraction(sum.slots)}. Cut it, or give it more room.`,
      );
    }
    const { close: how } = params;
    if (how.kind === 'groups') {
      const parts = grouped(pattern, how.groups, params.mirrored, space);
      if (!parts)
        return passes(
          pattern,
          'does-not-fit',
          `${how.groups.join(' + ')} is ${how.groups.reduce((a, b) => a + b, 0)}, and there are ${fraction(sum.slots)} slots to fill.`,
        );
      return done(tidy({ ...pattern, start: ticks(start), length: ticks(space), ...parts }), [finding('fit', 'sum', sum.text)]);
    }
    const close = closing(pattern, { ...params, close: how }, sum.repeats, space, id);
    if ('wrong' in close) return passes(pattern, 'bad-text', close.wrong);
    const strokes = Array.from({ length: sum.repeats }, (_, r) => repeated(pattern, r, params.mirrored, space)).flat();
    const filled = tidy({
      ...pattern,
      start: ticks(start),
      length: ticks(space),
      strokes: [...strokes, ...close.strokes],
      groups: groupsOf(pattern.length, sum.repeats, space),
    });
    return done(filled, [finding('fit', 'sum', sum.text), ...close.findings]);
  },
};
