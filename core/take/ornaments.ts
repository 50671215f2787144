import { graceCount, otherHand } from '../stroke';
import type { Expected } from '../rendition';
import type { Hit } from './hit';
import type { Match } from './match';

/** A stroke with grace strokes that was played: how many of them were asked for and heard. */
export interface Answered {
  /** Place in the list of expected strokes. */
  readonly expected: number;
  readonly wanted: number;
  readonly heard: number;
}

/** A grace stroke is looked for so many seconds before its stroke: that of a slow ruff, and wide flams. */
const BEFORE = 0.19;
/** In which the nearest of one grace stroke lies, in seconds: beyond, two strokes are heard. */
const FLAM = 0.085;
/** What comes so soon after a stroke on the same surface, in seconds, is no other stroke: the pad sent twice. */
const TWICE = 0.033;
/** A buzz bounces until this share of the way to the next stroke, and this many seconds at most. */
const BOUNCES = { share: 0.85, most: 0.6 } as const;

/**
 * Lays grace strokes before their stroke, bounces after it, and finds hits that a pad sent twice. The main stroke of a
 * flam, drag or ruff is the last of its hits; of two hits that a pad sent for one stroke the first is meant.
 */
export function resolveOrnaments(
  expected: readonly Expected[],
  hits: readonly Hit[],
  matches: readonly Match[],
  by: 'limb' | 'voice' | 'nothing',
): {
  readonly matches: readonly Match[];
  readonly graces: readonly Answered[];
  readonly graceHits: readonly number[];
  readonly doubled: readonly number[];
  /** Hits that are none of these and match nothing, and those that a pad seems to have sent twice. */
  readonly free: readonly number[];
} {
  const used = new Set(matches.map((m) => m.hit));
  const time = (i: number): number => hits[i]?.seconds ?? 0;
  /** Free hits between two moments, in order of time. */
  const free = (from: number, until: number, fits: (h: Hit) => boolean): number[] => {
    const found: number[] = [];
    for (let i = lowestAt(hits, from); i < hits.length && time(i) <= until; i++) {
      const h = hits[i];
      if (h && !used.has(i) && fits(h)) found.push(i);
    }
    return found;
  };
  const graces: Answered[] = [];
  const graceHits: number[] = [];
  const doubled: number[] = [];
  const moved = new Map<number, number>();
  const struck = [...used].map(time).sort((a, b) => a - b);
  const same = (h: Hit, e: Expected): boolean =>
    by === 'limb' ? h.limb === e.limb : by === 'voice' ? h.voice === e.voice : true;
  const asGrace = (h: Hit, e: Expected): boolean =>
    // A hand that keeps time elsewhere leaves its grace strokes to the hand that plays the stroke.
    by === 'limb' ? h.limb === otherHand(e.limb) || h.limb === e.limb : by === 'voice' ? h.voice === e.voice : true;
  for (const m of matches) {
    const e = expected[m.expected];
    if (!e) continue;
    let main = m.hit;
    const take = (hit: number, into: number[]): void => {
      used.add(hit);
      into.push(hit);
    };
    const wanted = e.ornament ? graceCount(e.ornament) : 0;
    if (wanted === 0) {
      // The first of two is the stroke; what a pad sends after it is not.
      const [earlier] = free(time(main) - TWICE, time(main) - 1e-6, (h) => same(h, e));
      if (earlier !== undefined && Math.abs(time(earlier) - time(main) + m.late / 1000) < FLAM) {
        used.delete(main);
        used.add(earlier);
        moved.set(m.expected, earlier);
        main = earlier;
      }
    }
    if (e.ornament === 'buzz') {
      const next = struck.find((s) => s > time(main) + 1e-6) ?? Infinity;
      const until = time(main) + Math.min(BOUNCES.most, (next - time(main)) * BOUNCES.share);
      free(time(main), until, (h) => same(h, e) || asGrace(h, e)).forEach((i) => take(i, graceHits));
    }
    if (wanted > 0) {
      const before = (): number[] => {
        const earliest = Math.max(time(main) - (wanted === 1 ? FLAM : BEFORE), lastBefore(struck, time(main)) + 0.002);
        return free(earliest, time(main) - 1e-6, (h) => asGrace(h, e)).slice(-wanted);
      };
      for (;;) {
        const [later] = free(time(main) + 0.006, time(main) + FLAM, (h) => same(h, e));
        // Its hits end in the stroke itself, as long as enough of them come before.
        if (later === undefined || before().length >= wanted) break;
        used.delete(main);
        used.add(later);
        struck[struck.indexOf(time(main))] = time(later);
        struck.sort((a, b) => a - b);
        moved.set(m.expected, later);
        main = later;
      }
      const own = before();
      own.forEach((i) => take(i, graceHits));
      graces.push({ expected: m.expected, wanted, heard: own.length });
    }
  }
  for (let i = 0; i < hits.length; i++) {
    if (used.has(i)) continue;
    const h = hits[i];
    for (let k = i - 1; h && k >= 0 && h.seconds - time(k) <= TWICE; k--) {
      const other = hits[k];
      const alike = other && (by === 'limb' ? other.limb === h.limb : by === 'voice' ? other.voice === h.voice : true);
      if (alike && h.seconds > time(k) && (h.limb !== null || h.voice !== null || by === 'nothing')) {
        used.add(i);
        doubled.push(i);
        break;
      }
    }
  }
  const twice = new Set(doubled);
  return {
    matches: matches.map((m) => ({ ...m, hit: moved.get(m.expected) ?? m.hit })),
    graces,
    graceHits,
    doubled,
    free: hits.flatMap((_, i) => (used.has(i) && !twice.has(i) ? [] : [i])),
  };
}

/** The first place whose time is not before a moment. */
function lowestAt(hits: readonly Hit[], least: number): number {
  let [low, high] = [0, hits.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((hits[middle]?.seconds ?? 0) < least) low = middle + 1;
    else high = middle;
  }
  return low;
}

function lastBefore(sorted: readonly number[], moment: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sorted[middle] ?? 0) < moment - 1e-6) low = middle + 1;
    else high = middle;
  }
  return sorted[low - 1] ?? -Infinity;
}
