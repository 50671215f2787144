import { Type, type Static } from '@sinclair/typebox';
import { checksumOf, idSchema, stableJson, TimeSchema } from '../base';
import { PhraseSchema, type Phrase } from '../recipe';

/** How many earlier states of a phrase are kept. */
export const MOST_STATES = 20;

/**
 * A phrase as it was kept once. Its id follows from what it holds, so that two devices give the same one to the same.
 */
export const KeptStateSchema = Type.Object({
  id: idSchema(120),
  phrase: idSchema(),
  at: TimeSchema,
  state: PhraseSchema,
});
export type KeptState = Static<typeof KeptStateSchema>;

/**
 * The state under which a phrase as it stands is remembered.
 * @example
 * stateOf({ id: 'a', name: 'A', changed: 5 }).at // => 5
 * stateOf({ id: 'a', name: 'A', changed: 5 }).id === stateOf({ id: 'a', name: 'B', changed: 5 }).id // => false
 */
export function stateOf(state: Phrase): KeptState {
  const { id, changed } = state;
  return { id: `${id}@${changed}-${checksumOf(stableJson(state))}`, phrase: id, at: changed, state };
}

/** The later of two states first: by time, and of the same time by id, so that every device orders them the same. */
export function laterFirst(a: KeptState, b: KeptState): number {
  return b.at - a.at || (a.id < b.id ? 1 : a.id > b.id ? -1 : 0);
}

/** Those earlier states that are kept: each once, the latest first, without the one that stands. */
export function keptStates(all: readonly KeptState[], stands: Phrase | null): readonly KeptState[] {
  const current = stands ? stateOf(stands).id : null;
  const byId = new Map(all.map((s) => [s.id, s]));
  return [...byId.values()]
    .filter((s) => s.id !== current)
    .sort(laterFirst)
    .slice(0, MOST_STATES);
}
