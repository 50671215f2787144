import type { ShelfSort } from './entry';
import type { Entry } from './entries';

/**
 * Places of entries in another order. The list lies in the order of names, and sorting keeps it where nothing else
 * decides.
 */
export function sortedPlaces(
  entries: readonly Entry[],
  places: readonly number[],
  sort: ShelfSort,
  descending: boolean,
): number[] {
  const named = [...places].sort((a, b) => a - b);
  if (sort === 'family') return named;
  if (sort === 'name') return descending ? named.reverse() : named;
  const sign = descending ? -1 : 1;
  const of = (i: number): number => {
    const entry = entries[i];
    return entry ? numberOf(entry, sort) : -1;
  };
  return named.sort((a, b) => sign * (of(a) - of(b)) || a - b);
}

function numberOf(e: Entry, sort: Exclude<ShelfSort, 'family' | 'name'>): number {
  switch (sort) {
    case 'goal':
      return e.goal;
    case 'clean':
      return e.best.clean ?? 0;
    case 'to go':
      return e.goal - (e.best.clean ?? 0);
    case 'played':
      return e.best.lastAt ?? 0;
    case 'newest':
      return e.created;
    case 'ceiling':
      // What nothing limits comes with the fastest, without being beyond all numbers.
      return e.top?.bpm ?? 1e6;
    case 'ready':
      return e.believed?.ready.kind === 'ready' ? e.believed.ready.bpm : 0;
    case 'length':
      return e.facts?.length ?? 0;
  }
}
