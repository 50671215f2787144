import { NO_BEST, type Best } from '@core/drill';
import { packOf, searched, withTop, type Entry } from './entries';
import type { PackedEntry } from './entry';

const { compare } = new Intl.Collator();

/** The entries of the index in the order of their names, found by their ids; and which packs of them changed. */
export class EntryTable {
  private list: Entry[] = [];
  private placeOf: ReadonlyMap<string, number> = new Map();
  private readonly changed = new Set<number>();

  get all(): readonly Entry[] {
    return this.list;
  }

  get places(): ReadonlyMap<string, number> {
    return this.placeOf;
  }

  of(id: string): Entry | undefined {
    const place = this.placeOf.get(id);
    return place === undefined ? undefined : this.list[place];
  }

  at(place: number): Entry | undefined {
    return this.list[place];
  }

  /** Puts all entries in place, in the order of their names. */
  put(entries: readonly PackedEntry[]): void {
    this.list = entries.map((e): Entry => ('text' in e ? (e as Entry) : searched(e, NO_BEST)));
    this.list.sort((a, b) => compare(a.name, b.name));
    this.placeOf = new Map(this.list.map((e, i) => [e.id, i]));
  }

  /** Another account of an entry that keeps its name, and so its place. It is kept with the next pack. */
  set(entry: Entry): void {
    if (this.show(entry)) this.touch(entry.id);
  }

  /** The same for what is kept elsewhere, or follows from it. */
  show(entry: Entry): boolean {
    const place = this.placeOf.get(entry.id);
    if (place !== undefined) this.list[place] = entry;
    return place !== undefined;
  }

  /** What each adds up to, by what is kept beside the tries. */
  withBest(best: ReadonlyMap<string, Best>): void {
    this.list = this.list.map((e) => withTop({ ...e, best: best.get(e.id) ?? NO_BEST }));
  }

  map(change: (entry: Entry) => Entry): void {
    this.list = this.list.map(change);
  }

  /** An entry is to be kept anew with its pack. */
  touch(id: string): void {
    this.changed.add(packOf(id));
  }

  /** The packs that changed since they were taken last. */
  takeChanged(): readonly number[] {
    const all = [...this.changed];
    this.changed.clear();
    return all;
  }

  /** Packs that could not be kept. */
  putBack(packs: readonly number[]): void {
    packs.forEach((n) => this.changed.add(n));
  }
}
