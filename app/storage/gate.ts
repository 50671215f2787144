import type { DBCore, DBCoreMutateRequest, DBCoreTable, Middleware } from 'dexie';
import type { Rule, RULES } from '@core/formats/shelf-file';

/** The rules, once they were fetched: they are large, and the page is drawn before them. Nothing is opened without. */
export interface Keeper {
  rules: typeof RULES | null;
}

/** A row that was met in the database and could not be read. */
export interface InvalidRow {
  readonly table: string;
  readonly key: unknown;
  readonly row: unknown;
  readonly why: string;
}

/** A row that was to be kept and must not be: nothing of its transaction is written. */
export class RefusedRow extends Error {
  constructor(table: string, where: string, words: string) {
    super(`${table}${where ? `, ${where}` : ''}: ${words}`);
    this.name = 'RefusedRow';
  }
}

/**
 * The gate of the database: whatever is written must be good by the rule of its table, or the transaction fails, and
 * whatever is read and is not good is passed over and told. So nothing has to check by itself, and nothing can forget
 * to.
 */
export function gate(keeper: Keeper, odd: (row: InvalidRow) => void): Middleware<DBCore> {
  return {
    stack: 'dbcore',
    name: 'gate',
    create: (core) => ({
      ...core,
      table: (name) => {
        const table = core.table(name);
        return isRuled(name) ? guarded(name, table, () => ruleOf(keeper, name), odd) : table;
      },
    }),
  };
}

/** Tables of what the player made; the others are a cache, or hold what no rule is for. */
const RULED = [
  'phrases',
  'tries',
  'drills',
  'takes',
  'states',
  'removals',
  'boards',
  'shows',
  'showStates',
  'freeSittings',
  'lessons',
  'kept',
  'drafts',
  'unkept',
  'clips',
  'listening',
] as const;
type Ruled = (typeof RULED)[number];

function isRuled(name: string): name is Ruled {
  return RULED.some((r) => r === name);
}

function ruleOf({ rules }: Keeper, name: Ruled): Rule {
  if (!rules) throw new Error('the database was opened before its rules were there');
  return rules[name];
}

function guarded(name: string, table: DBCoreTable, ruled: () => Rule, odd: (row: InvalidRow) => void): DBCoreTable {
  const keyOf = (row: unknown): unknown => table.schema.primaryKey.extractKey?.(row);
  const passed = (row: unknown): unknown => {
    if (row === undefined) return undefined;
    const rule = ruled();
    const problem = rule(row);
    if (!problem) return row;
    // A row of before, which an older tab may have put back: it is read in today's form.
    const now = rule.modern?.(row);
    if (now !== undefined && rule(now) === null) return now;
    const met: InvalidRow = {
      table: name,
      key: keyOf(row),
      row,
      why: `${problem.where ? `${problem.where}: ` : ''}${problem.words}`,
    };
    // Out of the transaction that reads: whoever is told will write.
    setTimeout(() => odd(met));
    return undefined;
  };
  return {
    ...table,
    mutate: (request: DBCoreMutateRequest) => {
      if (request.type === 'add' || request.type === 'put')
        for (const row of request.values) {
          const problem = ruled()(row);
          if (problem) return Promise.reject(new RefusedRow(name, problem.where, problem.words));
        }
      return table.mutate(request);
    },
    get: async (request) => passed(await table.get(request)),
    getMany: async (request) => (await table.getMany(request)).map(passed),
    // A cursor would hand rows over unseen: whoever wants rows in another order asks for their keys first.
    openCursor: (request) =>
      request.values
        ? Promise.reject(new Error(`${name}: a cursor with values passes the gate by`))
        : table.openCursor(request),
    query: async (request) => {
      const answer = await table.query(request);
      return request.values === false
        ? answer
        : { ...answer, result: answer.result.map(passed).filter((row: unknown) => row !== undefined) };
    },
  };
}
