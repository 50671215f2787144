import { TICKS_PER_QUARTER } from '../time';
import type { Expected } from '../rendition';
import type { Hit } from './hit';
import { matchGroup, type Match } from './match';
import { resolveOrnaments, type Answered } from './ornaments';
import { mean, median } from '../base';
import { keyFor, playedAt, wholeOf, type Aligner, type Whole } from './whole';

export type { Match } from './match';

export interface Alignment {
  readonly matches: readonly Match[];
  /** Places of expected strokes that nobody played, and of hits that nobody asked for. */
  readonly missed: readonly number[];
  readonly extra: readonly number[];
  /** Strokes with grace strokes that were played: how many were asked for, and how many heard. */
  readonly graces: readonly Answered[];
  /** Places of hits that were grace strokes or the bounces of a buzz. */
  readonly graceHits: readonly number[];
  /** Places of hits that a pad sent twice for one stroke. */
  readonly doubled: readonly number[];
  /** Places of hits of which nothing is known in a take whose other hits are known: a note that was never taught. */
  readonly unknown: readonly number[];
  /** How the take lies as a whole on what was meant. */
  readonly whole: Whole;
  /** Length of a counted beat in seconds, as it was meant. */
  readonly beat: number;
}

/** What is known of a take beside its hits. */
export interface Hearing {
  /** Length of a counted beat in seconds; told by the strokes' ticks when absent. */
  readonly beat?: number;
  /** Whether what listened can hear grace strokes at all: else they are not asked for. */
  readonly hearsGraces?: boolean;
}

/**
 * Lays hits on expected strokes. First the take is read as a whole (late, slower, faster), then strokes and hits are
 * matched where that whole has them: limb by limb where hits know their limb, voice by voice where they know their
 * voice, else all together. A hit can be meant for a stroke within three quarters of the way to that stroke's
 * neighbours, at most 460 ms. Grace strokes are laid before their stroke; what a pad sent twice, or a note that was
 * never taught, is told apart from strokes too many. `late` is against what was meant. Both lists must be in order of
 * time. Time grows as n log n.
 */
export function align(
  expected: readonly Expected[],
  hits: readonly Hit[],
  { beat = usualBeat(expected), hearsGraces = true }: Hearing = {},
): Alignment {
  const key = keyFor(hits);
  // Strokes of one moment that nothing tells apart sound once: those after the first are answered by the same hit.
  const first = sharedMoments(expected, key.stroke);
  const lay = layBy(key, expected, hits, first);
  const whole = wholeOf(expected, hits, (where, until) => withShared(lay(where, until), first), beat);
  const close = lay(
    expected.map((e) => playedAt(whole, e.seconds)),
    Infinity,
  );
  const kept = plausible(close, expected);
  const told = resolveOrnaments(expected, hits, kept, key.by);
  const together = unisons(expected, hits, withShared(told.matches, first), first, told.free, key);
  const matches = together
    .map(({ expected: e, hit, seconds }) => ({
      expected: e,
      hit,
      late: (seconds - (expected[e]?.seconds ?? 0)) * 1000,
    }))
    .sort((a, b) => a.expected - b.expected);
  const answered = new Set(matches.map((m) => m.expected));
  const second = new Set(matches.map((m) => m.hit));
  const doubled = told.doubled.filter((i) => !second.has(i));
  const used = new Set([...second, ...told.graceHits, ...doubled]);
  const rest = hits.flatMap((_, i) => (used.has(i) ? [] : [i]));
  const isUnknown = (i: number): boolean => {
    const h = hits[i];
    return h !== undefined && key.hit(h) === null;
  };
  return {
    matches,
    missed: expected.flatMap((_, i) => (answered.has(i) ? [] : [i])),
    extra: rest.filter((i) => !isUnknown(i)),
    unknown: rest.filter(isUnknown),
    graces: hearsGraces ? told.graces : [],
    graceHits: told.graceHits,
    doubled,
    whole,
    beat,
  };
}

/** Lays hits on strokes group by group: limb by limb, voice by voice, or all together. */
function layBy(
  key: ReturnType<typeof keyFor>,
  expected: readonly Expected[],
  hits: readonly Hit[],
  first: readonly number[],
): Aligner {
  const groups = new Map<string, { own: number[]; played: number[] }>();
  const group = (name: string): { own: number[]; played: number[] } => {
    const known = groups.get(name) ?? { own: [], played: [] };
    groups.set(name, known);
    return known;
  };
  expected.forEach((e, i) => first[i] === i && group(key.stroke(e)).own.push(i));
  hits.forEach((h, i) => {
    const name = key.hit(h);
    if (name !== null) group(name).played.push(i);
  });
  return (where, until) =>
    [...groups.values()].flatMap(({ own, played }) =>
      matchGroup(
        where,
        hits,
        until === Infinity ? own : own.filter((i) => (expected[i]?.seconds ?? 0) <= until),
        played,
      ),
    );
}

/** A quarter, told by the ticks of the strokes; half a second where they have none. */
function usualBeat(expected: readonly Expected[]): number {
  const [a, b] = [expected[0], expected.at(-1)];
  const ticks = (b?.tick ?? 0) - (a?.tick ?? 0);
  return a && b && ticks > 0 ? ((b.seconds - a.seconds) * TICKS_PER_QUARTER) / ticks : 0.5;
}

