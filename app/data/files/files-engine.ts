import { count, stableJson, type Read } from '@core/base';
import { bestOf, pagesOf, type Attempt } from '@core/drill';
import {
  readShelf,
  RULES,
  shelfLines,
  ShelfLines,
  tooLarge,
  WHOLE_MOST,
  type ShelfCode,
  type ShelfRead,
} from '@core/formats';
import {
  EMPTY_SHELF,
  merged,
  mergeGroups,
  mergeReport,
  SHELF_LIMITS,
  triesToTake,
  type MergeLine,
  type MergeReport,
  type ShelfContents,
} from '@core/shelf';
import { ShelfDb } from '../db';
import { FULL } from '../phrases.words';
import { ALL_TRIES, countAll, countAnew, pagesRange, thinned, triesOf } from '../tries';
import { NAMED_WORDS } from './named-words';

/** How far a long work is: a share from 0 to 1, and what is being done. */
export type Progress = (share: number, words: string) => void;

/** What reading a file onto the shelf would do, before it is done. */
export interface Incoming {
  readonly groups: ReturnType<typeof mergeGroups>;
  readonly tries: number;
  readonly takes: number;
  readonly drills: number;
  readonly boards: number;
  /** Settings, kits and the like that it would change, with their names for people. */
  readonly named: readonly { readonly key: string; readonly words: string }[];
  readonly file: ShelfRead['file'];
  readonly phrases: number;
}

/** What of a file is to be taken. */
export interface Chosen {
  /** Ids of phrases that are left out. */
  readonly without: readonly string[];
  readonly log: boolean;
  readonly boards: boolean;
  readonly named: readonly string[];
}

export type Taken =
  | { readonly kind: 'taken'; readonly lines: readonly MergeLine[]; readonly words: string }
  | { readonly kind: 'nothing' }
  | { readonly kind: 'full'; readonly words: string };

/** Rows of the database that are compared and put one by one. */
const ROWS = ['phrases', 'drills', 'takes', 'states', 'removals', 'boards', 'kept'] as const;
type RowTable = (typeof ROWS)[number];

/** What one merge wrote, so that it can be taken back, and only that. */
interface Done {
  readonly rows: Readonly<
    Record<RowTable, readonly { readonly key: string; readonly before: unknown; readonly after: string }[]>
  >;
  readonly tries: ReadonlyMap<string, ReadonlySet<string>>;
}

const CHUNK = 500;
/** The name under which fields of a later version's file are kept. */
const OTHERS = 'file-others';

/**
 * The shelf as a file, out and in. Runs beside the page; to stop it is to end its worker, which undoes what it began.
 */
export class FilesEngine {
  private readonly db: ShelfDb;
  private theirs: ShelfContents | null = null;
  private done: Done | null = null;

  constructor(name: string) {
    this.db = new ShelfDb(name, { rules: RULES });
  }

  /** Reads a file. Nothing changes: what it would change is told. */
  async read(file: Blob, tell: Progress): Promise<Read<Incoming, ShelfCode>> {
    this.theirs = null;
    const read = await readBlob(file, (share) => tell(share * 0.7, 'Reading the file'));
    if (!read.ok) return read;
    tell(0.7, 'Looking what it would change');
    const { contents } = read.value;
    const [ours, had] = [await this.ours(), await this.tries()];
    tell(0.85, 'Looking what it would change');
    const report = mergeReport(ours, small(contents), merged(ours, small(contents)));
    this.theirs = contents;
    const value: Incoming = {
      ...told(report),
      tries: triesToTake(had, contents.attempts).length,
      file: read.value.file,
      phrases: contents.phrases.length,
    };
    return { ok: true, value, problems: [] };
  }

