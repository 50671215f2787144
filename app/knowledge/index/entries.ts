import { shownTempo, type Best } from '@core/drill';
import { topOf, type Top } from '@core/reach';
import type { Phrase } from '@core/recipe';
import { factsKey, type Asked } from '@core/shelf';
import { folded } from '@core/language';
import { now } from '../../environment/clock';
import type { Believed, PackedEntry } from './entry';

/** The index is kept in so many rows. */
const PACKS = 64;

/** An entry as it is searched. */
export interface Entry extends PackedEntry, Omit<Asked, keyof PackedEntry> {
  readonly top: Top | null;
  readonly best: Best;
  readonly believed: Believed | null;
  /** The goal it has by itself: its goal is that unless a show wants another. */
  readonly own: Pick<PackedEntry, 'goal' | 'by'>;
}

/** In which row of the cache an entry is kept. */
export function packOf(id: string): number {
  let sum = 0;
  for (let i = 0; i < id.length; i++) sum = (sum * 31 + id.charCodeAt(i)) >>> 0;
  return sum % PACKS;
}

/** The entry of a phrase; what was worked out of the same recipe before is kept. */
export function entryFrom(phrase: Phrase, best: Best, before: Entry | undefined): Entry {
  const key = factsKey(phrase.recipe);
  const same = before?.key === key ? before : null;
  const { id, changed, created, name, family, tags = [], note, goal, by = null, parent = null } = phrase;
  const facts = same?.facts ?? null;
  const ceiling = same?.ceiling ?? null;
  return searched({ id, changed, created, name, family, tags, note, goal, by, parent, key, facts, ceiling }, best);
}

/** A kept entry, ready to be searched. */
export function searched(entry: PackedEntry, best: Best): Entry {
  const text = folded(`${entry.name}\n${entry.tags.join(' ')}\n${entry.note}`);
  const own = { goal: entry.goal, by: entry.by };
  return { ...entry, text, best, top: topFor(entry, best), believed: null, own };
}

/** An entry with its highest tempo anew: after its ceiling or its tries changed. */
export function withTop(entry: Entry): Entry {
  return { ...entry, top: topFor(entry, entry.best) };
}

function topFor({ ceiling, changed }: PackedEntry, { shown = [] }: Best): Top | null {
  return ceiling && topOf(ceiling, [], shownTempo(shown, changed, now()), ceiling.taught);
}

/** An entry as it is kept: without what can be had again at once. */
export function packed(entry: Entry): PackedEntry {
  const { id, changed, created, name, family, tags, note, parent, key, facts, ceiling } = entry;
  const { goal, by } = entry.own;
  return { id, changed, created, name, family, tags, note, goal, by, parent, key, facts, ceiling };
}
