import { inject, Injectable, signal } from '@angular/core';
import type { Read } from '@core/base';
import type { ShelfCode } from '@core/formats/shelf-file';
import { proxy } from 'comlink';
import { spawnFiles } from './spawn-files';
import { Unfetched } from '../../environment/workers';
import { Database } from '../database';
import { databaseName } from '../../environment/which-shelf';
import type { Chosen, Incoming, Taken } from './files-engine';
import { HealthService } from '../health.service';

export type { Chosen, Incoming, Taken } from './files-engine';

/** How far a long work is. */
export interface Working {
  readonly share: number;
  readonly words: string;
}

/** Work that the player stopped. */
export class Stopped extends Error {}

/**
 * The shelf as a file, out and in. It is read, merged and written in a worker, with progress; stopping it leaves the
 * shelf as it was. Nothing changes before the whole file is known to be good and what it changes was shown.
 */
@Injectable({ providedIn: 'root' })
export class ShelfFiles {
  private readonly database = inject(Database);
  private readonly health = inject(HealthService);
  /** A file that was brought in elsewhere and waits to be read where the shelf's own files are. */
  private waiting: Blob | null = null;
  private readonly workingState = signal<Working | null>(null);
  /** What is under way; null when nothing is. */
  readonly working = this.workingState.asReadonly();
  private engine: ReturnType<typeof spawnFiles> | null = null;
  private stop: (() => void) | null = null;

  /** The whole shelf as a file, or some phrases of it with all that belongs to them. */
  export(only: readonly string[] | null = null): Promise<Blob> {
    return this.run('Reading the shelf', (engine, tell) => engine.api.export(tell, only));
  }

  /** Reads a file and tells what it would change. */
  read(file: Blob): Promise<Read<Incoming, ShelfCode>> {
    this.forget();
    return this.run('Reading the file', (engine, tell) => engine.api.read(file, tell));
  }

  /** Takes what was chosen of the file that was read. */
  take(chosen: Chosen): Promise<Taken> {
    return this.database.during(() =>
      this.run('Putting it on the shelf', (engine, tell) => engine.api.take(chosen, tell)),
    );
  }

  /** Takes back what was taken last, and only that. Resolves to what was done, in words. */
  async undo(): Promise<string> {
    const { engine } = this;
    if (!engine) return 'There is nothing to undo.';
    let words = '';
    await this.health.write(async () => (words = await engine.api.undo()));
    return words;
  }

  /** Stops what is under way. */
  cancel(): void {
    this.stop?.();
  }

  /** Hands a file over to the place where shelf files are read. */
  hand(file: Blob): void {
    this.waiting = file;
  }

  /** The file that was handed over, once. */
  handed(): Blob | null {
    const file = this.waiting;
    this.waiting = null;
    return file;
  }

  /** Lets go of a file that was read. */
  forget(): void {
    this.engine?.end();
    this.engine = null;
  }

  private async run<T>(
    words: string,
    work: (engine: ReturnType<typeof spawnFiles>, tell: (share: number, words: string) => void) => Promise<T>,
  ): Promise<T> {
    await this.database.ready;
    const engine = (this.engine ??= spawnFiles(databaseName()));
    this.workingState.set({ share: 0, words });
    const stopped = new Promise<never>((_, reject) => {
      this.stop = () => {
        this.forget();
        reject(new Stopped());
      };
    });
    try {
      return await Promise.race([
        work(
          engine,
          proxy((share: number, words: string) => this.workingState.set({ share, words })),
        ),
        stopped,
      ]);
    } catch (error) {
      // It never came up: the next try fetches it again.
      if (error instanceof Unfetched) this.forget();
      throw error;
    } finally {
      this.stop = null;
      this.workingState.set(null);
    }
  }
}
