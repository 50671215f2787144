import { Type, type Static } from '@sinclair/typebox';
import { parseMeter, STRAIGHT, SWING, ticks, type Feel } from '../time';
import { parseStrokeText } from '../stroke';
import { linesOf, patternOfText } from '../pattern';
import { TextSchema } from './moves/text-param';

const Timing = {
  /** "7/8" or "7/8 3+2+2". */
  meter: Type.String({ minLength: 3, maxLength: 80 }),
  /** Slot of the home grid in ticks. */
  grid: Type.Integer({ minimum: 105, maximum: 20160 }),
  swing: Type.Optional(
    Type.Object({
      on: Type.Union([Type.Literal('eighths'), Type.Literal('16ths')]),
      ratio: Type.Number({ minimum: SWING.least, maximum: SWING.most }),
    }),
  ),
};

/**
 * Where a recipe begins: a rudiment of the catalogue, typed strokes, or strokes heard in a recording, in a meter and on
 * a grid.
 */
export const SourceSchema = Type.Union([
  Type.Object({ kind: Type.Literal('rudiment'), id: Type.String({ maxLength: 64 }), ...Timing }),
  Type.Object({
    kind: Type.Literal('typed'),
    text: TextSchema,
    ...Timing,
    /** It was typed a line to a piece, and is shown so. */
    lines: Type.Optional(Type.Literal(true)),
  }),
  Type.Object({
    kind: Type.Literal('heard'),
    text: TextSchema,
    ...Timing,
    /** Where it was heard, in the player's own words. */
    from: Type.String({ maxLength: 200 }),
    /** Strokes that were unsure when it was taken. */
    unsure: Type.Optional(Type.Integer({ minimum: 0, maximum: 100_000 })),
  }),
]);
export type Source = Static<typeof SourceSchema>;

/** The feel a source asks for. */
export function feelOf(source: Source): Feel {
  return source.swing ? { kind: 'swung', ...source.swing } : STRAIGHT;
}

/**
 * A groove that was typed a line to a piece, as such lines again; null for any other source, and where lines do not say
 * all of it.
 * @example
 * linesTyped({ kind: 'typed', text: 'R[hat] R[hat] R[hat]+L! R[hat]', meter: '2/4', grid: 2520, lines: true }) // => "closed hi-hat: 1 & 2 &; snare: 2!"
 */
export function linesTyped(source: Source): string | null {
  if (source.kind !== 'typed' || !source.lines) return null;
  const [meter, read] = [parseMeter(source.meter), parseStrokeText(source.text)];
  return meter && read.ok ? linesOf(patternOfText(read.value, meter, ticks(source.grid))) : null;
}
