/** The file in a folder of the player's own that follows the shelf. */
export const FOLDER_FILE = 'loop-shelf.json';
/** How many dated days stand beside it. */
export const FOLDER_DAYS = 7;

/** What a file in the folder is: the shelf, one of its days, a copy that a service for synchronising made, or other. */
export type FolderEntry =
  | { readonly kind: 'shelf' | 'copy' | 'other' }
  /** ISO 8601, as "2026-12-02". */
  | { readonly kind: 'day'; readonly day: string };

/**
 * What a file in the folder is, by its name. Services that synchronise name what they could not merge by the file and a
 * mark: a number or “conflict” in brackets or behind a sign.
 * @example
 * folderEntry('loop-shelf.json') // => { kind: "shelf" }
 * folderEntry('loop-shelf day 2026-12-02.json') // => { kind: "day", day: "2026-12-02" }
 * folderEntry('loop-shelf (1).json') // => { kind: "copy" }
 * folderEntry("loop-shelf (Mara's conflicted copy 2026-12-02).json") // => { kind: "copy" }
 * folderEntry('loop-shelf.sync-conflict-20261202-081500-ABC.json') // => { kind: "copy" }
 * folderEntry('loop-shelf-12-phrases.json') // => { kind: "other" }
 * folderEntry('taxes.json') // => { kind: "other" }
 */
export function folderEntry(name: string): FolderEntry {
  if (name === FOLDER_FILE) return { kind: 'shelf' };
  const day = /^loop-shelf day (\d{4}-\d\d-\d\d)\.json$/.exec(name)?.[1];
  if (day !== undefined) return { kind: 'day', day };
  const mark = /^loop-shelf(?: day \d{4}-\d\d-\d\d)?(.+)\.json$/i.exec(name)?.[1] ?? '';
  const isCopy =
    /^\s*[([].{1,80}[)\]]$/.test(mark) || /conflict/i.test(mark) || /^ \d{1,2}$/.test(mark) || /^ - copy/i.test(mark);
  return { kind: isCopy ? 'copy' : 'other' };
}

/**
 * The name of the file of a day, from its ISO date.
 * @example
 * dayFile('2026-12-02') // => "loop-shelf day 2026-12-02.json"
 */
export function dayFile(day: string): string {
  return `loop-shelf day ${day}.json`;
}

/**
 * The days that go: all but the newest seven. Other files are never among them.
 * @example
 * staleDays(['loop-shelf day 2026-12-01.json', 'loop-shelf.json']) // => []
 */
export function staleDays(names: readonly string[]): readonly string[] {
  return names
    .filter((n) => folderEntry(n).kind === 'day')
    .sort()
    .reverse()
    .slice(FOLDER_DAYS);
}

/**
 * Whether it is time to say that nothing was exported for long: two weeks have passed since, and something changed.
 * @param exported when the last export or backup was saved, in milliseconds since 1970; null where none was
 * @param began when the first phrase was kept; null on an empty shelf
 * @param changed when something was kept or played last; null where nothing was
 * @example
 * isExportDue({ exported: null, began: 0, changed: 5 }, 15 * 86400000) // => true
 * isExportDue({ exported: 86400000, began: 0, changed: 5 }, 30 * 86400000) // => false
 */
export function isExportDue(
  { exported, began, changed }: { exported: number | null; began: number | null; changed: number | null },
  now: number,
): boolean {
  if (began === null || changed === null) return false;
  return now - (exported ?? began) > EXPORT_AFTER && changed > (exported ?? -1);
}

const EXPORT_AFTER = 14 * 24 * 60 * 60 * 1000;
