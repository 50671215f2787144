import { firstPlace } from '../base';
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

/** By what hits are told apart. */
type By = 'limb' | 'voice' | 'nothing';

/** What of a take belongs to ornaments, and what is left over. */
export interface Ornaments {
  readonly matches: readonly Match[];
  readonly graces: readonly Answered[];
  readonly graceHits: readonly number[];
  /** Hits that a pad seems to have sent twice. */
  readonly doubled: readonly number[];
  /** Hits that are none of these and match nothing, and those that were sent twice. */
  readonly free: readonly number[];
}

/**
 * Lays grace strokes before their stroke, bounces after it, and finds hits that a pad sent twice. The main stroke of a
 * flam, drag or ruff is the last of its hits; of two hits that a pad sent for one stroke the first is meant.
 */
export function resolveOrnaments(
  expected: readonly Expected[],
  hits: readonly Hit[],
  matches: readonly Match[],
  by: By,
): Ornaments {
  const search = new OrnamentSearch(hits, matches, by);
  const graces: Answered[] = [];
  const mains = matches.map((m): Match => {
    const e = expected[m.expected];
    if (!e) return m;
    const wanted = e.ornament ? graceCount(e.ornament) : 0;
    if (wanted === 0) {
      const first = search.firstOfTwo(m, e);
      if (e.ornament === 'buzz') search.takeBounces(first, e);
      return { ...m, hit: first };
    }
    const { main, heard } = search.takeGraces(m.hit, e, wanted);
    graces.push({ expected: m.expected, wanted, heard });
    return { ...m, hit: main };
  });
  const doubled = search.takeDoubled();
  const twice = new Set(doubled);
  return {
    matches: mains,
    graces,
    graceHits: search.graceHits,
    doubled,
    free: hits.flatMap((_, i) => (search.isUsed(i) && !twice.has(i) ? [] : [i])),
  };
}

/** Which hits are used so far, stroke after stroke, and what is found among the others. */
class OrnamentSearch {
  readonly graceHits: number[] = [];
  private readonly used: Set<number>;
  /** When strokes were struck, in order. */
  private readonly struck: number[];

  constructor(
    private readonly hits: readonly Hit[],
    matches: readonly Match[],
    private readonly by: By,
  ) {
    this.used = new Set(matches.map((m) => m.hit));
    this.struck = [...this.used].map((i) => this.time(i)).sort((a, b) => a - b);
  }

  isUsed(hit: number): boolean {
    return this.used.has(hit);
  }

  /** Of two hits so near each other the first is the stroke; what a pad sends after it is not. */
  firstOfTwo({ hit, late }: Match, e: Expected): number {
    const at = this.time(hit);
    const [earlier] = this.free(at - TWICE, at - 1e-6, (h) => this.isSame(h, e));
    if (earlier === undefined || Math.abs(this.time(earlier) - at + late / 1000) >= FLAM) return hit;
    this.used.delete(hit);
    this.used.add(earlier);
    return earlier;
  }

  /** The bounces of a buzz, up to the next stroke. */
  takeBounces(main: number, e: Expected): void {
    const at = this.time(main);
    const next = this.struck.find((s) => s > at + 1e-6) ?? Infinity;
    const until = at + Math.min(BOUNCES.most, (next - at) * BOUNCES.share);
    this.take(this.free(at, until, (h) => this.isSame(h, e) || this.isGrace(h, e)));
  }

  /** The grace strokes before a stroke: its hits end in the stroke itself, as long as enough of them come before. */
  takeGraces(hit: number, e: Expected, wanted: number): { readonly main: number; readonly heard: number } {
    let main = hit;
    for (;;) {
      const at = this.time(main);
      const [later] = this.free(at + 0.006, at + FLAM, (h) => this.isSame(h, e));
      if (later === undefined || this.gracesBefore(main, e, wanted).length >= wanted) break;
      this.used.delete(main);
      this.used.add(later);
      this.struck[this.struck.indexOf(at)] = this.time(later);
      this.struck.sort((a, b) => a - b);
      main = later;
    }
    const own = this.gracesBefore(main, e, wanted);
    this.take(own);
    return { main, heard: own.length };
  }

  /** What is left and comes right after another of its kind. */
  takeDoubled(): readonly number[] {
    return this.hits.flatMap((h, i) => {
      if (this.used.has(i) || !this.isEcho(h, i)) return [];
      this.used.add(i);
      return [i];
    });
  }

  private isEcho(h: Hit, i: number): boolean {
    const told = h.limb !== null || h.voice !== null || this.by === 'nothing';
    for (let k = i - 1; told && k >= 0 && h.seconds - this.time(k) <= TWICE; k--) {
      const other = this.hits[k];
      if (other && h.seconds > other.seconds && this.isAlike(h, other)) return true;
    }
    return false;
  }

  private gracesBefore(main: number, e: Expected, wanted: number): readonly number[] {
    const at = this.time(main);
    const before = this.struck[firstPlace(this.struck.length, (i) => (this.struck[i] ?? 0) >= at - 1e-6) - 1];
    const earliest = Math.max(at - (wanted === 1 ? FLAM : BEFORE), (before ?? -Infinity) + 0.002);
    return this.free(earliest, at - 1e-6, (h) => this.isGrace(h, e)).slice(-wanted);
  }

  private take(hits: readonly number[]): void {
    for (const hit of hits) {
      this.used.add(hit);
      this.graceHits.push(hit);
    }
  }

  /** Free hits between two moments, in order of time. */
  private free(from: number, until: number, fits: (h: Hit) => boolean): readonly number[] {
    const found: number[] = [];
    const first = firstPlace(this.hits.length, (i) => this.time(i) >= from);
    for (let i = first; i < this.hits.length && this.time(i) <= until; i++) {
      const h = this.hits[i];
      if (h && !this.used.has(i) && fits(h)) found.push(i);
    }
    return found;
  }

  private time(hit: number): number {
    return this.hits[hit]?.seconds ?? 0;
  }

  private isSame(h: Hit, e: Expected): boolean {
    return this.by === 'limb' ? h.limb === e.limb : this.by === 'voice' ? h.voice === e.voice : true;
  }

  private isAlike(a: Hit, b: Hit): boolean {
    return this.by === 'limb' ? a.limb === b.limb : this.by === 'voice' ? a.voice === b.voice : true;
  }

  /** As written, or as some play it: with the stroke's own hand, on its own drum. */
  private isGrace(h: Hit, e: Expected): boolean {
    const { limb, voice } = e.graces ?? e;
    if (this.by === 'limb') return h.limb === limb || h.limb === otherHand(e.limb) || h.limb === e.limb;
    return this.isSame(h, e) || (this.by === 'voice' && h.voice === voice);
  }
}
