import { Type, type Static } from '@sinclair/typebox';
import { STRAIGHT, SWING, type Feel } from '../time';
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
  Type.Object({ kind: Type.Literal('typed'), text: TextSchema, ...Timing }),
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
