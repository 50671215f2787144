import { stableJson } from '@core/base';
import type { Attempt } from '@core/drill';
import { EMPTY_SHELF, type ShelfContents } from '@core/shelf';
import type { ShelfDb } from '../db';

/** Rows of the database that are compared and put one by one. */
export const ROWS = [
  'phrases',
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
  'kept',
] as const;
export type RowTable = (typeof ROWS)[number];

/** The name under which fields of a later version's file are kept. */
const OTHERS = 'file-others';
/** What is kept under a name and belongs to this browser alone. */
const LOCAL: ReadonlySet<string> = new Set(['demo-filled', 'backup', 'backup-folder', 'own-folder']);

/** All that a shelf holds but the tries, which are many. */
export async function contentsOf(db: ShelfDb): Promise<ShelfContents> {
  const all = await Promise.all([
    db.phrases.toArray(),
    db.drills.toArray(),
    db.takes.toArray(),
    db.states.toArray(),
    db.removals.toArray(),
    db.boards.toArray(),
    db.shows.toArray(),
    db.showStates.toArray(),
    db.freeSittings.toArray(),
    db.lessons.toArray(),
    db.clips.toArray(),
    db.kept.toArray(),
  ]);
  const [phrases, drills, takes, states, removals, boards, shows, showStates, freeSittings, lessons, clips, kept] = all;
  const others = kept.find((k) => k.key === OTHERS)?.value;
  return {
    ...EMPTY_SHELF,
    phrases,
    drills,
    takes,
    states,
    removals,
    boards,
    shows,
    showStates,
    freeSittings,
    lessons,
    clips,
    named: kept.filter((k) => k.key !== OTHERS && !LOCAL.has(k.key)),
    others: typeof others === 'object' && others !== null ? { ...others } : {},
  };
}

/** Every try of a shelf, by its id. */
export async function allTries(db: ShelfDb): Promise<ReadonlyMap<string, Attempt>> {
  const all = new Map<string, Attempt>();
  for (const { tries } of await db.tries.toArray()) for (const t of tries) all.set(t.id, t);
  return all;
}

/** What is to be written to each table; `now` is absent for what goes. */
export type Differences = Readonly<
  Record<RowTable, readonly { readonly key: string; readonly before: unknown; readonly now: unknown }[]>
>;

/** Row by row, what is to be written so that one shelf becomes the other; `now` is absent for what goes. */
export function differences(before: ShelfContents, after: ShelfContents): Differences {
  const named = (s: ShelfContents): readonly object[] => [
    ...s.named,
    ...(Object.keys(s.others).length > 0 ? [{ key: OTHERS, value: s.others }] : []),
  ];
  const of = (a: readonly object[], b: readonly object[], key: 'id' | 'key') => {
    const keyOf = (row: object): string => String(new Map(Object.entries(row)).get(key));
    const old = new Map(a.map((row) => [keyOf(row), row]));
    const next = new Map(b.map((row) => [keyOf(row), row]));
    const changed = [...next].flatMap(([k, row]) => {
      const was = old.get(k);
      return was && (was === row || stableJson(was) === stableJson(row)) ? [] : [{ key: k, before: was, now: row }];
    });
    const gone = [...old].flatMap(([k, row]) => (next.has(k) ? [] : [{ key: k, before: row, now: undefined }]));
    return [...changed, ...gone];
  };
  return {
    phrases: of(before.phrases, after.phrases, 'id'),
    drills: of(before.drills, after.drills, 'id'),
    takes: of(before.takes, after.takes, 'id'),
    states: of(before.states, after.states, 'id'),
    removals: of(before.removals, after.removals, 'id'),
    boards: of(before.boards, after.boards, 'id'),
    shows: of(before.shows, after.shows, 'id'),
    showStates: of(before.showStates, after.showStates, 'id'),
    freeSittings: of(before.freeSittings, after.freeSittings, 'id'),
    lessons: of(before.lessons, after.lessons, 'id'),
    clips: of(before.clips, after.clips, 'id'),
    kept: of(named(before), named(after), 'key'),
  };
}
