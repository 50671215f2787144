import type { Expected } from '../rendition';
import type { Hit } from './hit';

/** A hit that was meant for a stroke, and by how many milliseconds it was late (above 0) or early. */
export interface Match {
  /** Places in the lists that were aligned. */
  readonly expected: number;
  readonly hit: number;
  readonly late: number;
}

export interface Alignment {
  readonly matches: readonly Match[];
  /** Places of expected strokes that nobody played, and of hits that nobody asked for. */
  readonly missed: readonly number[];
  readonly extra: readonly number[];
}

/**
 * A hit further from its stroke than this, in seconds, is another hit; and so is one beyond this share of the way to
 * the neighbouring stroke. Half the way and 120 ms, as first thought of, cut off one stroke in fifty of a player who
 * scatters by a quarter of a slot at slow tempos; past half the way the order of the hits still tells whose they are.
 */
const WIDEST = 0.24;
const SHARE_OF_GAP = 0.75;

/** What a match as far off as it may be is still worth, so that a hit is rather late than missed and extra. */
const AT_THE_EDGE = 0.05;

/**
 * Lays hits on expected strokes: the monotone matching of least cost, exactly. A hit can be meant for a stroke within
 * three quarters of the way to that stroke's neighbours, at most 240 ms; leaving a stroke unplayed or a hit unasked
 * costs more than any match. Strokes and hits are matched limb by limb where every hit knows its limb, voice by voice
 * where every hit knows its voice, else all together. Both lists must be in order of time. Time grows as n log n.
 *
 * The chain of matches with the greatest worth is found as heaviest increasing subsequences are (Fredman 1975), with
 * prefix maxima in a tree (Fenwick 1994).
 */
export function align(expected: readonly Expected[], hits: readonly Hit[]): Alignment {
  const byLimb = hits.length > 0 && hits.every((h) => h.limb !== null);
  const byVoice = !byLimb && hits.length > 0 && hits.every((h) => h.voice !== null);
  const keyOfExpected = (e: Expected): string => (byLimb ? e.limb : byVoice ? e.voice : '');
  const keyOfHit = (h: Hit): string => (byLimb ? (h.limb ?? '') : byVoice ? (h.voice ?? '') : '');
  const groups = new Map<string, { own: number[]; played: number[] }>();
  const group = (key: string): { own: number[]; played: number[] } => {
    const known = groups.get(key) ?? { own: [], played: [] };
    groups.set(key, known);
    return known;
  };
  expected.forEach((e, i) => group(keyOfExpected(e)).own.push(i));
  hits.forEach((h, i) => group(keyOfHit(h)).played.push(i));
  // Without limbs or voices a unison sounds once: its strokes after the first are answered by the same hit.
  const heard = byLimb || byVoice ? null : sharedMoments(expected);
  const lay = (where: readonly number[]): readonly Match[] =>
    [...groups.values()].flatMap(({ own, played }) =>
      matchGroup(where, hits, heard ? own.filter((i) => heard[i] === i) : own, played),
    );
  // A player who lies behind or runs away is followed: the strokes are laid again where that player's own time has
  // them.
  let where = expected.map((e) => e.seconds);
  let close = lay(where);
  const really = (m: Match): Match => ({
    ...m,
    late: ((hits[m.hit]?.seconds ?? 0) - (expected[m.expected]?.seconds ?? 0)) * 1000,
  });
  for (let pass = 0; pass < FOLLOWED; pass++) {
    const own = ownTime(close.map(really), expected);
    where = expected.map((e) => e.seconds + own(e.seconds));
    close = lay(where);
  }
  const matches = plausible(close, expected).map(really);
  const shared = heard
    ? matches.flatMap((m) =>
        expected.flatMap((_, i) => (heard[i] === m.expected && i !== m.expected ? [{ ...m, expected: i }] : [])),
      )
    : [];
  const all = [...matches, ...shared].sort((a, b) => a.expected - b.expected);
  const answered = new Set(all.map((m) => m.expected));
  const used = new Set(matches.map((m) => m.hit));
  return {
    matches: all,
    missed: expected.flatMap((_, i) => (answered.has(i) ? [] : [i])),
    extra: hits.flatMap((_, i) => (used.has(i) ? [] : [i])),
  };
}

/** How often the strokes are laid anew on the player's own time. */
const FOLLOWED = 2;

/**
 * How far behind a player is, in seconds, at a time: a straight line through the medians of the first and the second
 * half of the matches.
 */
function ownTime(matches: readonly Match[], expected: readonly Expected[]): (seconds: number) => number {
  if (matches.length < 8) return () => 0;
  const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
  const points = matches
    .map((m) => ({ at: expected[m.expected]?.seconds ?? 0, late: m.late / 1000 }))
    .sort((a, b) => a.at - b.at);
  const half = points.length >> 1;
  const [one, two] = [points.slice(0, half), points.slice(half)];
  const [t1, t2] = [middle(one.map((p) => p.at)), middle(two.map((p) => p.at))];
  const [y1, y2] = [middle(one.map((p) => p.late)), middle(two.map((p) => p.late))];
  const slope = t2 > t1 ? (y2 - y1) / (t2 - t1) : 0;
  return (seconds) => y1 + slope * (seconds - t1);
}

/**
 * A match that lies further from its limb's usual place than this many usual scatters, and than this many ms, is no
 * late stroke: one was left out and another added.
 */
const FAR_SCATTERS = 5;
const FAR_MS = 25;

/** Matches without those that cannot be meant so, judged limb by limb by the median and the median distance from it. */
function plausible(matches: readonly Match[], expected: readonly Expected[]): readonly Match[] {
  const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
  const limbs = [...new Set(matches.map((m) => expected[m.expected]?.limb))];
  return limbs
    .flatMap((limb) => {
      const own = matches.filter((m) => expected[m.expected]?.limb === limb);
      const usual = middle(own.map((m) => m.late));
      const scatter = 1.4826 * middle(own.map((m) => Math.abs(m.late - usual)));
      return own.filter((m) => Math.abs(m.late - usual) <= Math.max(FAR_MS, FAR_SCATTERS * scatter));
    })
    .sort((a, b) => a.expected - b.expected);
}

/** For each stroke the first stroke of its moment. */
function sharedMoments(expected: readonly Expected[]): readonly number[] {
  const first: number[] = [];
  expected.forEach((e, i) => {
    const before = first[i - 1];
    first.push(before !== undefined && Math.abs((expected[before]?.seconds ?? 0) - e.seconds) < 1e-9 ? before : i);
  });
  return first;
}

/** One match that could be, with the best chain that ends in it. */
interface Candidate {
  readonly expected: number;
  readonly hit: number;
  readonly late: number;
  readonly worth: number;
  readonly before: Candidate | null;
}

function matchGroup(
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
