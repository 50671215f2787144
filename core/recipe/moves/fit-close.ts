import { count } from '../../base';
import { beatTicks, slotsWords, ticks } from '../../time';
import { otherHand, usualVoice, type Stroke } from '../../stroke';
import type { Finding, Pattern } from '../../pattern';
import { finding } from './move';
import { readSlots } from './text-param';
import type { FitParams } from './fit-space';

/** The cell's strokes at repeat r, those beyond `until` left out. */
export function repeated(cell: Pattern, r: number, mirrored: boolean, until: number): Stroke[] {
  const swap = mirrored && r % 2 === 1;
  return cell.strokes.flatMap((s) => {
    const at = r * cell.length + s.at;
    if (at >= until) return [];
    return [{ ...s, at: ticks(at), limb: swap ? otherHand(s.limb) : s.limb, from: { ...s.from, repeat: r } }];
  });
}

/** What closes a space. */
export interface Closing {
  readonly strokes: readonly Stroke[];
  readonly findings: readonly Finding[];
  /** Ticks from which they stand in place of the last repeat; absent: behind the last whole one. */
  readonly from?: number;
}

/** What stands in the slots left over after the last whole repeat. */
export function closing(
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
      const many = read.slots.length;
      const whole = close.whole === true && many > room && many * cell.grid <= space;
      const from = whole ? space - many * cell.grid : start;
      const strokes = read.slots.slice(0, whole ? many : room).flatMap((slot, index) =>
        slot.map((s): Stroke => ({
          ...s,
          at: ticks(from + index * cell.grid),
          voice: s.voice ?? usualVoice(s.limb),
          from: { index, repeat: repeats, move },
        })),
      );
      const over = whole ? 0 : many - room;
      const findings = over > 0 && room > 0 ? [finding('cut', 'check', cutWords(cell, space, many, room))] : [];
      if (whole) return { strokes, findings, from };
      return { strokes, findings };
    }
  }
}

/** That an ending is longer than its gap, and the two ways in which all of it is played. */
function cutWords(cell: Pattern, space: number, many: number, room: number): string {
  const over = many - room;
  const beat = beatTicks(cell.meter);
  const beats = Array.from({ length: MOST_BEATS }, (_, i) => Math.floor(space / beat) + 1 + i);
  const more = beats.find((n) => (n * beat) % cell.length >= many * cell.grid);
  const ways = [
    ...(many * cell.grid <= space ? ['if the last repeat is cut for it'] : []),
    ...(more === undefined ? [] : [`if you fill ${count(more, 'beat')}`]),
  ];
  const said = `The gap is ${slotsWords(room, cell.grid)}, so ${over} of your ending ${over === 1 ? 'is' : 'are'} cut.`;
  return ways.length === 0 ? said : `${said} All ${many} fit ${ways.join(', or ')}.`;
}

/** So many beats more than there are are tried for an ending. */
const MOST_BEATS = 64;

/** How a space is closed, as a card says it. */
export function closeWords(close: FitParams['close']): string {
  switch (close.kind) {
    case 'rest':
      return 'close with a rest';
    case 'cut':
      return 'cut the last one';
    case 'strokes':
      return `close with ${close.text.trim() || 'nothing'}${close.whole ? ', all of it' : ''}`;
    case 'groups':
      return `in groups of ${close.groups.join(' + ')}`;
  }
}
