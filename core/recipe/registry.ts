import { Type, type Static } from '@sinclair/typebox';
import type { Pattern } from '../pattern';
import type { MoveContext, Outcome } from './move';
import {
  fit,
  FitParams,
  grid,
  GridParams,
  insert,
  InsertParams,
  level,
  LevelParams,
  shift,
  ShiftParams,
  voice,
  VoiceParams,
} from './moves';

/** What each move's parameters are. Adding a move means a file in moves/ and a line here and in MOVES. */
export interface MoveParams {
  readonly grid: Static<typeof GridParams>;
  readonly insert: Static<typeof InsertParams>;
  readonly fit: Static<typeof FitParams>;
  readonly level: Static<typeof LevelParams>;
  readonly voice: Static<typeof VoiceParams>;
  readonly shift: Static<typeof ShiftParams>;
}
export type MoveName = keyof MoveParams;

export const MOVES = Object.freeze({ grid, insert, fit, level, voice, shift });
export const MOVE_NAMES: readonly MoveName[] = ['grid', 'insert', 'fit', 'level', 'voice', 'shift'];

/** A move as it stands in a recipe: signed with an id, switched on or off. */
export type MoveEntry = {
  readonly [N in MoveName]: { readonly id: string; readonly on: boolean; readonly move: N; readonly params: MoveParams[N] };
}[MoveName];

export const MoveEntrySchema = Type.Unsafe<MoveEntry>({
  type: 'object',
  required: ['move'],
  discriminator: { propertyName: 'move' },
  oneOf: MOVE_NAMES.map((name) =>
    Type.Object({
      id: Type.String({ minLength: 1, maxLength: 64 }),
      on: Type.Boolean(),
      move: Type.Literal(name),
      params: MOVES[name].schema,
    }),
  ),
});

/** The card's sentence of a move. */
export function describeMove(entry: MoveEntry): string {
  switch (entry.move) {
    case 'grid':
      return grid.describe(entry.params);
    case 'insert':
      return insert.describe(entry.params);
    case 'fit':
      return fit.describe(entry.params);
    case 'level':
      return level.describe(entry.params);
    case 'voice':
      return voice.describe(entry.params);
    case 'shift':
      return shift.describe(entry.params);
  }
}

/** A move applied, whether it is switched on or not. */
export function applyMove(pattern: Pattern, entry: MoveEntry): Outcome {
  const context: MoveContext = { id: entry.id };
  switch (entry.move) {
    case 'grid':
      return grid.apply(pattern, entry.params, context);
    case 'insert':
      return insert.apply(pattern, entry.params, context);
    case 'fit':
      return fit.apply(pattern, entry.params, context);
    case 'level':
      return level.apply(pattern, entry.params, context);
    case 'voice':
      return voice.apply(pattern, entry.params, context);
    case 'shift':
      return shift.apply(pattern, entry.params, context);
  }
}

/** A new entry of a move with parameters that make sense for the pattern it is added to. */
export function newMove(name: MoveName, id: string, pattern: Pattern): MoveEntry {
  const base = { id, on: true } as const;
  switch (name) {
    case 'grid':
      return { ...base, move: name, params: grid.defaults(pattern) };
    case 'insert':
      return { ...base, move: name, params: insert.defaults(pattern) };
    case 'fit':
      return { ...base, move: name, params: fit.defaults(pattern) };
    case 'level':
      return { ...base, move: name, params: level.defaults(pattern) };
    case 'voice':
      return { ...base, move: name, params: voice.defaults(pattern) };
    case 'shift':
      return { ...base, move: name, params: shift.defaults(pattern) };
  }
}
