import type { Static } from '@sinclair/typebox';
import type { Pattern } from '../pattern';
import { join, JoinParams } from './join';
import type { Move, MoveContext, Outcome } from './move';
import { entrySchema, PLAIN_MOVES, type Entry, type PlainParams } from './plain';

/**
 * What each move's parameters are. A new move is a file in moves/, a line in `PlainParams` and one in `PLAIN_MOVES`.
 */
export interface MoveParams extends PlainParams {
  readonly join: Static<typeof JoinParams>;
}
export type MoveName = keyof MoveParams;
export type MoveEntry = Entry<MoveParams>;
type EntryOf<N extends MoveName> = {
  readonly [K in N]: { readonly id: string; readonly on: boolean; readonly move: K; readonly params: MoveParams[K] };
}[N];

export const MOVES: { readonly [N in MoveName]: Move<N, MoveParams[N]> } = Object.freeze({ ...PLAIN_MOVES, join });

/** Every move, in the order a menu offers them: the order of the work. */
export const MOVE_NAMES: readonly MoveName[] = [
  'grid',
  'rate',
  'insert',
  'drop',
  'swap',
  'fit',
  'shift',
  'mirror',
  'level',
  'ornament',
  'voice',
  'route',
  'layer',
  'land',
  'join',
  'touch',
];

export const MoveEntrySchema = entrySchema<MoveEntry>(MOVES);

/** The card's sentence of a move. */
export function describeMove<N extends MoveName>(entry: EntryOf<N>): string {
  const move = MOVES[entry.move];
  return move.describe(entry.params);
}

/** A move applied, whether it is switched on or not. */
export function applyMove<N extends MoveName>(
  pattern: Pattern,
  entry: EntryOf<N>,
  build: MoveContext['build'],
): Outcome {
  const move = MOVES[entry.move];
  return move.apply(pattern, entry.params, { id: entry.id, build });
}

/** A new entry of a move with parameters that make sense for the pattern it is added to. */
export function newMove<N extends MoveName>(name: N, id: string, pattern: Pattern): EntryOf<N> {
  const move = MOVES[name];
  return { id, on: true, move: name, params: move.defaults(pattern) };
}
