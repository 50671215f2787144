import Dexie, { type EntityTable, type Table, type Transaction } from 'dexie';
import { moment } from '@core/base';
import { bestOf, pagesOf, type Attempt, type Best, type DrillState, type TriesPage } from '@core/drill';
import type { Rule, RuleName, TabDraft, Unkept } from '@core/formats/shelf-file';
import type { KeptLesson } from '@core/lesson';
import type { Clip, Listening } from '@core/listen';
import type { Phrase } from '@core/recipe';
import type { Board, KeptState, Named, Removal, Show, ShowState, FreeSitting } from '@core/shelf';
import type { KeptTake } from '@core/take';
import { gate, type Keeper, type InvalidRow } from './gate';

/** What the tries of one phrase add up to, kept beside them so that no tries are read to show it. */
export interface Tally extends Best {
  readonly id: string;
}

/** A share of the index as it is kept: many entries in one row, as text, as that is read many times faster. */
export interface FactsPack {
  readonly n: number;
  /** Entries in JSON; from row 1000 on what was played of them, which is read later. */
  readonly json: string;
}

/** A row that could not be read, taken out of the way of what can. `n` is given by the database. */
export interface Aside {
  readonly n?: number;
  readonly table: string;
  readonly key: string;
  readonly row: unknown;
  readonly why: string;
  readonly at: number;
}

/** The browser's database of one shelf. Each version of the schema stays here, so that an old shelf opens. */
export class ShelfDb extends Dexie {
  phrases!: EntityTable<Phrase, 'id'>;
  tries!: Table<TriesPage, [string, number]>;
  tallies!: EntityTable<Tally, 'id'>;
  drills!: EntityTable<DrillState, 'id'>;
  kept!: EntityTable<Named, 'key'>;
  takes!: EntityTable<KeptTake, 'id'>;
  states!: EntityTable<KeptState, 'id'>;
  removals!: EntityTable<Removal, 'id'>;
  boards!: EntityTable<Board, 'id'>;
  shows!: EntityTable<Show, 'id'>;
  showStates!: EntityTable<ShowState, 'id'>;
  freeSittings!: EntityTable<FreeSitting, 'id'>;
  lessons!: EntityTable<KeptLesson, 'id'>;
  drafts!: EntityTable<TabDraft, 'id'>;
  unkept!: EntityTable<Unkept, 'id'>;
  clips!: EntityTable<Clip, 'id'>;
  listening!: EntityTable<Listening, 'id'>;
  aside!: Table<Aside, number>;
  /** A cache that may be dropped. */
  packs!: EntityTable<FactsPack, 'n'>;

  /** @param odd is told of every row that was met and could not be read. */
  constructor(name: string, keeper: Keeper, odd: (row: InvalidRow) => void = () => undefined) {
    super(name);
    this.version(1).stores({ phrases: 'id', attempts: 'id, phrase', drills: 'id, &phrase', kept: 'key' });
    this.version(2).stores({ takes: 'id, phrase, at' });
    this.version(3)
      .stores({
        phrases: 'id, changed, family',
        tries: '[phrase+n]',
        tallies: 'id, lastAt',
        states: 'id, phrase',
        removals: 'id, at',
        boards: 'id',
        drafts: 'id, at',
        aside: '++n',
        packs: 'n',
      })
      .upgrade((trans) => triesIntoPages(trans, keeper));
    this.version(4).stores({ attempts: null });
    this.version(5).stores({ drills: 'id, &phrase, at' }).upgrade(drillsByTime);
    this.version(6).upgrade((trans) => talliesThatShow(trans, keeper));
    this.version(7).stores({ clips: 'id', listening: 'id, at' });
    this.version(8).stores({ unkept: 'id, phrase, at' });
    this.version(9).upgrade((trans) => rowsAsFacts(trans, keeper));
    this.version(10).upgrade((trans) => choicesAsExpressions(trans, keeper));
    this.version(11).upgrade((trans) => talliesOfThePlayer(trans, keeper));
    this.version(12).stores({ shows: 'id', showStates: 'id, show' });
    this.version(13).stores({ freeSittings: 'id, at' });
    this.version(14).stores({ lessons: 'id' });
    this.use(gate(keeper, odd));
  }

  /** Every table that holds what the player made; the cache is not among them. */
  get own(): Table[] {
    const { phrases, tries, tallies, drills, kept, takes, states, removals, boards } = this;
    const { shows, showStates, freeSittings, lessons, drafts, unkept, clips, listening, aside } = this;
    return [
      phrases,
      tries,
      tallies,
      drills,
      kept,
      takes,
      states,
      removals,
      boards,
      shows,
      showStates,
      freeSittings,
      lessons,
      drafts,
      unkept,
      clips,
      listening,
      aside,
    ] as Table[];
  }
}

/** The version of the database as the browser counts it: ten for each of Dexie's. */
const CURRENT = 140;

