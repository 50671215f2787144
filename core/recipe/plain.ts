import { Type } from '@sinclair/typebox';
import type { Move } from './moves/move';
import { PLAIN_MOVES } from './moves';
import { SourceSchema, type Source } from './source';

/** The parameters of a move. */
export type ParamsOf<M> = M extends Move<string, infer Params> ? Params : never;

/** Parameters of every move that knows one phrase only: all but `join`. */
export type PlainParams = { readonly [N in keyof typeof PLAIN_MOVES]: ParamsOf<(typeof PLAIN_MOVES)[N]> };

/** A move as it stands in a recipe: signed with an id, switched on or off. */
export type Entry<Params> = {
  readonly [N in keyof Params]: {
    readonly id: string;
    readonly on: boolean;
    readonly move: N;
    readonly params: Params[N];
  };
}[keyof Params];

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

/** Steps of the Bench's past and future that are kept across a reload. */
export const KEPT_STEPS = 100;

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
