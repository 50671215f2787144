import { count, type Read } from '@core/base';
import { RULES, shelfLines, type ShelfCode, type ShelfRead } from '@core/formats/shelf-file';
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
import { NAMED_WORDS } from './named-words';
import { readBlob } from './read-blob';
import { allTries, contentsOf, differences } from './shelf-rows';
import { takeMergeBack, writeMerge, type MergeDone } from './write-merge';

/** How far a long work is: a share from 0 to 1, and what is being done. */
export type Progress = (share: number, words: string) => void;

/** What reading a file onto the shelf would do, before it is done. */
export interface Incoming {
  readonly groups: ReturnType<typeof mergeGroups>;
  readonly tries: number;
  readonly takes: number;
  /** Bars of records that are kept with phrases. */
  readonly clips: number;
  readonly clipsGone: number;
  readonly drills: number;
  readonly boards: number;
  readonly shows: number;
  /** What was played freely: it comes with the log. */
  readonly sittings: number;
  readonly lessons: number;
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
  readonly shows: boolean;
  readonly lessons: boolean;
  readonly named: readonly string[];
}

export type Taken =
  | { readonly kind: 'taken'; readonly lines: readonly MergeLine[]; readonly words: string }
  | { readonly kind: 'nothing' }
  | { readonly kind: 'full'; readonly words: string };

/**
 * The shelf as a file, out and in. Runs beside the page; to stop it is to end its worker, which undoes what it began.
 */
export class FilesEngine {
  private readonly db: ShelfDb;
  private theirs: ShelfContents | null = null;
  private done: MergeDone | null = null;

  constructor(name: string) {
    this.db = new ShelfDb(name, { rules: RULES });
  }

  /** Reads a file. Nothing changes: what it would change is told. */
  async read(file: Blob, tell: Progress): Promise<Read<Incoming, ShelfCode>> {
    this.theirs = null;
    const read = await readBlob(file, (share) => tell(share * 0.7, 'Reading the file'));
    if (!read.ok) return read;
    tell(0.7, 'Comparing');
    const { contents } = read.value;
    const [ours, had] = [await contentsOf(this.db), await allTries(this.db)];
    tell(0.85, 'Comparing');
    const report = mergeReport(ours, small(contents), merged(ours, small(contents)));
    this.theirs = contents;
    const value: Incoming = {
      ...told(report),
      tries: triesToTake(had, contents.attempts).filter((t) => !t.off).length,
      file: read.value.file,
      phrases: contents.phrases.length,
    };
    return { ok: true, value, problems: [] };
  }

  /**
   * Merges the file that was read, or what was chosen of it, in one transaction: all of it or nothing. What is merged
   * with is read in the same transaction, so that nothing that is kept meanwhile is written over.
   */
  async take(chosen: Chosen, tell: Progress): Promise<Taken> {
    if (!this.theirs) return { kind: 'nothing' };
    const theirs = picked(this.theirs, chosen);
    const { db } = this;
    return db.transaction('rw', db.own, async (): Promise<Taken> => {
      tell(0, 'Merging');
      const [ours, had] = [await contentsOf(db), await allTries(db)];
      const result = merged(ours, small(theirs));
      const tries = triesToTake(had, theirs.attempts);
      const many = had.size + tries.filter((t) => !had.has(t.id)).length;
      if (result.phrases.length > SHELF_LIMITS.phrases) return { kind: 'full', words: tooMany(result.phrases.length) };
      if (many > SHELF_LIMITS.attempts) return { kind: 'full', words: tooManyTries(many) };
      tell(0.25, PUTTING);
      const rows = differences(ours, result);
      this.done = await writeMerge(db, rows, tries, had, (share) => tell(0.25 + 0.75 * share, PUTTING));
      const report = mergeReport(ours, small(theirs), result);
      return { kind: 'taken', lines: report.lines, words: takenWords(report, tries.length) };
    });
  }