/** Whether opening the database of a shelf puts its rows into a newer form, for which their rules are needed. */
export async function isOlder(name: string): Promise<boolean> {
  // Not every browser tells.
  if (typeof indexedDB.databases !== 'function') return true;
  return (await indexedDB.databases()).some((d) => d.name === name && d.version !== CURRENT);
}

/** From version 4: every drill says when it was kept last, by which those under way are listed. */
async function drillsByTime(trans: Transaction): Promise<void> {
  await trans
    .table<DrillState>('drills')
    .toCollection()
    .primaryKeys()
    .then(async (ids) => {
      const drills = (await trans.table<DrillState>('drills').bulkGet(ids)).filter((d) => d !== undefined);
      const timed = drills.map((d): DrillState => ({ ...d, at: d.at ?? d.attempts.at(-1)?.at ?? 0 }));
      await trans.table<DrillState>('drills').bulkPut(timed);
    });
}

/** From version 5: the tallies remember what clean tries show. */
async function talliesThatShow(trans: Transaction, { rules }: Keeper): Promise<void> {
  if (!rules) throw new Error('no rules');
  const { modern }: Rule = rules.attempts;
  const ids = (await trans.table('tallies').toCollection().primaryKeys()) as string[];
  for (const id of ids) {
    const pages = await trans
      .table<TriesPage>('tries')
      .where('[phrase+n]')
      .between([id, Dexie.minKey], [id, Dexie.maxKey])
      .toArray();
    const tries = pages.flatMap((p) => p.tries).map((t) => (modern?.(t) ?? t) as Attempt);
    if (tries.length > 0) await trans.table('tallies').put({ id, ...bestOf(tries) });
  }
}

/** From version 10: what a program played, or fingers on keys, is counted apart. The cache is made anew. */
async function talliesOfThePlayer(trans: Transaction, keeper: Keeper): Promise<void> {
  await talliesThatShow(trans, keeper);
  await trans.table('packs').clear();
}

/** From version 2: tries one by one become pages, and the one draft becomes a tab's. */
async function triesIntoPages(trans: Transaction, { rules }: Keeper): Promise<void> {
  if (!rules) throw new Error('no rules');
  const at = moment(Date.now());
  const rows = (await trans.table('attempts').toArray()) as unknown[];
  const byPhrase = new Map<string, Attempt[]>();
  const { modern }: Rule = rules.attempts;
  for (const then of rows) {
    const row = modern?.(then) ?? then;
    const problem = rules.attempts(row);
    if (problem) await trans.table('aside').add({ table: 'attempts', key: '', row, why: problem.words, at });
    else {
      const attempt = row as Attempt;
      byPhrase.set(attempt.phrase, [...(byPhrase.get(attempt.phrase) ?? []), attempt]);
    }
  }
  for (const [phrase, tries] of byPhrase) {
    tries.sort((a, b) => a.at - b.at);
    await trans.table('tries').bulkPut([...pagesOf(phrase, tries, null)]);
    await trans.table('tallies').put({ id: phrase, ...bestOf(tries) });
  }
  const draft: unknown = await trans.table('kept').get('draft');
  if (typeof draft === 'object' && draft !== null && 'value' in draft) {
    const then = { id: 'before', at, draft: draft.value };
    const row = rules.drafts.modern?.(then) ?? then;
    const problem = rules.drafts(row);
    if (problem) await trans.table('aside').add({ table: 'drafts', key: 'before', row, why: problem.words, at });
    else await trans.table('drafts').put(row);
    await trans.table('kept').delete('draft');
  }
}

/** Rows of such a table are read and written so many at a time. */
const AT_ONCE = 100;

/** From version 8: stages and findings are kept as facts, where their sentences were. The cache is made anew. */
async function rowsAsFacts(trans: Transaction, keeper: Keeper): Promise<void> {
  await modernised(trans, keeper, ['tries', 'drills', 'takes']);
  await trans.table('packs').clear();
}

/** From version 9: what moves choose is an expression, where it was a list of restrictions. */
async function choicesAsExpressions(trans: Transaction, keeper: Keeper): Promise<void> {
  await modernised(trans, keeper, ['phrases', 'takes', 'states', 'removals', 'drafts', 'unkept']);
  await trans.table('packs').clear();
}

/** Rows of some tables in today's form, where their rules know an older one. */
async function modernised(trans: Transaction, { rules }: Keeper, tables: readonly RuleName[]): Promise<void> {
  if (!rules) throw new Error('no rules');
  for (const name of tables) {
    const table = trans.table(name);
    const { modern }: Rule = rules[name];
    const keys = await table.toCollection().primaryKeys();
    for (let at = 0; at < keys.length; at += AT_ONCE) {
      const rows = ((await table.bulkGet(keys.slice(at, at + AT_ONCE))) as unknown[]).filter((r) => r !== undefined);
      // The gate may have put them into today's form already: all are written.
      const changed = rows.map((row) => modern?.(row) ?? row);
      if (changed.length > 0) await table.bulkPut(changed);
    }
  }
}
