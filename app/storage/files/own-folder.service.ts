import { inject, Injectable, signal } from '@angular/core';
import { proxy } from 'comlink';
import { count } from '@core/base';
import { dayFile, FOLDER_FILE, folderEntry, staleDays } from '@core/shelf';
import { isoDay, now, practiceDay } from '../../environment/clock';
import { databaseName } from '../../environment/which-shelf';
import { followChanges } from '../changes';
import { Database } from '../database';
import { HealthService } from '../health.service';
import { isFull } from '../storage-words';
import type { Chosen, Incoming } from './files-engine';
import { allowed, put, type Folder } from './folder-handle';
import { spawnFiles } from './spawn-files';

type Picker = (how: { mode: 'readwrite'; id: string }) => Promise<Folder>;

/** What was written or read last, by which what others wrote since is known. */
interface Seen {
  readonly shelf: string | null;
  /** Copies that were merged. */
  readonly copies: readonly string[];
  /** The check sum of what was written last, and when that was, in milliseconds since 1970. */
  readonly sum: string | null;
  readonly at: number | null;
}

/** What stands in a folder before anything is written into it. */
export type FolderLook =
  | { readonly kind: 'empty'; readonly others: number }
  /** A shelf lies in it: what merging it would change. */
  | { readonly kind: 'shelf'; readonly incoming: Incoming; readonly copies: number }
  | { readonly kind: 'refused'; readonly words: string };

const HANDLE = 'own-folder';
/** Kept beside the database, so that keeping it is no change of the shelf. */
const SEEN = `loop-shelf-folder ${databaseName()}`;
const TROUBLE = 'own-folder';
/** What changes is written so long after, in milliseconds: within a minute with all that it takes. */
const AFTER = 40_000;
/** What is done with the shelf here tells nobody how far it is. */
const silent = () => proxy(() => undefined);
/** So many files of a folder are looked at. */
const MOST_FILES = 20_000;

const NOTHING: Seen = Object.freeze({ shelf: null, copies: [], sum: null, at: null });

/**
 * A folder of the player's own: the file in it follows the shelf, and what another device wrote there is merged. Every
 * file is written whole or not at all; a failure is said, stands until it is over, and loses nothing.
 */
@Injectable({ providedIn: 'root' })
export class OwnFolder {
  private readonly database = inject(Database);
  private readonly health = inject(HealthService);
  readonly can = 'showDirectoryPicker' in globalThis;
  private readonly nameState = signal<string | null>(null);
  /** The name of the folder; null where none was chosen. */
  readonly name = this.nameState.asReadonly();
  private readonly atState = signal<number | null>(null);
  /** When the file was written last, in milliseconds since 1970. */
  readonly at = this.atState.asReadonly();
  private readonly newsState = signal<string | null>(null);
  /** What was merged from the folder last, in words. */
  readonly news = this.newsState.asReadonly();
  private readonly busyState = signal(false);
  readonly busy = this.busyState.asReadonly();
  private readonly changes = signal(0);
  private began = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private looked: { readonly folder: Folder; readonly files: readonly Found[] } | null = null;
  private waiting: Promise<void> = Promise.resolve();

  /** Follows the folder that was chosen, if there is one: from the start, on focus, at each change and on leaving. */
  async begin(): Promise<void> {
    const folder = await this.folder();
    this.nameState.set(folder?.name ?? null);
    if (!folder) return;
    this.atState.set(seenNow().at);
    this.follow();
    // What was changed as the page was left may not have been written.
    this.changes.update((n) => n + 1);
    await this.sync();
  }

