import { Type, type Static } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../base';

export const BOARD_LIMITS = Object.freeze({ boards: 200, phrases: 10_000, letters: 80, question: 300 });

/**
 * A board: phrases in the player's own order, or a kept question. `place` orders the boards among themselves. A board
 * that was dropped is remembered as dropped, so that another device does not bring it back.
 */
export const BoardSchema = Type.Object({
  id: idSchema(),
  name: Type.String({ minLength: 1, maxLength: BOARD_LIMITS.letters, pattern: '\\S' }),
  question: Type.Union([Type.String({ minLength: 1, maxLength: BOARD_LIMITS.question }), Type.Null()]),
  phrases: Type.Array(idSchema(), { maxItems: BOARD_LIMITS.phrases, uniqueItems: true }),
  place: Type.Number({ minimum: -1e9, maximum: 1e9 }),
  changed: TimeSchema,
  dropped: Type.Optional(Type.Boolean()),
});
export type Board = Static<typeof BoardSchema>;
