import { Type, type Static } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../base';

export const BOARD_LIMITS = Object.freeze({ boards: 200, kept: 400, phrases: 10_000, letters: 80, question: 300 });

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

/**
 * Those boards that are kept: those that are there, and of the dropped ones the newest that there is room for beside
 * them and beside `more` to come.
 */
export function keptBoards(all: readonly Board[], more = 0): readonly Board[] {
  const newest = [...all].sort((a, b) => b.changed - a.changed || (a.id < b.id ? -1 : 1));
  const here = newest.filter((b) => !b.dropped);
  return [...here, ...newest.filter((b) => b.dropped)].slice(0, BOARD_LIMITS.kept - more);
}
