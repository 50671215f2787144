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
  return best(worthLookingAt(items, minutes, load), minutes, load);
}

/** The table of all minutes and loads, thing by thing, and the way back through it. */
function best<L extends Length>(
  items: readonly Choosable<L>[],
  minutes: number,
  load: number | null,
): readonly Chosen<L>[] {
  const loads = load === null ? 1 : Math.max(0, Math.floor(load)) + 1;
  const cells = (minutes + 1) * loads;
  // What can be had with so many minutes and so much load at the most, of the things looked at so far.
  let values = new Float64Array(cells);
  const picked: Uint16Array[] = [];
  const lean = items.map((i) => ({ ...i, lengths: leanest(i.lengths) }));
  for (const { lengths } of lean) {
    const next = values.slice();
    const own = new Uint16Array(cells);
    lengths.forEach((length, n) => {
      const heavy = load === null ? 0 : length.load;
      if (length.value <= 0 || length.minutes > minutes || heavy >= loads) return;
      for (let m = length.minutes; m <= minutes; m++) {
        const [to, from] = [m * loads, (m - length.minutes) * loads - heavy];
        for (let l = heavy; l < loads; l++) {
          const value = (values[from + l] ?? 0) + length.value;
          if (value > (next[to + l] ?? 0)) {
            next[to + l] = value;
            own[to + l] = n + 1;
          }
        }
      }
    });
    values = next;
    picked.push(own);
  }
  const out: Chosen<L>[] = [];
  let [m, l] = [minutes, loads - 1];
  for (let i = items.length - 1; i >= 0; i--) {
    const item = lean[i];
    const length = item?.lengths[(picked[i]?.[m * loads + l] ?? 0) - 1];
    if (!item || !length) continue;
    out.unshift({ id: item.id, length });
    m -= length.minutes;
    if (load !== null) l -= length.load;
  }
  return out;
}

/** Of lengths that are as long and as heavy the one that is worth most: what is new is one thing with many of them. */
function leanest<L extends Length>(lengths: readonly L[]): readonly L[] {
  const best = new Map<number, L>();
  for (const one of lengths) {
    const key = one.minutes * 100_000 + one.load;
    const before = best.get(key);
    if (!before || one.value > before.value) best.set(key, one);
  }
  return [...best.values()];
}

/**
 * The things that can be in the best choice. As many blocks as fit: where so many others of the same length are worth
 * no less, and are no heavier, one of them is free to take its place.
 */
function worthLookingAt<L extends Length>(
  items: readonly Choosable<L>[],
  minutes: number,
  load: number | null,
): readonly Choosable<L>[] {
  const least = Math.min(...items.flatMap((i) => i.lengths.map((l) => l.minutes)));
  const lightest = Math.min(...items.flatMap((i) => i.lengths.map((l) => l.load)));
  const byLoad = load !== null;
  // No more blocks fit than minutes allow, nor than the load does where each has one.
  const most = Math.min(
    Math.floor(minutes / Math.max(1, least)),
    byLoad && lightest > 0 ? Math.floor(load / lightest) : Infinity,
  );
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
