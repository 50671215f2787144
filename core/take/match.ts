import type { Hit } from './hit';

/** A hit that was meant for a stroke, and by how many milliseconds it was late (above 0) or early. */
export interface Match {
  /** Places in the lists that were aligned. */
  readonly expected: number;
  readonly hit: number;
  readonly late: number;
}

/**
 * A hit further from its stroke than this, in seconds, is another hit; and so is one beyond this share of the way to
 * the neighbouring stroke. Half the way and 120 ms, as first thought of, cut off strokes that are late by nearly half a
 * slot in every loop; past half the way the order of the hits still tells whose they are.
 */
const WIDEST = 0.46;
const SHARE_OF_GAP = 0.75;

/** What a match as far off as it may be is still worth, so that a hit is rather late than missed and extra. */
const AT_THE_EDGE = 0.05;

/** One match that could be, with the best chain that ends in it. */
interface Candidate extends Match {
  readonly worth: number;
  readonly before: Candidate | null;
}

/**
 * The monotone matching of greatest worth between some strokes and some hits, exactly: `where` has the seconds of every
 * stroke, `own` and `played` the places of those that may be matched, in order of time. Leaving a stroke unplayed or a
 * hit unasked costs more than any match. Time grows as n log n.
 *
 * The chain of matches with the greatest worth is found as heaviest increasing subsequences are (Fredman 1975), with
 * prefix maxima in a tree (Fenwick 1994).
 */
export function matchGroup(
  where: readonly number[],
  hits: readonly Hit[],
  own: readonly number[],
  played: readonly number[],
): Match[] {
  const times = own.map((i) => where[i] ?? 0);
  const struck = played.map((i) => hits[i]?.seconds ?? 0);
  const tree: (Candidate | null)[] = Array.from({ length: played.length + 1 }, () => null);
  const bestBefore = (until: number): Candidate | null => {
    let best: Candidate | null = null;
    for (let i = until; i > 0; i -= i & -i) {
      const c = tree[i] ?? null;
      if (c && (!best || c.worth > best.worth)) best = c;
    }
    return best;
  };
  let low = 0;
  times.forEach((time, n) => {
    const before = time - (times[n - 1] ?? -Infinity);
    const after = (times[n + 1] ?? Infinity) - time;
    const [early, late] = [Math.min(before * SHARE_OF_GAP, WIDEST), Math.min(after * SHARE_OF_GAP, WIDEST)];
    while (low < struck.length && (struck[low] ?? 0) < time - WIDEST) low++;
    const found: { at: number; candidate: Candidate }[] = [];
    for (let j = low; j < struck.length; j++) {
      const off = (struck[j] ?? 0) - time;
      if (off > late) break;
      const reach = off < 0 ? early : late;
      if (off < -early || reach <= 0) continue;
      const chain = bestBefore(j);
      const worth = 1 + AT_THE_EDGE - (off / reach) ** 2 + 1;
      found.push({
        at: j + 1,
        candidate: {
          expected: own[n] ?? 0,
          hit: played[j] ?? 0,
          late: off * 1000,
          worth: (chain?.worth ?? 0) + worth,
          before: chain,
        },
      });
    }
    // Only after all of one stroke's candidates are known, so that no stroke is matched twice.
    for (const { at, candidate } of found)
      for (let i = at; i < tree.length; i += i & -i) {
        const known = tree[i];
        if (!known || candidate.worth > known.worth) tree[i] = candidate;
      }
  });
  const chain: Match[] = [];
  for (let c = bestBefore(played.length); c; c = c.before)
    chain.push({ expected: c.expected, hit: c.hit, late: c.late });
  return chain.reverse();
}
