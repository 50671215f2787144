import { barTicks, countAt, USUAL_SCHOOLS } from '../time';
import { LEVELS, LIMBS, ORNAMENTS, VOICES } from '../stroke';
import { barsSpan, countingOf, type Pattern } from '../pattern';
import { mod } from '../base';
import { select } from './select';
import { ALL, both, either, type Selection, type SelectionKind, type Which, type Within } from './selection';
import { beatIn, partsIn } from './parts';
import { selectionWords } from './words';

/** A description longer than this is none: the places are listed. */
const MOST_WORDS = 12;
/** Lists longer than this are not looked at. */
const MOST_LISTED = 8;

/** A part of a description that lets all the chosen strokes through, and which strokes those are. */
interface Part {
  readonly part: Selection;
  readonly has: ReadonlySet<number>;
  readonly cost: number;
}

/**
 * The shortest selection, in spoken words, that chooses exactly these strokes and no others, by index: what a person
 * who pressed them one by one most likely means. Counts come before ordinals, and a place of the cell is only named
 * where the cell goes round more than once. Where nothing of at most twelve words fits, the places are listed by their
 * counts. `select` gives the indexes back, in order; indexes that are not there are passed over.
 */
export function describeStrokes(pattern: Pattern, chosen: readonly number[]): Selection {
  const wanted = [...new Set(chosen)].filter((i) => pattern.strokes[i] !== undefined).sort((a, b) => a - b);
  if (wanted.length === 0) return { is: 'hand', at: [] };
  if (same(select(pattern, ALL), wanted)) return ALL;
  const exact = conjunction(pattern, wanted);
  const found = [...(exact ? [exact] : []), ...orders(pattern, wanted), ...exceptions(pattern, wanted)];
  const best = shortest(found, pattern);
  return best && wordsIn(best, pattern) <= MOST_WORDS ? best : byHand(pattern, wanted);
}

const wordsIn = (s: Selection, pattern: Pattern): number => selectionWords(s, pattern).split(' ').length;

/** What is said with an ordinal is understood later than a count: so many words later. */
const LATER: Partial<Record<SelectionKind, number>> = { place: 1, repeat: 1, role: 1 };

function laterBy(s: Selection): number {
  if (s.is === 'order')
    return ('every' in s.which ? 8 : 'nth' in s.which ? 3 : 1) + (s.within === 'phrase' ? 0 : 2) + laterBy(s.of);
  // "Ghosts and taps" is no kind of stroke.
  const own = s.is === 'height' ? (s.levels.length - 1) * 4 : (LATER[s.is] ?? 0);
  if (s.is === 'and') return own + s.all.reduce((sum, p) => sum + laterBy(p), 0);
  return s.is === 'but' ? own + 1 + laterBy(s.of) + laterBy(s.not) : own;
}

function shortest(all: readonly Selection[], pattern: Pattern): Selection | null {
  let best: { readonly s: Selection; readonly cost: number } | null = null;
  for (const s of all) {
    const cost = wordsIn(s, pattern) + laterBy(s);
    if (!best || cost < best.cost) best = { s, cost };
  }
  return best?.s ?? null;
}

const same = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);

function seen<T>(all: readonly T[], of: readonly (T | undefined)[]): T[] {
  return all.filter((x) => of.includes(x));
}

const sorted = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);

/** Nodes by which some strokes can be told, each as tight as it can be. */
function nodesFor(pattern: Pattern, chosen: readonly number[]): Selection[] {
  const own = chosen.flatMap((i) => pattern.strokes[i] ?? []);
  const bar = barTicks(pattern.meter);
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const inBar = sorted(own.map((s) => mod(pattern.start + s.at, bar)));
  const bars = sorted(own.map((s) => Math.floor((pattern.start + s.at) / bar) + 1));
  const beats: number[] = [];
  for (let n = 1; ; n++) {
    const beat = beatIn(pattern.meter, n);
    if (!beat) break;
    if (inBar.some((t) => t >= beat.from && t < beat.until)) beats.push(n);
  }
  const repeats = sorted(own.map((s) => s.from.repeat + 1));
  const last = pattern.strokes.reduce((most, s) => Math.max(most, s.from.repeat + 1), 1);
  const all: Selection[] = [
    {
      is: 'limb',
      limbs: seen(
        LIMBS,
        own.map((s) => s.limb),
      ),
    },
    {
      is: 'height',
      levels: seen(
        LEVELS,
        own.map((s) => s.level),
      ),
    },
    {
      is: 'piece',
      voices: seen(
        VOICES,
        own.map((s) => s.voice),
      ),
    },
    {
      is: 'ornament',
      ornaments: seen(
        ORNAMENTS,
        own.map((s) => s.ornament),
      ),
    },
    { is: 'count', counts: inBar.map((t) => countAt(t, counting).text) },
    { is: 'beat', beats },
    { is: 'part', part: 'first-of-double' },
    { is: 'part', part: 'second-of-double' },
    { is: 'part', part: 'double' },
  ];
  if (barsSpan(pattern).bars > 1) all.push({ is: 'bar', bars });
  if (pattern.groups.length > 1) {
    const places = sorted(own.map((s) => s.from.index + 1));
    if (places.every((p) => p <= 4)) all.push({ is: 'place', places });
    const single = repeats.length === 1 ? repeats[0] : undefined;
    if (single === last) all.push({ is: 'repeat', repeats: ['last'] });
    if (single === 1) all.push({ is: 'repeat', repeats: ['first'] });
    else if (single !== last) all.push({ is: 'repeat', repeats });
  }
  return all;
}

