import { beforeAnyTry, OF_PHRASE, USUAL_SHARE, type Belief } from './belief';
import type { Known } from './history';

/** What one phrase says of the player's own share of their ceilings. */
export interface ShareSaid {
  readonly known: Known;
  readonly ceiling: number;
}

/** What tries alone say: the belief without what was believed before them. Null where they say nothing. */
function saidByTries({ belief, before }: Known): { readonly mean: number; readonly precision: number } | null {
  const precision = 1 / belief.variance - 1 / before.variance;
  if (precision <= 1e-9) return null;
  return { mean: (belief.mean / belief.variance - before.mean / before.variance) / precision, precision };
}

/**
 * The player's own share of their ceilings, from all phrases with tries: each says as much as its tries do, and never
 * more than phrases differ. The usual one where there are none.
 */
export function shareOf(phrases: readonly ShareSaid[]): Belief {
  let precision = 1 / USUAL_SHARE.variance;
  let weighted = USUAL_SHARE.mean * precision;
  for (const { known, ceiling } of phrases) {
    const own = saidByTries(known);
    if (!own) continue;
    const says = 1 / (1 / own.precision + OF_PHRASE);
    precision += says;
    weighted += says * (own.mean - Math.log(ceiling));
  }
  return { mean: weighted / precision, variance: 1 / precision };
}

/** The share that the other phrases give: what a phrase says itself is not told to it again. */
export function shareWithout(share: Belief, { known, ceiling }: ShareSaid): Belief {
  const own = saidByTries(known);
  if (!own) return share;
  const says = 1 / (1 / own.precision + OF_PHRASE);
  const precision = Math.max(1 / USUAL_SHARE.variance, 1 / share.variance - says);
  const weighted = share.mean / share.variance - says * (own.mean - Math.log(ceiling));
  return { mean: weighted / precision, variance: 1 / precision };
}

/** What is known with another ceiling or share: what the tries say stays, what was believed before them is another. */
export function knownUnder(known: Known, ceiling: number, share: Belief): Known {
  const before = beforeAnyTry(ceiling, share);
  const own = saidByTries(known);
  if (!own) return { ...known, before, belief: before };
  const precision = own.precision + 1 / before.variance;
  const mean = (own.mean * own.precision + before.mean / before.variance) / precision;
  return { ...known, before, belief: { mean, variance: 1 / precision } };
}
