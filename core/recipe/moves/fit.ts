import { count, fraction } from '../../base';
import { barTicks, meterText, slotsWords, ticks } from '../../time';
import { otherHand, usualVoice, type Stroke } from '../../stroke';
import { fitSum, groupSum, MOST_BARS, MOST_STROKES, tidy, type Finding, type Group, type Pattern } from '../../pattern';
import { done, finding, passes, type Move, type Outcome } from './move';
import { readSlots } from './text-param';
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

/** What stands in the slots left over after the last whole repeat. */
function closing(
  cell: Pattern,
  params: FitParams & { readonly close: Exclude<FitParams['close'], { kind: 'groups' }> },
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
          voice: s.voice ?? usualVoice(s.limb),
          from: { index, repeat: repeats, move },
        })),
      );
      const over = read.slots.length - room;
      const findings =
        over > 0 && room > 0
          ? [
              finding(
                'cut',
                'check',
                `The gap is ${slotsWords(room, cell.grid)}, so ${over} of your ending ${over === 1 ? 'is' : 'are'} cut.`,
              ),
            ]
          : [];
      return { strokes, findings };
    }
  }
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
  const repeats = Array.from({ length: sum.repeats }, (_, r) => repeated(pattern, r, params.mirrored, space)).flat();
  const whole = tidy({
    ...pattern,
    start: ticks(start),
    length: ticks(space),
    strokes: [...repeats, ...close.strokes],
    groups: groupsOf(pattern.length, sum.repeats, space),
  });
  return done(rested(whole, room), [finding('fit', 'sum', sum.text), ...close.findings]);
}

function closeWords(close: FitParams['close']): string {
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
  describe: ({ space, start, end, mirrored, close }) => {
    const room = 'bars' in space ? count(space.bars, 'bar') : count(space.beats, 'beat');
    const from = start.trim() === '1' ? '' : ` from ${start.trim()}`;
    const hands = mirrored ? ', hands swapped on every repeat' : '';
    const until = end === undefined ? '' : `, ending on ${end.trim()}`;
    return `Fill ${room}${from}${until}${hands}, ${closeWords(close)}`;
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
