import { Checksum } from '../../base';
import type { Attempt } from '../../drill';
import type { KeptLesson } from '../../lesson';
import { EMPTY_SHELF, type ShelfContents } from '../../shelf';
import { SHELF_FORMAT, SHELF_VERSION } from './schema';

/** The lists of a shelf file, in the order in which they stand in it. */
export const FILE_LISTS = [
  'phrases',
  'attempts',
  'drills',
  'takes',
  'states',
  'removals',
  'boards',
  'shows',
  'showStates',
  'freeSittings',
  'lessons',
  'clips',
  'named',
] as const;
export type FileList = (typeof FILE_LISTS)[number];
/** Those that came later than the version of the file. */
const LATER: ReadonlySet<FileList> = new Set(['clips', 'shows', 'showStates', 'freeSittings', 'lessons']);

/**
 * The text of a shelf file, piece by piece: one row a line, everything in the order of its ids, so that the same shelf
 * always gives the same file, and a file of any size can be read a line at a time. It is plain JSON.
 */
export function* shelfLines(shelf: Partial<ShelfContents>): Generator<string> {
  const sum = new Checksum();
  const told = (text: string): string => {
    sum.add(text);
    return text;
  };
  yield told(`{"format":"${SHELF_FORMAT}","version":${SHELF_VERSION},\n`);
  const { others, ...lists } = { ...EMPTY_SHELF, ...shelf };
  for (const name of FILE_LISTS) {
    const rows = [...(lists[name] as readonly Row[])].sort((a, b) => (idOf(a) < idOf(b) ? -1 : 1));
    // A shelf without them is written as before there were any.
    if (LATER.has(name) && rows.length === 0) continue;
    yield told(`"${name}":[\n`);
    for (const [i, row] of rows.entries()) yield told(`${JSON.stringify(row)}${i < rows.length - 1 ? ',' : ''}\n`);
    yield told('],\n');
  }
  for (const [key, value] of Object.entries(others)) {
    if (!isOwnField(key)) yield told(`${JSON.stringify(key)}:${JSON.stringify(value)},\n`);
  }
  yield `"checksum":"${sum.toString()}"\n}\n`;
}

type Row = { readonly id: string } | { readonly key: string };

function idOf(row: Row): string {
  return 'id' in row ? row.id : row.key;
}

/** Whether a field of the file is one that this version writes itself. */
export function isOwnField(key: string): boolean {
  return ['format', 'version', 'checksum', ...FILE_LISTS].includes(key);
}

/** The text of a shelf file as a whole. */
export function writeShelf(shelf: Partial<ShelfContents>): string {
  return [...shelfLines(shelf)].join('');
}

const DAY = 24 * 60 * 60 * 1000;

/** The same shelf with all its times moved by a number of milliseconds: how a demo shelf stays six weeks old. */
export function shiftedShelf(shelf: ShelfContents, by: number): ShelfContents {
  const attempt = (a: Attempt): Attempt => ({ ...a, at: a.at + by });
  const days = Math.round(by / DAY);
  return {
    ...shelf,
    phrases: shelf.phrases.map((p) => ({
      ...p,
      created: p.created + by,
      changed: p.changed + by,
      ...(p.by ? { by: { ...p.by, day: p.by.day + days } } : {}),
    })),
    shows: shelf.shows.map((s) => ({ ...s, changed: s.changed + by, day: s.day === null ? null : s.day + days })),
    freeSittings: shelf.freeSittings.map((s) => ({ ...s, at: s.at + by, changed: s.changed + by })),
    lessons: shelf.lessons.map((l) => shiftedLesson(l, by, days)),
    attempts: shelf.attempts.map(attempt),
    drills: shelf.drills.map((d) => ({
      ...d,
      attempts: d.attempts.map(attempt),
      tryBegan: d.tryBegan === null ? null : d.tryBegan + by,
    })),
  };
}

function shiftedLesson(row: KeptLesson, by: number, days: number): KeptLesson {
  const due = (day: number | null): number | null => (day === null ? null : day + days);
  const changed = row.changed + by;
  switch (row.kind) {
    case 'given':
      return { ...row, changed, made: row.made === null ? null : row.made + by, due: due(row.due) };
    case 'taken':
      return {
        ...row,
        changed,
        since: row.since + by,
        reported: row.reported === null ? null : row.reported + by,
        came: { ...row.came, made: row.came.made + by, due: due(row.came.due) },
      };
    case 'report': {
      const { report } = row;
      const items = report.items.map((i) => ({ ...i, tries: i.tries.map((t) => ({ ...t, at: t.at + by })) }));
      return { ...row, changed, report: { ...report, made: report.made + by, since: report.since + by, items } };
    }
  }
}
