import { Type, type Static } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../base';
import { PhraseSchema, type Phrase } from '../recipe';

/** How long a removed phrase can be brought back, in milliseconds: 30 days. */
export const REMOVED_FOR = 30 * 24 * 60 * 60 * 1000;

/**
 * That a phrase was taken off, and what it was as long as it can be brought back. Its tries, takes, drill and earlier
 * states stay where they are until then.
 */
export const RemovalSchema = Type.Object({
  id: idSchema(),
  at: TimeSchema,
  phrase: Type.Union([PhraseSchema, Type.Null()]),
});
export type Removal = Static<typeof RemovalSchema>;

/**
 * Whether a phrase is off the shelf: it was taken off after it was kept last.
 * @example
 * isOff({ changed: 5 }, { at: 7 }) // => true
 * isOff({ changed: 8 }, { at: 7 }) // => false
 */
export function isOff(phrase: Pick<Phrase, 'changed'>, removal: Pick<Removal, 'at'>): boolean {
  return phrase.changed <= removal.at;
}

/** How many removals are remembered. */
export const MOST_REMOVALS = 20_000;

/** Those removals that are remembered: the newest. */
export function keptRemovals(all: readonly Removal[]): readonly Removal[] {
  return [...all].sort((a, b) => b.at - a.at || (a.id < b.id ? -1 : 1)).slice(0, MOST_REMOVALS);
}
