import { parseGrid } from '../time';
import { TRAIT_ORDER, type Trait, type Traits } from '../shelf';

/** A phrase as the map sees it: its traits, how ready it is, when it was played last. */
export interface Mapped {
  readonly id: string;
  readonly name: string;
  readonly traits: Traits;
  /** The tempo that is ready as a share of its ceiling, 0–1; null where nothing is ready. */
  readonly share: number | null;
  /** The practice day on which it was played last; null before any try. */
  readonly last: number | null;
}

/** A square of the map: the phrases that have both traits. */
export interface Square {
  readonly row: string;
  readonly column: string;
  readonly ids: readonly string[];
  /** The readiest of them, and its share; null where none is ready. */
  readonly readiest: { readonly id: string; readonly share: number } | null;
  readonly last: number | null;
}

/** The map: two traits, the words of each that stand on its axes, and the squares that are not empty. */
export interface ShelfMap {
  readonly traits: readonly [Trait, Trait];
  readonly rows: readonly string[];
  readonly columns: readonly string[];
  readonly squares: readonly Square[];
  /** Empty squares that have a ready phrase in their row or column, one change away from it. */
  readonly empty: readonly { readonly row: string; readonly column: string; readonly from: readonly string[] }[];
}

/** From this share of its ceiling on a phrase is ready to be built on. */
export const BUILT_ON = 0.55;
/** So many ready phrases are named for an empty square, the readiest first. */
const MOST_FROM = 4;

/** The words of an axis in order: those that occur, and of a trait with an order of its own all between them. */
function axisOf(trait: Trait, said: ReadonlySet<string>): readonly string[] {
  const order = TRAIT_ORDER[trait];
  if (order) return order.filter((w) => said.has(w));
  const grid = (w: string): number => parseGrid(w) ?? 0;
  return [...said].sort((a, b) => grid(b) - grid(a) || a.localeCompare(b, 'en', { numeric: true }));
}

/**
 * The map of phrases by two traits. Its squares hold every phrase once; empty ones are told where a ready phrase has
 * one of their traits. Of no phrases it has no rows.
 * @example
 * mapOf([], 'grid', 'lead').rows // => []
 */
export function mapOf(phrases: readonly Mapped[], row: Trait, column: Trait): ShelfMap {
  const found = new Map<
    string,
    { row: string; column: string; ids: string[]; readiest: Square['readiest']; last: number | null }
  >();
  for (const { id, traits, share, last } of phrases) {
    const [r, c] = [traits[row], traits[column]];
    const key = `${r}|${c}`;
    const own = found.get(key) ?? { row: r, column: c, ids: [], readiest: null, last: null };
    own.ids.push(id);
    if (share !== null && (own.readiest === null || share > own.readiest.share)) own.readiest = { id, share };
    if (last !== null) own.last = Math.max(own.last ?? last, last);
    found.set(key, own);
  }
  const rows = axisOf(row, new Set(phrases.map((p) => p.traits[row])));
  const columns = axisOf(column, new Set(phrases.map((p) => p.traits[column])));
  const ready = phrases
    .filter((p) => p.share !== null && p.share >= BUILT_ON)
    .sort((a, b) => (b.share ?? 0) - (a.share ?? 0));
  const empty = rows.flatMap((r) =>
    columns.flatMap((c) => {
      if (found.has(`${r}|${c}`)) return [];
      const from = ready.filter((p) => p.traits[row] === r || p.traits[column] === c).slice(0, MOST_FROM);
      return from.length > 0 ? [{ row: r, column: c, from: from.map((p) => p.id) }] : [];
    }),
  );
  return { traits: [row, column], rows, columns, squares: [...found.values()], empty };
}
