import { FACTS_VERSION } from '@core/shelf';
import type { FactsPack, ShelfDb } from '../../storage/db';
import { packed, packOf, type Entry } from './entries';
import type { PackedEntry } from './entry';
import type { Played, Practice } from './practice';

/** What the index kept between visits. */
export interface Kept {
  readonly entries: readonly PackedEntry[];
  /** What was played, read when it is asked for: the entries are shown before. */
  readonly played: () => Promise<readonly (readonly [string, Played])[]>;
}

/** What was played stands in rows of its own, behind those of the entries: the same number and so many. */
const PLAYED = 1000;

/** Reads what was kept; what facts of another version are is as good as nothing. */
export async function readPacks(db: ShelfDb): Promise<Kept> {
  const packs = await db.packs.where('n').below(PLAYED).toArray();
  const entries = packs.flatMap((p) => JSON.parse(p.json) as PackedEntry[]);
  return {
    entries: entries.filter((e) => e.key.startsWith(`${FACTS_VERSION}-`)),
    played: async () => {
      const rows = await db.packs.where('n').aboveOrEqual(PLAYED).toArray();
      return rows.flatMap((p) => JSON.parse(p.json) as [string, Played][]);
    },
  };
}

/** Keeps some packs of the index anew. */
export async function writePacks(
  db: ShelfDb,
  which: readonly number[],
  entries: readonly Entry[],
  practice: Practice,
): Promise<void> {
  const packs = new Map(which.map((n): [number, Entry[]] => [n, []]));
  for (const e of entries) packs.get(packOf(e.id))?.push(e);
  await db.packs.bulkPut(
    [...packs].flatMap(([n, own]): FactsPack[] => {
      const played = own.flatMap((e) => {
        const one = practice.of(e.id);
        return one ? [[e.id, one] as const] : [];
      });
      return [
        { n, json: JSON.stringify(own.map(packed)) },
        { n: n + PLAYED, json: JSON.stringify(played, shorter) },
      ];
    }),
  );
}

/** Beliefs to six digits: more would only be longer to read. */
function shorter(_key: string, value: unknown): unknown {
  return typeof value === 'number' && !Number.isInteger(value) ? Number(value.toPrecision(7)) : value;
}