/** Those of the nodes that let all the chosen strokes through. */
function partsFor(pattern: Pattern, chosen: readonly number[]): Part[] {
  return nodesFor(pattern, chosen).flatMap((part) => {
    const lists = Object.values(part).filter(Array.isArray);
    if (lists.some((l) => l.length === 0 || l.length > MOST_LISTED)) return [];
    const has = new Set(select(pattern, part));
    return chosen.every((i) => has.has(i)) ? [{ part, has, cost: wordsIn(part, pattern) + laterBy(part) }] : [];
  });
}

/** Up to three of the nodes together, the cheapest that fits; null where none does. */
function conjunction(pattern: Pattern, wanted: readonly number[]): Selection | null {
  const parts = partsFor(pattern, wanted);
  let best: { readonly s: Selection; readonly cost: number } | null = null;
  const add = (from: number, now: readonly Part[], cost: number): void => {
    for (let i = from; i < parts.length; i++) {
      const next = parts[i];
      if (!next || now.some((p) => p.part.is === next.part.is)) continue;
      const joined = [...now, next];
      const total = cost + next.cost;
      if (best && total >= best.cost) continue;
      const size = [...next.has].filter((k) => now.every((p) => p.has.has(k))).length;
      const s = both(...joined.map((p) => p.part));
      if (size === wanted.length && same(select(pattern, s), wanted)) best = { s, cost: total };
      if (joined.length < 3) add(i + 1, joined, total);
    }
  };
  add(0, [], 0);
  return (best as { readonly s: Selection } | null)?.s ?? null;
}

/** The first, the last, the second … of some strokes, in the phrase or in each bar or beat. */
function orders(pattern: Pattern, wanted: readonly number[]): Selection[] {
  const own = wanted.flatMap((i) => pattern.strokes[i] ?? []);
  const limb: Selection = {
    is: 'limb',
    limbs: seen(
      LIMBS,
      own.map((s) => s.limb),
    ),
  };
  const height: Selection = {
    is: 'height',
    levels: seen(
      LEVELS,
      own.map((s) => s.level),
    ),
  };
  const bases = [ALL, limb, height, both(limb, height)].filter((b) => !('all' in b) || b.all.length > 1);
  const found: Selection[] = [];
  const moments = new Set(own.map((s) => s.at)).size;
  const which: Which[] = [{ nth: [2] }, { nth: [3] }, { every: 2, from: 1 }, { every: 2, from: 2 }];
  for (let n = 1; n <= Math.min(4, moments); n++) which.push({ first: n }, { last: n });
  const withins: readonly Within[] = barsSpan(pattern).bars > 1 ? ['phrase', 'bar', 'beat'] : ['phrase', 'beat'];
  for (const of of bases) {
    const all = select(pattern, of);
    if (!wanted.every((i) => all.includes(i))) continue;
    const ticks = sorted(all.map((i) => pattern.strokes[i]?.at ?? 0));
    for (const within of withins) {
      const rows = partsIn(pattern, within).map((p) => ticks.filter((t) => t >= p.from && t < p.until).length);
      for (const w of which) {
        // Most are ruled out by how many places they choose.
        if (rows.reduce((sum, many) => sum + pickedOf(many, w), 0) !== moments) continue;
        const s: Selection = { is: 'order', of, which: w, within };
        if (same(select(pattern, s), wanted)) found.push(s);
      }
    }
  }
  return found;
}

/** How many of so many in a row are meant. */
function pickedOf(many: number, which: Which): number {
  if ('first' in which) return Math.min(many, which.first);
  if ('last' in which) return Math.min(many, which.last);
  if ('nth' in which) return which.nth.filter((n) => n <= many).length;
  return 'every' in which ? Math.max(0, Math.ceil((many - which.from + 1) / which.every)) : Math.min(many, 1);
}

/** All of something but a few. */
function exceptions(pattern: Pattern, wanted: readonly number[]): Selection[] {
  const found: Selection[] = [];
  const bases = [ALL, ...partsFor(pattern, wanted).map((p) => p.part)];
  for (const of of bases) {
    const own = select(pattern, of);
    if (!wanted.every((i) => own.includes(i))) continue;
    const left = own.filter((i) => !wanted.includes(i));
    if (left.length === 0 || left.length >= wanted.length) continue;
    for (const { is, ...rest } of nodesFor(pattern, left)) {
      const not = { is, ...rest } as Selection;
      if (Object.values(rest).some((v) => Array.isArray(v) && (v.length === 0 || v.length > 4))) continue;
      const s: Selection = { is: 'but', of, not };
      if (same(select(pattern, s), wanted)) found.push(s);
    }
  }
  return found;
}

/** The places themselves; where several limbs strike at one of them and not all are meant, limb by limb. */
function byHand(pattern: Pattern, wanted: readonly number[]): Selection {
  const at = (indexes: readonly number[]): number[] => sorted(indexes.flatMap((i) => pattern.strokes[i]?.at ?? []));
  const bare: Selection = { is: 'hand', at: at(wanted) };
  if (same(select(pattern, bare), wanted)) return bare;
  const limbs = seen(
    LIMBS,
    wanted.map((i) => pattern.strokes[i]?.limb),
  );
  const some = both({ is: 'limb', limbs }, bare);
  if (same(select(pattern, some), wanted)) return some;
  const [first, ...others] = limbs.map((limb) =>
    both(
      { is: 'limb', limbs: [limb] },
      { is: 'hand', at: at(wanted.filter((i) => pattern.strokes[i]?.limb === limb)) },
    ),
  );
  return first ? either(first, ...others) : bare;
}
