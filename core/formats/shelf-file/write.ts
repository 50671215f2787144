import type { Attempt, DrillState } from '../../drill';
import type { Kits } from '../../kit';
import type { Profile } from '../../reach';
import type { Phrase } from '../../recipe';
import { SHELF_FORMAT, SHELF_VERSION, type Settings, type ShelfFile } from './schema';

/** What of a shelf goes into a file. */
export interface ShelfContents {
  readonly phrases: readonly Phrase[];
  readonly attempts: readonly Attempt[];
  readonly drills: readonly DrillState[];
  readonly settings?: Settings;
  readonly kits?: Kits;
  readonly profile?: Profile;
}

/** The text of a shelf file: everything in the order of its ids, so that the same shelf always gives the same file. */
export function writeShelf(shelf: ShelfContents): string {
  const byId = <T extends { readonly id: string }>(list: readonly T[]): T[] =>
    [...list].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
  const file: ShelfFile = {
    format: SHELF_FORMAT,
    version: SHELF_VERSION,
    phrases: byId(shelf.phrases),
    attempts: byId(shelf.attempts),
    drills: byId(shelf.drills),
    ...(shelf.settings ? { settings: shelf.settings } : {}),
    ...(shelf.kits ? { kits: shelf.kits } : {}),
    ...(shelf.profile ? { profile: shelf.profile } : {}),
  };
  return `${JSON.stringify(file, null, 1)}\n`;
}

/** The same shelf with all its times moved by a number of milliseconds: how a demo shelf stays six weeks old. */
export function shiftedShelf(file: ShelfFile, by: number): ShelfFile {
  const attempt = (a: Attempt): Attempt => ({ ...a, at: a.at + by });
  return {
    ...file,
    phrases: file.phrases.map((p) => ({ ...p, created: p.created + by, changed: p.changed + by })),
    attempts: file.attempts.map(attempt),
    drills: file.drills.map((d) => ({
      ...d,
      attempts: d.attempts.map(attempt),
      tryBegan: d.tryBegan === null ? null : d.tryBegan + by,
    })),
  };
}
