/** A space in slots as groups of allowed sizes, in order. */
export interface Partitions {
  /** The best, best first: of all there are where `ranked` is true, else of those that were looked at. */
  readonly best: readonly (readonly number[])[];
  /** How many there are; when `complete` is false, at least so many. */
  readonly found: number;
  readonly complete: boolean;
  readonly ranked: boolean;
}

/** How many are listed at the most, how many are looked at, and how many are shown. */
export const PARTITION_LIMITS = Object.freeze({ found: 12_000, looked: 40_000, best: 200, slots: 512 });

/**
 * Every way to fill a space of `slots` with groups of the given sizes, the best first: fewest different sizes, then the
 * odd one at the end, then symmetric ones, then those of several sizes whose groups begin most often on a downbeat
 * (every `beat` slots), then fewer and larger groups. Shows at most 200. Where there are more than 12,000 they are not
 * all made: those that rank first are made by their kind, so that the order holds all the same. No sizes, or a space
 * nothing fits, give an empty list.
 * @example
 * partitions(10, [5, 2], 4).best // => [[5, 5], [2, 2, 2, 2, 2]]
 * partitions(8, [3, 2], 4).best // => [[2, 2, 2, 2], [3, 3, 2], [3, 2, 3], [2, 3, 3]]
 */
export function partitions(slots: number, sizes: readonly number[], beat: number): Partitions {
  const allowed = [...new Set(sizes.filter((s) => Number.isInteger(s) && s > 0 && s <= slots))].sort((a, b) => b - a);
  const fits = slots <= PARTITION_LIMITS.slots;
  const many = fits ? howMany(slots, allowed) : 0;
  if (many === 0) return { best: [], found: 0, complete: fits, ranked: true };
  const complete = many <= PARTITION_LIMITS.found;
  const best = new Best(beat);
  let ranked = true;
  // Fewest different sizes first: what comes after ranks after.
  for (let different = 1; different <= allowed.length && ranked && !best.isFull(); different++) {
    const own = choices(allowed, different);
    if (!complete) {
      for (const choice of own) ranked = kinds(slots, choice, best) && ranked;
      if (best.isFull()) break;
    }
    for (const choice of own) ranked = fill(slots, choice, best) && ranked;
  }
  return { best: best.list(), found: Math.min(many, PARTITION_LIMITS.found), complete, ranked };
}

/** How many orders of groups there are: by the size of the last one. */
function howMany(slots: number, sizes: readonly number[]): number {
  const ways = [1];
  for (let n = 1; n <= slots; n++) ways.push(sizes.reduce((sum, s) => sum + (ways[n - s] ?? 0), 0));
  return ways[slots] ?? 0;
}

/** The best so far, each once; what ranks behind the last that is shown is let go. */
class Best {
  private readonly kept = new Map<string, { readonly groups: readonly number[]; readonly key: Key }>();
  private worst: Key | null = null;

  private looked = 0;

  constructor(private readonly beat: number) {}

  /** Counts one that is looked at; false when it was the last. */
  look(): boolean {
    return ++this.looked < PARTITION_LIMITS.looked;
  }

  add(groups: readonly number[]): void {
    const key = rank(groups, this.beat);
    if (this.worst && compare(key, this.worst) > 0) return;
    this.kept.set(groups.join(), { groups: [...groups], key });
    if (this.kept.size >= PARTITION_LIMITS.best * 2) this.trim();
  }

  isFull(): boolean {
    return this.kept.size >= PARTITION_LIMITS.best;
  }

  list(): readonly (readonly number[])[] {
    return this.trim().map((k) => k.groups);
  }

  private trim(): readonly { readonly groups: readonly number[]; readonly key: Key }[] {
    const sorted = [...this.kept.values()].sort((a, b) => compare(a.key, b.key)).slice(0, PARTITION_LIMITS.best);
    this.kept.clear();
    sorted.forEach((k) => this.kept.set(k.groups.join(), k));
    this.worst = sorted.length === PARTITION_LIMITS.best ? (sorted.at(-1)?.key ?? null) : null;
    return sorted;
  }
}

/** The kinds that rank first, of one choice of sizes: the odd one last, and symmetric ones. False when not all. */
function kinds(slots: number, choice: readonly number[], best: Best): boolean {
  const [a, b] = choice;
  if (a !== undefined && b !== undefined && choice.length === 2)
    for (const [many, odd] of [
      [a, b],
      [b, a],
    ] as const)
      if (slots > odd && (slots - odd) % many === 0)
        best.add([...Array.from({ length: (slots - odd) / many }, () => many), odd]);
  let all = true;
  for (const middle of [0, ...choice]) {
    if ((slots - middle) % 2 !== 0 || slots < middle) continue;
    const half = (slots - middle) / 2;
    const centre = middle === 0 ? [] : [middle];
    all =
      walk(half, choice, best, (groups) => {
        const whole = [...groups, ...centre, ...[...groups].reverse()];
        if (choice.every((c) => whole.includes(c))) best.add(whole);
      }) && all;
  }
  return all;
}

/** Every order of groups of these sizes that fills a space. False when there are more than are looked at. */
function walk(slots: number, sizes: readonly number[], best: Best, each: (groups: readonly number[]) => void): boolean {
  const groups: number[] = [];
  const step = (left: number): boolean => {
    if (left === 0) {
      each(groups);
      return best.look();
    }
    for (const size of sizes) {
      if (size > left) continue;
      groups.push(size);
      const go = step(left - size);
      groups.pop();
      if (!go) return false;
    }
    return true;
  };
  return step(slots);
}

/** Every order of groups that uses all sizes of the choice. False when there are more than are looked at. */
function fill(slots: number, choice: readonly number[], best: Best): boolean {
  return walk(slots, choice, best, (groups) => {
    if (choice.every((c) => groups.includes(c))) best.add(groups);
  });
}

/** Subsets of `n` sizes, those with larger sizes first. */
function choices(sizes: readonly number[], n: number): number[][] {
  if (n === 0) return [[]];
  return sizes.flatMap((size, i) => choices(sizes.slice(i + 1), n - 1).map((rest) => [size, ...rest]));
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
