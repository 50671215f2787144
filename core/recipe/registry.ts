import type { Pattern } from '../pattern';
import { join } from './join';
import { beforeLanding } from './landed';
import type { Move, MoveContext, Outcome } from './moves/move';
import { PLAIN_MOVES } from './moves';
import { entrySchema, type Entry, type ParamsOf, type PlainParams } from './plain';

/** What each move's parameters are. A new move is a file in moves/ and a line in its table. */
export type MoveParams = PlainParams & { readonly join: ParamsOf<typeof join> };
export type MoveName = keyof MoveParams;
export type MoveEntry = Entry<MoveParams>;
type EntryOf<N extends MoveName> = {
  readonly [K in N]: { readonly id: string; readonly on: boolean; readonly move: K; readonly params: MoveParams[K] };
}[N];

const { touch, ...others } = PLAIN_MOVES;

/** Every move, in the order a menu offers them. Hand edits are made on the ribbon first, and come last. */
export const MOVES: { readonly [N in MoveName]: Move<N, MoveParams[N]> } = Object.freeze({ ...others, join, touch });

export const MOVE_NAMES: readonly MoveName[] = Object.freeze(Object.keys(MOVES) as MoveName[]);

export const MoveEntrySchema = entrySchema<MoveEntry>(MOVES);

/** The card's sentence of a move. */
export function describeMove<N extends MoveName>(entry: EntryOf<N>, on?: Pattern): string {
  const move = MOVES[entry.move];
  return move.describe(entry.params, on);
}

/** A move applied, whether it is switched on or not. */
export function applyMove<N extends MoveName>(
  pattern: Pattern,
  entry: EntryOf<N>,
  build: MoveContext['build'],
): Outcome {
  const move = MOVES[entry.move];
  const apply = (to: Pattern): Outcome => move.apply(to, entry.params, { id: entry.id, build });
  return move.whole ? beforeLanding(pattern, apply) : apply(pattern);
}

/** A new entry of a move with parameters that make sense for the pattern it is added to. */
export function newMove<N extends MoveName>(name: N, id: string, pattern: Pattern): EntryOf<N> {
  const move = MOVES[name];
  return { id, on: true, move: name, params: move.defaults(pattern) };
}