  private follow(): void {
    if (this.began) return;
    this.began = true;
    followChanges((parts) => {
      const own = `idb://${databaseName()}/`;
      const tables = Object.keys(parts).flatMap((p) => (p.startsWith(own) ? [p.slice(own.length).split('/')[0]] : []));
      // The cache and what is not kept yet are no change of the shelf.
      if (tables.some((t) => t !== 'packs' && t !== 'drafts' && t !== 'unkept')) this.touched();
    });
    addEventListener('focus', () => void this.sync());
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'hidden' && this.changes() > 0) void this.sync();
    });
  }

  private touched(): void {
    this.changes.update((n) => n + 1);
    this.timer ??= setTimeout(() => {
      this.timer = null;
      void this.sync();
    }, AFTER);
  }

  /** Lets the player choose a folder, and looks what stands in it. Null where none was chosen. */
  async choose(): Promise<FolderLook | null> {
    try {
      const folder = await (globalThis as unknown as { showDirectoryPicker: Picker }).showDirectoryPicker({
        mode: 'readwrite',
        id: 'loop-shelf-own',
      });
      return await this.look(folder);
    } catch (error) {
      if (error instanceof DOMException && error.name === 'AbortError') return null;
      return { kind: 'refused', words: 'The folder could not be opened. Nothing was written. Choose another.' };
    }
  }

  private async look(folder: Folder): Promise<FolderLook> {
    if (!(await allowed(folder, true)))
      return { kind: 'refused', words: 'The browser was not allowed to write there. Choose it again and allow it.' };
    const { files, others } = await list(folder);
    this.looked = { folder, files };
    const shelf = files.find((f) => f.kind === 'shelf');
    const copies = files.filter((f) => f.kind === 'copy').length;
    if (!shelf) return { kind: 'empty', others };
    const engine = spawnFiles(databaseName());
    try {
      const read = await engine.api.read(shelf.file, silent());
      if (!read.ok) return { kind: 'refused', words: unreadable(FOLDER_FILE, read.problems[0].message) };
      return { kind: 'shelf', incoming: read.value, copies };
    } finally {
      engine.end();
    }
  }

  /** Uses the folder that was looked at: what stands in it is merged, and from now on it follows the shelf. */
  async use(): Promise<void> {
    const { looked } = this;
    if (!looked) return;
    this.looked = null;
    localStorage.removeItem(SEEN);
    if (!(await this.database.write(() => this.database.db.kept.put({ key: HANDLE, value: looked.folder })))) return;
    this.nameState.set(looked.folder.name);
    this.atState.set(null);
    this.follow();
    await this.sync();
  }

  /** The folder is left as it is, and follows no more. */
  async leave(): Promise<void> {
    await this.database.write(() => this.database.db.kept.delete(HANDLE));
    localStorage.removeItem(SEEN);
    this.nameState.set(null);
    this.newsState.set(null);
    this.health.over(TROUBLE);
  }

  /** Writes and merges now; one after the other, in one tab at a time. */
  sync(asks = false): Promise<void> {
    this.waiting = this.waiting.then(() => this.alone(() => this.once(asks))).catch(() => undefined);
    return this.waiting;
  }

  private async alone(work: () => Promise<void>): Promise<void> {
    this.busyState.set(true);
    try {
      // Another tab may be writing the same file: over plain http there are neither folders nor locks.
      await navigator.locks.request('loop-shelf-own-folder', work);
    } finally {
      this.busyState.set(false);
    }
  }

  private async once(asks: boolean): Promise<void> {
    const folder = await this.folder();
    if (!folder) return;
    try {
      if (!(await allowed(folder, asks))) {
        const words = `The folder “${folder.name}” is not allowed any more. Your shelf is safe in this browser.`;
        return this.health.stand(TROUBLE, words, () => void this.sync(true));
      }
      const changes = this.changes();
      const refused = await this.write(folder, asks || changes > 0);
      if (refused !== null) return this.health.stand(TROUBLE, refused, () => void this.sync(true));
      this.changes.update((n) => n - changes);
      this.health.over(TROUBLE);
    } catch (error) {
      this.health.stand(TROUBLE, troubleWords(error, folder.name), () => void this.sync(true));
    }
  }

  /** Null where all went well; else why nothing was written. */
  private async write(folder: Folder, changed: boolean): Promise<string | null> {
    const { files } = await list(folder);
    const seen = seenNow();
    const shelf = files.find((f) => f.kind === 'shelf');
    const fresh = files.filter((f) =>
      f.kind === 'copy' ? !seen.copies.includes(f.mark) : f.kind === 'shelf' && f.mark !== seen.shelf,
    );
    const engine = spawnFiles(databaseName());
    try {
      const news: string[] = [];
      for (const found of fresh) {
        const read = await engine.api.read(found.file, silent());
        if (!read.ok && found.kind === 'shelf') return unreadable(found.name, read.problems[0].message);
        if (!read.ok) {
          news.push(`${found.name} could not be read and was left alone.`);
          continue;
        }
        const taken = await engine.api.take(allOf(read.value), silent());
        if (taken.kind === 'full') return taken.words;
        if (taken.kind === 'taken' && changes(read.value) > 0) news.push(mergedWords(found, read.value));
      }
      if (news.length > 0) this.newsState.set(news.join(' '));
      const copies = files.flatMap((f) => (f.kind === 'copy' ? [f.mark] : []));
      // Where nothing changed on either side there is nothing to write.
      if (!changed && fresh.length === 0 && shelf && seen.at !== null) return null;
      const text = await engine.api.export(silent());
      const sum = await sumOf(text);
      if (sum === seen.sum && shelf?.mark === seen.shelf) return null;
      await this.keepDay(folder, shelf, seen);
      await put(folder, FOLDER_FILE, text);
      const written = await (await folder.getFileHandle(FOLDER_FILE)).getFile();
      if (written.size !== text.size) throw new Error('not written whole');
      this.note({ shelf: markOf(FOLDER_FILE, written), copies, sum, at: now() });
      return null;
    } finally {
      engine.end();
    }
  }

  /** The first writing of a day keeps how the shelf was at the end of the day before. */
  private async keepDay(folder: Folder, shelf: Found | undefined, seen: Seen): Promise<void> {
    const last = seen.at === null ? null : practiceDay(seen.at);
    if (shelf && last !== null && last !== practiceDay(now())) await put(folder, dayFile(isoDay(last)), shelf.file);
    const { files } = await list(folder);
    for (const name of staleDays(files.map((f) => f.name))) await folder.removeEntry(name);
  }

  private note(seen: Seen): void {
    localStorage.setItem(SEEN, JSON.stringify(seen));
    this.atState.set(seen.at);
  }

  private async folder(): Promise<Folder | null> {
    const row = await this.database.read(undefined, () => this.database.db.kept.get(HANDLE));
    const value = row?.value as Folder | undefined;
    return value && 'getFileHandle' in value ? value : null;
  }
}

