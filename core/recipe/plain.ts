import { Type, type Static } from '@sinclair/typebox';
import type { Move } from './move';
import {
  drop,
  DropParams,
  fit,
  FitParams,
  grid,
  GridParams,
  insert,
  InsertParams,
  land,
  LandParams,
  layer,
  LayerParams,
  level,
  LevelParams,
  mirror,
  MirrorParams,
  ornament,
  OrnamentParams,
  rate,
  RateParams,
  route,
  RouteParams,
  shift,
  ShiftParams,
  swap,
  SwapParams,
  touch,
  TouchParams,
  voice,
  VoiceParams,
} from './moves';
import { SourceSchema, type Source } from './source';

/** Parameters of every move that knows one phrase only: all but `join`. */
export interface PlainParams {
  readonly grid: Static<typeof GridParams>;
  readonly rate: Static<typeof RateParams>;
  readonly insert: Static<typeof InsertParams>;
  readonly drop: Static<typeof DropParams>;
  readonly swap: Static<typeof SwapParams>;
  readonly level: Static<typeof LevelParams>;
  readonly voice: Static<typeof VoiceParams>;
  readonly route: Static<typeof RouteParams>;
  readonly ornament: Static<typeof OrnamentParams>;
  readonly fit: Static<typeof FitParams>;
  readonly shift: Static<typeof ShiftParams>;
  readonly mirror: Static<typeof MirrorParams>;
  readonly layer: Static<typeof LayerParams>;
  readonly land: Static<typeof LandParams>;
  readonly touch: Static<typeof TouchParams>;
}

/** A move as it stands in a recipe: signed with an id, switched on or off. */
export type Entry<Params> = {
  readonly [N in keyof Params]: {
    readonly id: string;
    readonly on: boolean;
    readonly move: N;
    readonly params: Params[N];
  };
}[keyof Params];

export const PLAIN_MOVES: { readonly [N in keyof PlainParams]: Move<N, PlainParams[N]> } = {
  grid,
  rate,
  insert,
  drop,
  swap,
  level,
  voice,
  route,
  ornament,
  fit,
  shift,
  mirror,
  layer,
  land,
  touch,
};

/** The schema of entries of some moves: which move it is decides which parameters it has. */
export function entrySchema<E>(
  moves: Readonly<Record<string, { readonly name: string; readonly schema: Move<string, never>['schema'] }>>,
) {
  return Type.Unsafe<E>({
    type: 'object',
    required: ['move'],
    discriminator: { propertyName: 'move' },
    oneOf: Object.values(moves).map(({ name, schema }) =>
      Type.Object({
        id: Type.String({ minLength: 1, maxLength: 64 }),
        on: Type.Boolean(),
        move: Type.Literal(name),
        params: schema,
      }),
    ),
  });
}

/** The most moves one recipe may hold. */
export const MOST_MOVES = 64;

/** The most other phrases one recipe may join: each is worked out anew with it. */
export const MOST_JOINS = 8;

/** A recipe without `join`: what one phrase may hold of another, so that phrases cannot hold each other without end. */
export const PlainRecipeSchema = Type.Object({
  source: SourceSchema,
  moves: Type.Array(entrySchema<Entry<PlainParams>>(PLAIN_MOVES), { maxItems: MOST_MOVES }),
});
export interface PlainRecipe {
  source: Source;
  moves: Entry<PlainParams>[];
}