  /** Merges the file that was read, or what was chosen of it, in one transaction: all of it or nothing. */
  async take(chosen: Chosen, tell: Progress): Promise<Taken> {
    if (!this.theirs) return { kind: 'nothing' };
    const theirs = picked(this.theirs, chosen);
    const ours = await this.ours();
    tell(0.1, 'Merging');
    const result = merged(ours, small(theirs));
    if (result.phrases.length > SHELF_LIMITS.phrases) return { kind: 'full', words: tooMany(result.phrases.length) };
    const tries = triesToTake(await this.tries(), theirs.attempts);
    const rows = differences(ours, result);
    tell(0.25, 'Putting it on the shelf');
    const done = await this.write(rows, tries, (share) => tell(0.25 + 0.75 * share, 'Putting it on the shelf'));
    this.done = done;
    const report = mergeReport(ours, small(theirs), result);
    return { kind: 'taken', lines: report.lines, words: takenWords(report, tries.length, done.thin) };
  }

  /**
   * Takes the last merge back, and only that: what was kept or played since stays. Resolves to what was done, in words.
   */
  async undo(): Promise<string> {
    const { done, db } = this;
    if (!done) return 'There is nothing to take back.';
    let stayed = 0;
    await db.transaction('rw', db.own, async () => {
      for (const [phrase, ids] of done.tries) {
        for (const page of await pagesRange(db, phrase).toArray()) {
          const tries = page.tries.filter((t) => !ids.has(t.id));
          if (tries.length === page.tries.length) continue;
          if (tries.length === 0) await db.tries.delete([page.phrase, page.n]);
          else await db.tries.put({ ...page, tries });
          await countAll(db, tries.length - page.tries.length);
        }
        await countAnew(db, phrase);
      }
      for (const name of ROWS) {
        const table = db.table(name);
        for (const { key, before, after } of done.rows[name]) {
          const stands: unknown = await table.get(key);
          if ((stands === undefined ? '' : stableJson(stands)) !== after) {
            if (name === 'phrases') stayed++;
            continue;
          }
          // A new phrase that was played since stays, with what was played.
          if (name === 'phrases' && before === undefined && (await db.tallies.get(key))) {
            stayed++;
            continue;
          }
          if (before === undefined) await table.delete(key);
          else await table.put(before);
        }
      }
    });
    this.done = null;
    const own =
      stayed > 0
        ? ` ${count(stayed, 'phrase')} that you changed or played since ${stayed === 1 ? 'stays' : 'stay'}.`
        : '';
    return `What the file brought is off the shelf again.${own}`;
  }

  /** The whole shelf as a file, or some phrases of it with all that belongs to them. */
  async export(tell: Progress, only: readonly string[] | null = null): Promise<Blob> {
    tell(0, 'Reading the shelf');
    const all = await this.ours();
    tell(0.1, 'Reading the shelf');
    const tries = [...(await this.tries()).values()];
    const { attempts, ...ours } = only ? someOf({ ...all, attempts: tries }, only) : { ...all, attempts: tries };
    tell(0.35, 'Writing the file');
    const total = attempts.length + ours.phrases.length + ours.states.length + 1;
    const parts: string[] = [];
    let [lines, buffer] = [0, ''];
    for (const line of shelfLines({ ...ours, attempts })) {
      buffer += line;
      if (buffer.length > 1 << 20) {
        parts.push(buffer);
        buffer = '';
      }
      if (++lines % 2000 === 0) tell(0.35 + 0.65 * Math.min(1, lines / total), 'Writing the file');
    }
    return new Blob([...parts, buffer], { type: 'application/json' });
  }

  end(): void {
    this.db.close();
  }

  /** All there is but the tries, which are many. */
  private async ours(): Promise<ShelfContents> {
    const { db } = this;
    const [phrases, drills, takes, states, removals, boards, kept] = await Promise.all([
      db.phrases.toArray(),
      db.drills.toArray(),
      db.takes.toArray(),
      db.states.toArray(),
      db.removals.toArray(),
      db.boards.toArray(),
      db.kept.toArray(),
    ]);
    const others = kept.find((k) => k.key === OTHERS)?.value;
    return {
      ...EMPTY_SHELF,
      phrases,
      drills,
      takes,
      states,
      removals,
      boards,
      named: kept.filter((k) => k.key !== OTHERS && !LOCAL.has(k.key)),
      others: typeof others === 'object' && others !== null ? { ...others } : {},
    };
  }

