/** What some minutes of one thing are worth, and the load they put on the hands, in whole units. */
export interface Length {
  readonly minutes: number;
  readonly value: number;
  readonly load: number;
}

/** Something that may be practised: for one of its lengths, or not at all. */
export interface Choosable<L extends Length = Length> {
  readonly id: string;
  readonly lengths: readonly L[];
}

export interface Chosen<L extends Length = Length> {
  readonly id: string;
  readonly length: L;
}

/** A way to fill some minutes; `before` is the way it was grown from. */
interface Way {
  readonly value: number;
  readonly load: number;
  readonly chosen: { readonly id: string; readonly length: Length } | null;
  readonly before: Way | null;
}

const NOTHING: Way = { value: 0, load: 0, chosen: null, before: null };

/**
 * The choice that is worth most within some whole minutes and a load: each thing for one of its lengths or not at all,
 * by dynamic programming. Exact, and of equal choices always the same one. `load` is null where it does not matter.
 * @example
 * chosen([{ id: 'a', lengths: [{ minutes: 3, value: 5, load: 1 }] }], 3, null).map((c) => c.id) // => ["a"]
 * chosen([{ id: 'a', lengths: [{ minutes: 3, value: 5, load: 1 }] }], 2, null) // => []
 * chosen([{ id: 'a', lengths: [{ minutes: 3, value: 5, load: 2 }] }], 3, 1) // => []
 */
export function chosen<L extends Length>(
  items: readonly Choosable<L>[],
  minutes: number,
  load: number | null,
): readonly Chosen<L>[] {
  const free = best(worthLookingAt(items, minutes, false), minutes, null);
  if (load === null || free.load <= load) return chain<L>(free);
  return chain<L>(best(worthLookingAt(items, minutes, true), minutes, Math.max(0, load)));
}

function best(items: readonly Choosable[], minutes: number, load: number | null): Way {
  // For each number of minutes the ways that are not outdone: of one load the most value, of more load only more value.
  let ways: readonly (readonly Way[])[] = Array.from({ length: minutes + 1 }, () => [NOTHING]);
  for (const { id, lengths } of items) {
    const fit = lengths.filter((l) => l.minutes <= minutes && l.value > 0 && (load === null || l.load <= load));
    if (fit.length === 0) continue;
    ways = ways.map((own, at) => {
      let all: Way[] | null = null;
      for (const length of fit) {
        const rest = ways[at - length.minutes];
        if (!rest) continue;
        for (const before of rest) {
          const sum = before.load + length.load;
          if (load !== null && sum > load) continue;
          const value = before.value + length.value;
          if (load === null && value <= ((all ?? own)[0]?.value ?? 0)) continue;
          const way: Way = { value, load: sum, chosen: { id, length }, before };
          if (load === null) all = [way];
          else (all ??= [...own]).push(way);
        }
      }
      return all === null ? own : load === null ? all : notOutdone(all);
    });
  }
  const last = ways[minutes] ?? [NOTHING];
  return last.reduce((a, b) => (b.value > a.value ? b : a), NOTHING);
}

function notOutdone(ways: readonly Way[]): readonly Way[] {
  const sorted = [...ways].sort((a, b) => a.load - b.load || b.value - a.value);
  const kept: Way[] = [];
  for (const way of sorted) if (way.value > (kept.at(-1)?.value ?? -1)) kept.push(way);
  return kept;
}

function chain<L extends Length>(way: Way): readonly Chosen<L>[] {
  const out: Chosen<L>[] = [];
  for (let w: Way | null = way; w?.chosen; w = w.before) out.unshift(w.chosen as Chosen<L>);
  return out;
}

/**
 * The things that can be in the best choice. As many blocks as fit: where so many others of the same length are worth
 * no less, and are no heavier, one of them is free to take its place.
 */
function worthLookingAt<L extends Length>(
  items: readonly Choosable<L>[],
  minutes: number,
  byLoad: boolean,
): readonly Choosable<L>[] {
  const least = Math.min(...items.flatMap((i) => i.lengths.map((l) => l.minutes)));
  const most = Math.floor(minutes / Math.max(1, least));
  if (items.length <= most) return items;
  const byLength = new Map<number, { readonly item: number; readonly length: L }[]>();
  items.forEach((one, item) => {
    for (const length of one.lengths) {
      const same = byLength.get(length.minutes);
      if (same) same.push({ item, length });
      else byLength.set(length.minutes, [{ item, length }]);
    }
  });
  const kept = new Map<number, L[]>();
  for (const same of byLength.values()) {
    same.sort((a, b) => b.length.value - a.length.value || a.item - b.item);
    const loads: number[] = [];
    for (const { item, length } of same) {
      const better = byLoad ? loads.reduce((n, l) => n + (l <= length.load ? 1 : 0), 0) : loads.length;
      if (better < most) kept.set(item, [...(kept.get(item) ?? []), length]);
      else if (!byLoad) break;
      loads.push(length.load);
    }
  }
  return items.flatMap((one, i) => {
    const lengths = kept.get(i);
    return lengths ? [{ ...one, lengths }] : [];
  });
}
