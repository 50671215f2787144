/** A space in slots as groups of allowed sizes, in order. */
export interface Partitions {
  /** The best, best first. */
  readonly best: readonly (readonly number[])[];
  /** How many there are; when `complete` is false, at least so many. */
  readonly found: number;
  readonly complete: boolean;
}

/** How many are looked at and shown at the most. */
export const PARTITION_LIMITS = Object.freeze({ found: 12_000, best: 200, slots: 512 });

/**
 * Every way to fill a space of `slots` with groups of the given sizes, the best first: fewest different sizes, then the
 * odd one at the end, then symmetric ones, then those of several sizes whose groups begin most often on a downbeat
 * (every `beat` slots), then fewer and larger groups. Stops at 12,000 and says so; shows at most 200. No sizes, or a
 * space nothing fits, give an empty list.
 * @example
 * partitions(10, [5, 2], 4).best // => [[5, 5], [2, 2, 2, 2, 2]]
 * partitions(8, [3, 2], 4).best // => [[2, 2, 2, 2], [3, 3, 2], [3, 2, 3], [2, 3, 3]]
 */
export function partitions(slots: number, sizes: readonly number[], beat: number): Partitions {
  const allowed = [...new Set(sizes.filter((s) => Number.isInteger(s) && s > 0 && s <= slots))].sort((a, b) => b - a);
  if (allowed.length === 0 || slots > PARTITION_LIMITS.slots)
    return { best: [], found: 0, complete: slots <= PARTITION_LIMITS.slots };
  const all: number[][] = [];
  let complete = true;
  // Fewest different sizes first, so that what is cut off by the bound is what would rank last.
  for (let different = 1; different <= allowed.length && complete; different++) {
    for (const choice of choices(allowed, different)) {
      if (!fill(slots, choice, all)) {
        complete = false;
        break;
      }
    }
  }
  const keyed = all.map((groups) => ({ groups, key: rank(groups, beat) })).sort((a, b) => compare(a.key, b.key));
  return { best: keyed.slice(0, PARTITION_LIMITS.best).map((k) => k.groups), found: all.length, complete };
}

/** Subsets of `n` sizes, those with larger sizes first. */
function choices(sizes: readonly number[], n: number): number[][] {
  if (n === 0) return [[]];
  return sizes.flatMap((size, i) => choices(sizes.slice(i + 1), n - 1).map((rest) => [size, ...rest]));
}

/** Adds every order of groups that uses all sizes of the choice. False when the bound was reached. */
function fill(slots: number, choice: readonly number[], all: number[][]): boolean {
  const groups: number[] = [];
  const used = new Map(choice.map((c) => [c, 0]));
  let missing = choice.length;
  const smallest = choice.at(-1) ?? 1;
  const step = (left: number): boolean => {
    if (left === 0) {
      if (missing === 0) all.push([...groups]);
      return all.length < PARTITION_LIMITS.found;
    }
    if (left < smallest) return true;
    for (const size of choice) {
      if (size > left) continue;
      const before = used.get(size) ?? 0;
      used.set(size, before + 1);
      if (before === 0) missing--;
      groups.push(size);
      const go = step(left - size);
      groups.pop();
      used.set(size, before);
      if (before === 0) missing++;
      if (!go) return false;
    }
    return true;
  };
  return step(slots);
}

type Key = readonly number[];

function rank(groups: readonly number[], beat: number): Key {
  const different = new Set(groups).size;
  const last = groups.at(-1);
  // The odd one last: all but the end are of one size.
  const oddLast =
    different === 1 || (different === 2 && groups.slice(0, -1).every((g) => g === groups[0] && g !== last));
  const symmetric = groups.every((g, i) => g === groups[groups.length - 1 - i]);
  let at = 0;
  let downbeats = 0;
  for (const g of groups) {
    if (different > 1 && at % beat === 0) downbeats++;
    at += g;
  }
  return [
    different,
    oddLast ? 0 : 1,
    symmetric ? 0 : 1,
    -downbeats / groups.length,
    groups.length,
    ...groups.map((g) => -g),
  ];
}

function compare(a: Key, b: Key): number {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    const d = (a[i] ?? 0) - (b[i] ?? 0);
    if (d !== 0) return d;
  }
  return a.length - b.length;
}