/** What was seen last, also by another tab. What cannot be read is nothing: then all that stands there is merged. */
function seenNow(): Seen {
  try {
    const seen: unknown = JSON.parse(localStorage.getItem(SEEN) ?? '{}');
    const { shelf, copies, sum, at } = { ...NOTHING, ...(typeof seen === 'object' ? seen : {}) };
    return {
      shelf: typeof shelf === 'string' ? shelf : null,
      copies: Array.isArray(copies) ? copies.filter((c) => typeof c === 'string') : [],
      sum: typeof sum === 'string' ? sum : null,
      at: typeof at === 'number' ? at : null,
    };
  } catch {
    return NOTHING;
  }
}

/** A file of ours in the folder. Its mark tells whether it is still the one that was seen. */
interface Found {
  readonly kind: 'shelf' | 'copy' | 'day';
  readonly name: string;
  readonly file: File;
  readonly mark: string;
}

async function list(folder: Folder): Promise<{ readonly files: readonly Found[]; readonly others: number }> {
  const files: Found[] = [];
  let [others, met] = [0, 0];
  for await (const [name, handle] of folder.entries()) {
    if (++met > MOST_FILES) break;
    const { kind } = folderEntry(name);
    if (kind === 'other' || handle.kind !== 'file') others++;
    else {
      const file = await (handle as FileSystemFileHandle).getFile();
      files.push({ kind, name, file, mark: markOf(name, file) });
    }
  }
  return { files: files.sort((a, b) => (a.name < b.name ? -1 : 1)), others };
}

/** The check sum that stands at the end of a shelf file. */
async function sumOf(text: Blob): Promise<string | null> {
  return /"checksum":"(\w+)"/.exec(await text.slice(-80).text())?.[1] ?? null;
}

function markOf(name: string, { size, lastModified }: File): string {
  return `${name} ${size} ${lastModified}`;
}

function allOf({ named }: Incoming): Chosen {
  return { without: [], log: true, boards: true, shows: true, lessons: true, named: named.map((n) => n.key) };
}

function changes({ groups, tries, takes, drills, boards, shows, lessons, sittings, named }: Incoming): number {
  const phrases = groups.filter((g) => g.kind !== 'stays off').reduce((n, g) => n + g.lines.length, 0);
  return phrases + tries + takes + drills + boards + shows + lessons + sittings + named.length;
}

function mergedWords({ kind, name }: Found, { groups, tries }: Incoming): string {
  const phrases = groups.filter((g) => g.kind !== 'stays off').reduce((n, g) => n + g.lines.length, 0);
  const what = `${count(phrases, 'phrase')} and ${count(tries, 'try', 'tries')}`;
  return kind === 'copy'
    ? `The copy ${name} was merged: ${what}. You may delete it.`
    : `What another device wrote was merged: ${what}.`;
}

function unreadable(name: string, why: string): string {
  return `${name} in the folder cannot be used: ${why} Nothing was written. Move it away, or choose another folder.`;
}

function troubleWords(error: unknown, name: string): string {
  const kind = error instanceof DOMException ? error.name : '';
  if (isFull(error)) return `The disk of the folder “${name}” is full. Your shelf is safe in this browser.`;
  if (kind === 'NotFoundError') return `The folder “${name}” is gone. Your shelf is safe in this browser.`;
  if (kind === 'NotAllowedError' || kind === 'NoModificationAllowedError')
    return `The folder “${name}” cannot be written. Your shelf is safe in this browser.`;
  return `The folder “${name}” could not be written. Your shelf is safe in this browser.`;
}
