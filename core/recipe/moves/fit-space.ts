import { Type, type Static } from '@sinclair/typebox';
import { mod } from '../../base';
import { barTicks, beatTicks, parseCount, USUAL_SCHOOLS } from '../../time';
import { countingOf, MOST_BARS, type Pattern } from '../../pattern';
import { TextSchema } from './text-param';

export const FitParams = Type.Object({
  space: Type.Union([
    Type.Object({ bars: Type.Integer({ minimum: 1, maximum: MOST_BARS }) }),
    Type.Object({ beats: Type.Integer({ minimum: 1, maximum: 256 }) }),
  ]),
  /** Count on which it starts, in bar 1. */
  start: Type.String({ maxLength: 16 }),
  /**
   * Count in the last bar on which the last slot falls; what is behind it stays empty. Absent: the space is filled to
   * its end.
   */
  end: Type.Optional(Type.String({ maxLength: 16 })),
  /** Every second repeat with the hands swapped. */
  mirrored: Type.Boolean(),
  close: Type.Union([
    Type.Object({ kind: Type.Literal('rest') }),
    Type.Object({ kind: Type.Literal('cut') }),
    // With `whole` all of them are played: where they are more than the gap the last repeat is cut for them.
    Type.Object({ kind: Type.Literal('strokes'), text: TextSchema, whole: Type.Optional(Type.Literal(true)) }),
    // Every repeat stretched or shortened to its group's size, in slots.
    Type.Object({
      kind: Type.Literal('groups'),
      groups: Type.Array(Type.Integer({ minimum: 1, maximum: 64 }), { minItems: 1, maxItems: 512 }),
    }),
  ]),
});
export type FitParams = Static<typeof FitParams>;

/** Length of the space in ticks: bars reach from the start count to the last bar line, beats count from the start. */
function spaceTicks(pattern: Pattern, space: FitParams['space'], start: number): number {
  return 'bars' in space ? space.bars * barTicks(pattern.meter) - start : space.beats * beatTicks(pattern.meter);
}

/**
 * Ticks from the start to the end of the slot that falls on a count of the last bar of the space; null when that is no
 * count or no room is left.
 */
function untilEnd(pattern: Pattern, end: string, start: number, room: number): number | null {
  const on = parseCount(end, countingOf(pattern, USUAL_SCHOOLS));
  if (on === null) return null;
  const bar = barTicks(pattern.meter);
  const lastBar = Math.floor((start + room - 1) / bar) * bar;
  const space = lastBar + mod(on, bar) + pattern.grid - start;
  return space > 0 && space <= room ? space : null;
}

/**
 * How many slots of the pattern's home grid a fill has: from its start count to the end of its space, or to the count
 * it ends on. Null when the start or the end is no count of this meter and grid, or nothing is left between them.
 * @example
 * fitSlots(patternOfText(parseStrokeText('R l l K').value, meter(4, 4), GRID.sixteenths), { space: { bars: 2 }, start: '3' }) // => 24
 * fitSlots(patternOfText(parseStrokeText('R l l K').value, meter(4, 4), GRID.sixteenths), { space: { bars: 2 }, start: '1', end: '3&' }) // => 27
 * fitSlots(patternOfText(parseStrokeText('R l l K').value, meter(4, 4), GRID.sixteenths), { space: { bars: 1 }, start: '3', end: '2' }) // => null
 */
export function fitSlots(pattern: Pattern, params: Pick<FitParams, 'space' | 'start' | 'end'>): number | null {
  const found = stretch(pattern, params);
  return found.kind === 'found' ? found.space / pattern.grid : null;
}

/** Where a fill starts, the room there is, and how much of it is filled, in ticks. */
export interface Found {
  readonly kind: 'found';
  readonly start: number;
  readonly room: number;
  readonly space: number;
}

type FitSpace = Found | { readonly kind: 'no-start' } | { readonly kind: 'no-end' };

/** Where a fill stands, or which of its counts is none. */
export function stretch(
  pattern: Pattern,
  { space, start: from, end }: Pick<FitParams, 'space' | 'start' | 'end'>,
): FitSpace {
  const start = parseCount(from, countingOf(pattern, USUAL_SCHOOLS));
  if (start === null || start < 0 || start >= barTicks(pattern.meter)) return { kind: 'no-start' };
  const room = spaceTicks(pattern, space, start);
  const filled = end === undefined ? room : untilEnd(pattern, end, start, room);
  return filled === null ? { kind: 'no-end' } : { kind: 'found', start, room, space: filled };
}
