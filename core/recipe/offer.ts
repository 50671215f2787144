import type { Pattern } from '../pattern';
import { describeMove, type MoveEntry, type MoveName, type MoveParams } from './registry';

/** A move that words could mean, with its sentence. It is applied only when the player takes it. */
export interface Offer {
  readonly words: string;
  readonly entry: MoveEntry;
}

/** The id of an offered move until it is taken and signed. */
const UNSIGNED = 'offer';

/** A move with parameters as an offer; its sentence may tell of the pattern it would be done to. */
export function offerOf<N extends MoveName>(move: N, params: MoveParams[N], on?: Pattern): Offer {
  const entry = { id: UNSIGNED, on: true, move, params } as unknown as MoveEntry;
  return { words: describeMove(entry, on), entry };
}
