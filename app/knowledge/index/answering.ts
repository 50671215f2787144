import { FAMILIES, type Family } from '@core/recipe';
import { answer, readQuestion } from '@core/shelf';
import { folded } from '@core/language';
import type { Entry } from './entries';
import type { ShelfAnswer, ShelfQuestion } from './entry';
import { scaleOf } from './row-words';
import { sortedPlaces } from './sorting';

/** What a question finds: places of entries in order, heads of families, chips. */
export function answered(
  entries: readonly Entry[],
  placeOf: ReadonlyMap<string, number>,
  { words, board, sort, descending }: ShelfQuestion,
  now: number,
  today: number,
): Pick<ShelfAnswer, 'heads' | 'chips' | 'rest' | 'scale'> & { readonly found: readonly number[] } {
  const places = board?.flatMap((id) => placeOf.get(id) ?? []);
  const listed = places?.flatMap((i) => entries[i] ?? []) ?? entries;
  const named = (name: string): Entry | null => {
    const wanted = folded(name);
    return entries.find((e) => folded(e.name) === wanted) ?? null;
  };
  const read = readQuestion(words, { now, today, named });
  const told = answer(listed, read);
  const ranked = places ? told.found.map((i) => places[i] ?? 0) : told.found;
  // A board has its own order, and words rank what they find.
  const keeps = board !== null || (read.rest.length > 0 && sort === 'family');
  const ordered = keeps ? ranked : sortedPlaces(entries, ranked, sort, descending);
  const { found, heads } =
    board === null && sort === 'family' ? byFamily(entries, ordered) : { found: ordered, heads: [] };
  return {
    found,
    heads,
    chips: read.conditions.map((c, i) => ({ words: c.words, typed: c.typed, leaves: told.leaves[i] ?? 0 })),
    rest: read.rest.join(' '),
    scale: scaleOf(lengthsOf(entries, found)),
  };
}

/** How long the phrases at some places are, in ticks; without those of which it is not known yet. */
function lengthsOf(entries: readonly Entry[], places: readonly number[]): Float64Array {
  const lengths = new Float64Array(places.length);
  let n = 0;
  for (const i of places) {
    const length = entries[i]?.facts?.length;
    if (length !== undefined) lengths[n++] = length;
  }
  return lengths.subarray(0, n);
}

/** The same places family by family, and where each family begins. */
function byFamily(
  entries: readonly Entry[],
  places: readonly number[],
): { readonly found: readonly number[]; readonly heads: ShelfAnswer['heads'] } {
  const owns = new Map(FAMILIES.map((family): [Family, number[]] => [family, []]));
  for (const i of places) {
    const entry = entries[i];
    if (entry) owns.get(entry.family)?.push(i);
  }
  const families = [...owns].map(([family, own]) => ({ family, own }));
  let at = 0;
  const heads = families.flatMap(({ family, own }) => {
    const head = { at, family, many: own.length };
    at += own.length;
    return own.length > 0 ? [head] : [];
  });
  return { found: families.flatMap((f) => f.own), heads };
}
