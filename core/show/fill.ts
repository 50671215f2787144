import { Heap } from '../base';
import { assign } from './assign';

/** A spot to be filled: the phrases that stand in it by their places, and how surely each is ready, 0–1. */
export interface FillSpot {
  readonly options: readonly { readonly phrase: number; readonly chance: number }[];
  /** The phrase that was chosen by hand; null where none was. */
  readonly pinned: number | null;
}

export interface FillAsked {
  /** In the order of the night. */
  readonly spots: readonly FillSpot[];
  /** How many phrases there are, and how often each may be played. */
  readonly phrases: number;
  readonly most: (phrase: number) => number;
  /** Whether two phrases are too alike to follow each other; a phrase is like itself. */
  readonly alike: (a: number, b: number) => boolean;
}

export interface Filled {
  /** The phrase of each spot; null where none could be had. */
  readonly chosen: readonly (number | null)[];
  /** Whether it is the best there is; else the best that was found. */
  readonly exact: boolean;
}

/** A spot that stays empty costs more than any choice of the others can save. */
const EMPTY = 1e4;
/** Nothing is out of the question. */
const LEAST = 1e-4;
/** So many ways of filling are looked at, the most promising first. */
const MOST_LOOKED = 400;

const costOf = (chance: number): number => -Math.log(Math.max(LEAST, Math.min(1, chance)));

/** What is forbidden on a branch: pairs of spot and phrase. */
interface Branch {
  readonly out: readonly (readonly [spot: number, phrase: number])[];
  readonly cost: number;
  readonly chosen: readonly (number | null)[];
}

/**
 * One phrase for each spot: first as many as can be, then the highest sum of the logarithms of their chances, with
 * neighbours unlike each other and each phrase at most so often. What was chosen by hand stands whatever it is like,
 * and counts. Branch and bound: without the neighbours it is an assignment, whose cost no filling with them is below;
 * where two neighbours are alike, the first goes, or the second goes.
 * @example
 * fillShow({ spots: [{ options: [{ phrase: 0, chance: 0.9 }, { phrase: 1, chance: 0.5 }], pinned: null }], phrases: 2, most: () => 1, alike: (a, b) => a === b }).chosen // => [0]
 */
export function fillShow(asked: FillAsked): Filled {
  const open = asked.spots.flatMap((s, i) => (s.pinned === null ? i : []));
  const start = solved(asked, open, []);
  const queue = new Heap<Branch>((a, b) => a.cost < b.cost);
  queue.push(start);
  let best: Branch | null = null;
  for (let looked = 0; ; looked++) {
    const next = queue.pop();
    if (!next || (best && next.cost >= best.cost - 1e-9)) return { chosen: best?.chosen ?? start.chosen, exact: true };
    if (looked >= MOST_LOOKED) return { chosen: (best ?? mended(asked, next)).chosen, exact: false };
    const pair = alikePair(asked, next.chosen);
    if (pair === null) {
      best = next;
      continue;
    }
    // A filling that keeps the law is had at once, so that there is one whenever it is stopped.
    if (!best) best = mended(asked, next);
    for (const out of forbidden(asked, next, pair)) {
      const branch = solved(asked, open, [...next.out, ...out]);
      if (branch.cost < best.cost - 1e-9) queue.push(branch);
    }
  }
}

/** The first two neighbours that are alike and not both chosen by hand: their first spot. */
function alikePair({ spots, alike }: FillAsked, chosen: readonly (number | null)[]): number | null {
  for (let i = 0; i + 1 < chosen.length; i++) {
    const [a, b] = [chosen[i], chosen[i + 1]];
    if (a == null || b == null || !alike(a, b)) continue;
    if (spots[i]?.pinned === null || spots[i + 1]?.pinned === null) return i;
  }
  return null;
}

/** The two ways on from alike neighbours: the first spot has not its phrase; or it has, and the second none like it. */
function forbidden({ spots, alike }: FillAsked, { chosen }: Branch, first: number): readonly Branch['out'][] {
  const phrase = chosen[first] ?? 0;
  const pairs = (spot: number, test: (other: number) => boolean): Branch['out'] =>
    (spots[spot]?.options ?? []).flatMap((o) => (test(o.phrase) ? [[spot, o.phrase] as const] : []));
  const likeSecond = pairs(first + 1, (p) => alike(p, phrase));
  const [before, after] = [spots[first], spots[first + 1]];
  if (before && before.pinned !== null) return [likeSecond];
  if (after && after.pinned !== null) return [pairs(first, (p) => alike(p, chosen[first + 1] ?? 0))];
  return [[[first, phrase]], [...pairs(first, (p) => p !== phrase), [first, -1] as const, ...likeSecond]];
}

/** The best filling where neighbours do not matter, with some pairs forbidden; -1 forbids to leave a spot empty. */
function solved(asked: FillAsked, open: readonly number[], out: Branch['out']): Branch {
  const { spots, most } = asked;
  const gone = new Set(out.map(([s, p]) => `${s}|${p}`));
  const pinned = spots.flatMap((s) => s.pinned ?? []);
  const columns: number[] = [];
  const wanted = new Set(open.flatMap((i) => spots[i]?.options.map((o) => o.phrase) ?? []));
  for (const phrase of [...wanted].sort((a, b) => a - b)) {
    const left = Math.min(open.length, most(phrase) - pinned.filter((p) => p === phrase).length);
    for (let n = 0; n < left; n++) columns.push(phrase);
  }
  const costs = open.map((spot, row) => {
    const chances = new Map((spots[spot]?.options ?? []).map((o) => [o.phrase, o.chance]));
    return [
      ...columns.map((p) => {
        const chance = chances.get(p);
        return chance === undefined || gone.has(`${spot}|${p}`) ? Infinity : costOf(chance);
      }),
      // Each spot has a column of its own for staying empty.
      ...open.map((_, i) => (i === row && !gone.has(`${spot}|-1`) ? EMPTY : Infinity)),
    ];
  });
  const found = open.length === 0 ? { columns: [], cost: 0 } : assign(costs);
  const chosen = spots.map((s) => s.pinned);
  if (found) open.forEach((spot, row) => (chosen[spot] = columns[found.columns[row] ?? -1] ?? null));
  return { out, cost: found ? found.cost : Infinity, chosen };
}

/** The same with one of alike neighbours left empty: it keeps the law, and may not be the best. */
function mended(asked: FillAsked, branch: Branch): Branch {
  const chosen = [...branch.chosen];
  let cost = branch.cost;
  for (let pair = alikePair(asked, chosen); pair !== null; pair = alikePair(asked, chosen)) {
    const spot = asked.spots[pair + 1]?.pinned === null ? pair + 1 : pair;
    const own = asked.spots[spot]?.options.find((o) => o.phrase === chosen[spot]);
    cost += EMPTY - costOf(own?.chance ?? LEAST);
    chosen[spot] = null;
  }
  return { ...branch, cost, chosen };
}
