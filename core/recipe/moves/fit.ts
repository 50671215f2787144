import { count, fraction } from '../../base';
import { barTicks, meterText, ticks } from '../../time';
import { otherHand, type Stroke } from '../../stroke';
import { fitSum, groupSum, sumUnit, MOST_BARS, MOST_STROKES, tidy, type Group, type Pattern } from '../../pattern';
import { done, finding, passes, type Move, type Outcome } from './move';
import { closeWords, closing, repeated } from './fit-close';
import { FitParams, stretch, type Found } from './fit-space';

/** A filled pattern with silence behind it up to the end of the room. */
function rested(filled: Pattern, room: number): Pattern {
  if (filled.length >= room) return filled;
  const group: Group = {
    at: filled.length,
    length: ticks(room - filled.length),
    repeat: filled.groups.length,
    kind: 'close',
  };
  return { ...filled, length: ticks(room), groups: [...filled.groups, group] };
}

/**
 * The cell once to a group: cut where the group is shorter, followed by a rest where it is longer. Null when the groups
 * do not add up to the space.
 */
function grouped(
  cell: Pattern,
  sizes: readonly number[],
  mirrored: boolean,
  space: number,
): Pick<Pattern, 'strokes' | 'groups'> | null {
  const starts = sizes.map((_, i) => sizes.slice(0, i).reduce((a, b) => a + b, 0) * cell.grid);
  if (sizes.reduce((a, b) => a + b, 0) * cell.grid !== space) return null;
  const groups = sizes.map((size, i): Group => ({
    at: ticks(starts[i] ?? 0),
    length: ticks(size * cell.grid),
    repeat: i,
    kind: 'cell',
  }));
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

function groupsOf(cell: number, repeats: number, space: number): Group[] {
  const whole = Array.from({ length: repeats }, (_, r): Group => ({
    at: ticks(r * cell),
    length: ticks(cell),
    repeat: r,
    kind: 'cell',
  }));
  const rest = space - repeats * cell;
  return rest > 0
    ? [...whole, { at: ticks(repeats * cell), length: ticks(rest), repeat: repeats, kind: 'close' }]
    : whole;
}

/** Repeats up to an ending that cuts the last of them, then the ending. */
function endedAt(cell: Pattern, from: number, space: number): Group[] {
  const repeats = groupsOf(cell.length, Math.floor(from / cell.length), from).map((g): Group => ({
    ...g,
    kind: 'cell',
  }));
  return [...repeats, { at: ticks(from), length: ticks(space - from), repeat: repeats.length, kind: 'close' }];
}

/** The stretch filled with the cell, and closed. */
function filled(pattern: Pattern, params: FitParams, { start, room, space }: Found, move: string): Outcome {
  const sum = fitSum(space / pattern.grid, pattern.length / pattern.grid);
  if (!sum) return passes(pattern, 'does-not-fit', 'There is nothing to repeat yet.');
  if (room + start > MOST_BARS * barTicks(pattern.meter))
    return passes(pattern, 'too-long', `A phrase is at most ${MOST_BARS} bars long.`);
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
    return done(rested(tidy({ ...pattern, start: ticks(start), length: ticks(space), ...parts }), room), [
      finding('fit', 'sum', groupSum(sum.slots, how.groups)),
    ]);
  }
  const close = closing(pattern, { ...params, close: how }, sum.repeats, space, move);
  if ('wrong' in close) return passes(pattern, 'bad-text', close.wrong);
  const until = close.from ?? space;
  const many = Math.min(Math.ceil(until / pattern.length), close.from === undefined ? sum.repeats : Infinity);
  const repeats = Array.from({ length: many }, (_, r) => repeated(pattern, r, params.mirrored, until)).flat();
  const whole = tidy({
    ...pattern,
    start: ticks(start),
    length: ticks(space),
    strokes: [...repeats, ...close.strokes],
    groups:
      close.from === undefined ? groupsOf(pattern.length, sum.repeats, space) : endedAt(pattern, close.from, space),
  });
  const { unit, told } = sumUnit(whole, [space, pattern.length]);
  const text =
    close.from === undefined
      ? fitSum(space / unit, pattern.length / unit)?.text
      : groupSum(
          space / unit,
          whole.groups.map((g) => g.length / unit),
        );
  return done(rested(whole, room), [finding('fit', 'sum', told(text ?? sum.text)), ...close.findings]);
}

/** Whether whole repeats fill the space: nothing has to be closed then. */
function comesOut(on: Pattern, params: FitParams): boolean {
  // An ending that is kept whole takes the place of a repeat also then.
  if (params.close.kind === 'strokes' && params.close.whole) return false;
  const found = stretch(on, params);
  return found.kind === 'found' && on.length > 0 && found.space % on.length === 0;
}

/** Fill a space with the cell, and close what is left over. */
export const fit: Move<'fit', FitParams> = {
  name: 'fit',
  title: 'Fill the bars',
  hint: 'Repeat the cell over some bars and choose how the rest is closed.',
  schema: FitParams,
  whole: true,
  defaults: (pattern) => ({
    space: { bars: Math.max(1, Math.ceil(pattern.length / barTicks(pattern.meter))) },
    start: '1',
    mirrored: false,
    close: { kind: 'cut' },
  }),
  describe: (params, on) => {
    const { space, start, end, mirrored, close } = params;
    const room = 'bars' in space ? count(space.bars, 'bar') : count(space.beats, 'beat');
    const from = start.trim() === '1' ? '' : ` from ${start.trim()}`;
    const hands = mirrored ? ', hands swapped on every repeat' : '';
    const until = end === undefined ? '' : `, ending on ${end.trim()}`;
    const how = on && close.kind !== 'groups' && comesOut(on, params) ? '' : `, ${closeWords(close)}`;
    return `Fill ${room}${from}${until}${hands}${how}`;
  },
  apply: (pattern, params, { id }) => {
    const found = stretch(pattern, params);
    switch (found.kind) {
      case 'no-start':
        return passes(
          pattern,
          'does-not-fit',
          `“${params.start}” is not a count in ${meterText(pattern.meter)} on this subdivision.`,
        );
      case 'no-end':
        return passes(pattern, 'does-not-fit', `“${params.end ?? ''}” is not a count it could end on here.`);
      case 'found':
        return filled(pattern, params, found, id);
    }
  },
};
