import { Type } from '@sinclair/typebox';
import { MOST_MOVES } from './plain';
import { MoveEntrySchema, type MoveEntry } from './registry';
import { SourceSchema, type Source } from './source';

/** What is stored of a phrase: the source and the moves. Patterns are always built from it. */
export interface Recipe {
  source: Source;
  moves: MoveEntry[];
}
export const RecipeSchema = Type.Unsafe<Recipe>(
  Type.Object({ source: SourceSchema, moves: Type.Array(MoveEntrySchema, { maxItems: MOST_MOVES }) }),
);
