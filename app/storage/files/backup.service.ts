import { computed, inject, Injectable, signal } from '@angular/core';
import { format } from 'date-fns';
import type { Backup } from '@core/formats/shelf-file';
import { now } from '../../environment/clock';
import { Database } from '../database';
import { KeptValue } from '../kept-value';
import { allowed, put, type Folder } from './folder-handle';
import { ShelfFiles } from './shelf-files.service';

const WEEK = 7 * 24 * 60 * 60 * 1000;
/** A folder that was chosen for backups alone, before there was one of one's own. */
const FOLDER = 'backup-folder';
const USUAL: Backup = Object.freeze({ weekly: false, last: null });

/**
 * Backups: on request, and if wished by themselves every week, into a folder the player chose where the browser can
 * write to one, else as a download. Where the browser keeps what it keeps, and how much of it, is told too.
 */
@Injectable({ providedIn: 'root' })
export class BackupService {
  private readonly database = inject(Database);
  private readonly files = inject(ShelfFiles);
  private readonly value = new KeptValue<Backup>(this.database, 'backup', USUAL);
  readonly now = this.value.now;
  private readonly laterState = signal(false);
  /** Whether a weekly backup waits for a press: a page may write by itself only where it was allowed to. */
  readonly waits = computed(() => !this.laterState() && this.waiting());
  private readonly waiting = signal(false);

  /** Called when the page has come to rest: writes the weekly backup where it may, else asks for a press. */
  async look(): Promise<void> {
    await this.database.ready;
    const kept = await this.database.read(undefined, () => this.database.db.kept.get('backup'));
    const { weekly, last } = kept ? (kept.value as Backup) : USUAL;
    if (!weekly || (last !== null && now() - last < WEEK)) return;
    const folder = await this.folder();
    if (folder && (await folder.queryPermission?.({ mode: 'readwrite' })) === 'granted') await this.save();
    else this.waiting.set(true);
  }

  /** That the shelf was exported as a file by hand: that is as good as a backup. */
  noteExport(): Promise<boolean> {
    return this.value.patch({ last: now() });
  }

  later(): void {
    this.laterState.set(true);
  }

  weekly(on: boolean): Promise<boolean> {
    return this.value.patch({ weekly: on });
  }

  /** Writes a backup now: into the folder, else as a download. Resolves to where it went, in words. */
  async save(): Promise<string> {
    const file = await this.files.export();
    const name = `loop-shelf-${format(now(), 'yyyy-MM-dd-HHmm')}.json`;
    const folder = await this.folder();
    let words = `The backup ${name} is in your downloads.`;
    if (folder && (await allowed(folder, true))) {
      await put(folder, name, file);
      words = `The backup ${name} is in ${folder.name}.`;
    } else download(file, name);
    this.waiting.set(false);
    await this.value.patch({ last: now() });
    return words;
  }

  /** Asks the browser not to clear what is kept when it runs out of room. Nothing relies on the answer. */
  async persist(): Promise<void> {
    try {
      if (!(await navigator.storage.persisted())) await navigator.storage.persist();
    } catch {
      // Over plain http there is nobody to ask.
    }
  }

  /** How much is used here in bytes, and whether the browser keeps it for good; null where it does not tell. */
  async used(): Promise<{ readonly bytes: number; readonly forGood: boolean } | null> {
    try {
      const [{ usage = 0 }, forGood] = await Promise.all([navigator.storage.estimate(), navigator.storage.persisted()]);
      return { bytes: usage, forGood };
    } catch {
      return null;
    }
  }

  private async folder(): Promise<Folder | null> {
    const [own, row] = await this.database.read<readonly ({ value?: unknown } | undefined)[]>([], () =>
      this.database.db.kept.bulkGet(['own-folder', FOLDER]),
    );
    const value = (own ?? row)?.value as Folder | undefined;
    return value && 'getFileHandle' in value ? value : null;
  }
}

function download(file: Blob, name: string): void {
  const url = URL.createObjectURL(file);
  Object.assign(document.createElement('a'), { href: url, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