  /**
   * Takes the last merge back, and only that: what was kept or played since stays. Resolves to what was done, in words.
   */
  async undo(): Promise<string> {
    const { done, db } = this;
    if (!done) return 'There is nothing to undo.';
    const stayed = await db.transaction('rw', db.own, async () => takeMergeBack(db, done));
    this.done = null;
    const own =
      stayed > 0
        ? ` ${count(stayed, 'phrase')} that you changed or played since ${stayed === 1 ? 'stays' : 'stay'}.`
        : '';
    return `What the file brought is undone.${own}`;
  }

  /** The whole shelf as a file, or some phrases of it with all that belongs to them. */
  async export(tell: Progress, only: readonly string[] | null = null): Promise<Blob> {
    tell(0, 'Reading the shelf');
    const all = await contentsOf(this.db);
    tell(0.1, 'Reading the shelf');
    const tries = [...(await allTries(this.db)).values()];
    const { attempts, ...ours } = only ? someOf({ ...all, attempts: tries }, only) : { ...all, attempts: tries };
    tell(0.35, 'Exporting');
    const total = attempts.length + ours.phrases.length + ours.states.length + 1;
    const parts: string[] = [];
    let [lines, buffer] = [0, ''];
    for (const line of shelfLines({ ...ours, attempts })) {
      buffer += line;
      if (buffer.length > 1 << 20) {
        parts.push(buffer);
        buffer = '';
      }
      if (++lines % 2000 === 0) tell(0.35 + 0.65 * Math.min(1, lines / total), 'Exporting');
    }
    return new Blob([...parts, buffer], { type: 'application/json' });
  }

  end(): void {
    this.db.close();
  }
}

const PUTTING = 'Putting it on the shelf';

/** A shelf without its tries, which are merged by themselves. */
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
    clips: contents.clips.filter((c) => own.has(c.id)),
    states: contents.states.filter((s) => own.has(s.phrase)),
  };
}

function picked(contents: ShelfContents, { without, log, boards, shows, lessons, named }: Chosen): ShelfContents {
  const out = new Set(without);
  const keys = new Set(named);
  return {
    ...contents,
    phrases: contents.phrases.filter((p) => !out.has(p.id)),
    states: contents.states.filter((s) => !out.has(s.phrase)),
    removals: contents.removals.filter((r) => !out.has(r.id)),
    clips: contents.clips.filter((c) => !out.has(c.id)),
    attempts: log ? contents.attempts.filter((a) => !out.has(a.phrase)) : [],
    drills: log ? contents.drills.filter((d) => !out.has(d.phrase)) : [],
    takes: log ? contents.takes.filter((t) => !out.has(t.phrase)) : [],
    freeSittings: log ? contents.freeSittings : [],
    boards: boards ? contents.boards : [],
    shows: shows ? contents.shows : [],
    showStates: shows ? contents.showStates : [],
    lessons: lessons ? contents.lessons : [],
    named: contents.named.filter((n) => keys.has(n.key)),
  };
}

function told(report: MergeReport): Omit<Incoming, 'file' | 'tries' | 'phrases'> {
  return {
    groups: mergeGroups(report.lines),
    takes: report.takes,
    clips: report.clips,
    clipsGone: report.clipsGone,
    drills: report.drills,
    boards: report.boards,
    shows: report.shows,
    sittings: report.sittings,
    lessons: report.lessons,
    named: report.named.map((key) => ({ key, words: NAMED_WORDS[key] ?? key })),
  };
}

function takenWords(report: MergeReport, tries: number): string {
  const changed = report.lines.filter((l) => l.kind !== 'stays off' && l.kind !== 'ours stands').length;
  return `${count(changed, 'phrase')} and ${count(tries, 'try', 'tries')} from the file are on the shelf.`;
}

function tooManyTries(many: number): string {
  const most = SHELF_LIMITS.attempts.toLocaleString('en');
  return `The Log holds at most ${most} tries; with this file it would have ${many.toLocaleString('en')}. Leave out its log, or some phrases.`;
}

function tooMany(many: number): string {
  return `With this file the shelf would hold ${many.toLocaleString('en')} phrases. ${FULL.split('.')[0] ?? ''}. Leave some of the file’s out.`;
}