/** Every stroke of a moment that is answered by the hit of its first. */
function withShared(matches: readonly Match[], first: readonly number[]): readonly Match[] {
  const of = new Map<number, number[]>();
  first.forEach((f, i) => {
    if (f !== i) of.set(f, [...(of.get(f) ?? []), i]);
  });
  if (of.size === 0) return matches;
  return matches.flatMap((m) => [m, ...(of.get(m.expected) ?? []).map((i) => ({ ...m, expected: i }))]);
}

/**
 * Two strokes of a unison that nothing tells apart are no further from each other than this, in seconds: where voices
 * are known, and where nothing is and two sounds so near are mostly heard as one.
 */
const TOGETHER = { limb: 0.035, voice: 0.035, nothing: 0.012 } as const;

/**
 * Matches with the second hit of a unison that nothing tells apart, where there is one: whose hit is whose cannot be
 * told, so that both fall on the middle.
 */
function unisons(
  expected: readonly Expected[],
  hits: readonly Hit[],
  matches: readonly Match[],
  first: readonly number[],
  free: readonly number[],
  key: ReturnType<typeof keyFor>,
): readonly { readonly expected: number; readonly hit: number; readonly seconds: number }[] {
  const left = new Set(free);
  const own = new Map(matches.map((m) => [m.expected, m.hit]));
  const partner = new Map<number, number>();
  for (const m of matches) {
    const e = expected[m.expected];
    const [lead, at] = [first[m.expected] ?? m.expected, hits[m.hit]?.seconds ?? 0];
    if (!e || lead === m.expected) continue;
    for (let n = 1; n <= NEIGHBOURS; n++) {
      const found = [m.hit + n, m.hit - n].find((i) => {
        const h = hits[i];
        return h && left.has(i) && key.hit(h) === key.stroke(e) && Math.abs(h.seconds - at) <= TOGETHER[key.by];
      });
      if (found === undefined) continue;
      left.delete(found);
      partner.set(m.expected, found);
      break;
    }
  }
  const middle = new Map<number, number[]>();
  matches.forEach((m) => {
    const lead = first[m.expected] ?? m.expected;
    const hit = partner.get(m.expected) ?? own.get(lead) ?? m.hit;
    middle.set(lead, [...(middle.get(lead) ?? []), hits[hit]?.seconds ?? 0]);
  });
  return matches.map((m) => {
    const all = middle.get(first[m.expected] ?? m.expected) ?? [];
    return { expected: m.expected, hit: partner.get(m.expected) ?? m.hit, seconds: mean(all) };
  });
}

/** Hits beside a unison's that are looked at for its second one. */
const NEIGHBOURS = 3;

/** For each stroke the first stroke of its moment that nothing tells it apart from. */
function sharedMoments(expected: readonly Expected[], keyOf: (e: Expected) => string): readonly number[] {
  return expected.map((e, i) => {
    let found = i;
    for (let k = i - 1; k >= 0; k--) {
      const other = expected[k];
      if (!other || e.seconds - other.seconds > 1e-9) break;
      if (keyOf(other) === keyOf(e)) found = k;
    }
    return found;
  });
}

/**
 * A match that lies further from its limb's usual place, and from what its own place has in most loops, than this many
 * usual scatters and than this many ms is no late stroke: one was left out and another added.
 */
const FAR_SCATTERS = 5;
const FAR_MS = 25;

/** Matches without those that cannot be meant so, by the medians of their limb and of their place in the loop. */
function plausible(matches: readonly Match[], expected: readonly Expected[]): readonly Match[] {
  const turns = new Set(expected.map((e) => e.turn)).size;
  const byPlace = grouped(matches, (m) => expected[m.expected]?.index ?? -1);
  const places = new Map([...byPlace].map(([place, own]) => [place, median(own.map((m) => m.late))]));
  return [...grouped(matches, (m) => expected[m.expected]?.limb ?? '').values()]
    .flatMap((own) => {
      const usual = median(own.map((m) => m.late));
      const scatter = 1.4826 * median(own.map((m) => Math.abs(m.late - usual)));
      const far = Math.max(FAR_MS, FAR_SCATTERS * scatter);
      return own.filter((m) => {
        if (Math.abs(m.late - usual) <= far) return true;
        const place = expected[m.expected]?.index ?? -1;
        const many = byPlace.get(place)?.length ?? 0;
        // The same in most loops is a habit, not chance.
        return turns > 1 && many * 2 > turns && many > 1 && Math.abs(m.late - (places.get(place) ?? 0)) <= far;
      });
    })
    .sort((a, b) => a.expected - b.expected);
}

function grouped<K>(matches: readonly Match[], keyOf: (m: Match) => K): ReadonlyMap<K, Match[]> {
  const all = new Map<K, Match[]>();
  for (const m of matches) {
    const own = all.get(keyOf(m));
    if (own) own.push(m);
    else all.set(keyOf(m), [m]);
  }
  return all;
}