  private async tries(): Promise<ReadonlyMap<string, Attempt>> {
    const pages = await this.db.tries.toArray();
    const all = new Map<string, Attempt>();
    for (const { tries } of pages) for (const t of tries) all.set(t.id, t);
    return all;
  }

  private async write(
    rows: Differences,
    tries: readonly Attempt[],
    tell: (share: number) => void,
  ): Promise<Done & { readonly thin: number }> {
    const { db } = this;
    const byPhrase = new Map<string, Attempt[]>();
    for (const t of tries) {
      const own = byPhrase.get(t.phrase);
      if (own) own.push(t);
      else byPhrase.set(t.phrase, [t]);
    }
    const total = Math.max(1, byPhrase.size + ROWS.reduce((n, name) => n + rows[name].length, 0));
    let [written, thin] = [0, 0];
    const step = (n: number): void => {
      written += n;
      tell(written / total);
    };
    await db.transaction('rw', db.own, async () => {
      for (const name of ROWS) {
        const table = db.table(name);
        const gone = rows[name].flatMap((r) => (r.now === undefined ? [r.key] : []));
        if (gone.length > 0) await table.bulkDelete(gone);
        const put = rows[name].flatMap((r) => (r.now === undefined ? [] : [r.now]));
        for (let at = 0; at < put.length; at += CHUNK) {
          const some = put.slice(at, at + CHUNK);
          await table.bulkPut(some);
          step(some.length);
        }
      }
      const phrases = [...byPhrase];
      const known = new Set((await db.tallies.toCollection().primaryKeys()).map(String));
      for (let at = 0; at < phrases.length; at += CHUNK) {
        const some = phrases.slice(at, at + CHUNK);
        const fresh = some.filter(([phrase]) => !known.has(phrase));
        for (const [, own] of fresh) own.sort((a, b) => a.at - b.at);
        await db.tries.bulkPut(fresh.flatMap(([phrase, own]) => [...pagesOf(phrase, own, null)]));
        await db.tallies.bulkPut(fresh.map(([phrase, own]) => ({ ...bestOf(own), id: phrase })));
        for (const [phrase, own] of some) if (known.has(phrase)) await this.addTries(phrase, own);
        step(some.length);
      }
      const here = await db.tallies.toArray();
      await countAll(
        db,
        here.reduce((n, t) => n + (t.id === ALL_TRIES ? -t.attempts : t.attempts), 0),
      );
      for (let more = await thinned(db); more && more.gone > 0; more = await thinned(db)) thin += more.gone;
    });
    const ids = new Map([...byPhrase].map(([phrase, own]) => [phrase, new Set(own.map((t) => t.id))] as const));
    const told = Object.fromEntries(
      ROWS.map((name) => [
        name,
        rows[name].map(({ key, before, now }) => ({ key, before, after: now === undefined ? '' : stableJson(now) })),
      ]),
    ) as unknown as Done['rows'];
    return { rows: told, tries: ids, thin };
  }

  /** Tries that come to a phrase that has some: those that are there already are the same ones, told differently. */
  private async addTries(phrase: string, tries: readonly Attempt[]): Promise<void> {
    const { db } = this;
    const other = new Map(tries.map((t) => [t.id, t]));
    const old = await triesOf(db, phrase);
    const had = new Set(old.map((t) => t.id));
    const all = [...old.map((t) => other.get(t.id) ?? t), ...tries.filter((t) => !had.has(t.id))];
    all.sort((a, b) => a.at - b.at);
    await pagesRange(db, phrase).delete();
    await db.tries.bulkPut([...pagesOf(phrase, all, null)]);
    await countAnew(db, phrase);
  }
}

/** What is kept under a name and belongs to this browser alone. */
const LOCAL: ReadonlySet<string> = new Set(['demo-filled', 'backup', 'backup-folder']);

type Differences = Readonly<
  Record<RowTable, readonly { readonly key: string; readonly before: unknown; readonly now: unknown }[]>
>;

/** Row by row, what is to be written so that one shelf becomes the other; `now` is absent for what goes. */
function differences(before: ShelfContents, after: ShelfContents): Differences {
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
    kept: of(named(before), named(after), 'key'),
  };
}

function small(contents: ShelfContents): ShelfContents {
  return { ...contents, attempts: [] };
}

/** Some phrases with all that belongs to them, and nothing else. */
function someOf(contents: ShelfContents, ids: readonly string[]): ShelfContents {
  const own = new Set(ids);
  return {
    ...EMPTY_SHELF,
    phrases: contents.phrases.filter((p) => own.has(p.id)),
    attempts: contents.attempts.filter((a) => own.has(a.phrase)),
    drills: contents.drills.filter((d) => own.has(d.phrase)),
    takes: contents.takes.filter((t) => own.has(t.phrase)),
    states: contents.states.filter((s) => own.has(s.phrase)),
  };
}

function picked(contents: ShelfContents, { without, log, boards, named }: Chosen): ShelfContents {
  const out = new Set(without);
  const keys = new Set(named);
  return {
    ...contents,
    phrases: contents.phrases.filter((p) => !out.has(p.id)),
    states: contents.states.filter((s) => !out.has(s.phrase)),
    removals: contents.removals.filter((r) => !out.has(r.id)),
    attempts: log ? contents.attempts.filter((a) => !out.has(a.phrase)) : [],
    drills: log ? contents.drills.filter((d) => !out.has(d.phrase)) : [],
    takes: log ? contents.takes.filter((t) => !out.has(t.phrase)) : [],
    boards: boards ? contents.boards : [],
    named: contents.named.filter((n) => keys.has(n.key)),
  };
}

function told(report: MergeReport): Omit<Incoming, 'file' | 'tries' | 'phrases'> {
  return {
    groups: mergeGroups(report.lines),
    takes: report.takes,
    drills: report.drills,
    boards: report.boards,
    named: report.named.map((key) => ({ key, words: NAMED_WORDS[key] ?? key })),
  };
}

function takenWords(report: MergeReport, tries: number, thin: number): string {
  const changed = report.lines.filter((l) => l.kind !== 'stays off' && l.kind !== 'ours stands').length;
  const some = `${count(changed, 'phrase')} and ${count(tries, 'try', 'tries')} from the file are on the shelf.`;
  return thin > 0
    ? `${some} The log holds ${SHELF_LIMITS.attempts.toLocaleString('en')} tries at most: ${thin} of the oldest were thinned to the best of each day.`
    : some;
}

function tooMany(many: number): string {
  return `With this file the shelf would hold ${many.toLocaleString('en')} phrases. ${FULL.split('.')[0] ?? ''}. Leave some of the file’s out.`;
}

/** A file read a piece at a time; one that is not in lines is read as a whole, if it is small enough. */
async function readBlob(file: Blob, tell: (share: number) => void): Promise<Read<ShelfRead, ShelfCode>> {
  const lines = new ShelfLines();
  const decoder = new TextDecoder();
  const piece = 1 << 22;
  for (let at = 0; at < file.size && lines.goes; at += piece) {
    const bytes = await file.slice(at, at + piece).arrayBuffer();
    lines.push(decoder.decode(bytes, { stream: at + piece < file.size }));
    tell(at / file.size);
  }
  const read = lines.end();
  if (read) return read;
  if (file.size > WHOLE_MOST) return tooLarge(file.size);
  return readShelf(await file.text());
}
