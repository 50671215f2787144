import { computed, Injectable, signal } from '@angular/core';
import { storageWords } from './storage-words';

/** A trouble with storage that is shown until it is mended or closed. */
export interface Trouble {
  readonly words: string;
  readonly retry: (() => void) | null;
}

interface FailedWrite {
  readonly about: unknown;
  readonly words: string;
  readonly run: () => Promise<unknown>;
}

/**
 * Every write goes through here: a failed one is shown in words and can be tried again, never swallowed; and it is
 * known whether one is under way.
 */
@Injectable({ providedIn: 'root' })
export class HealthService {
  private readonly underWay = signal(0);
  private readonly failed = signal<readonly FailedWrite[]>([]);
  private readonly told = signal<string | null>(null);

  private readonly endedState = signal<string | null>(null);
  /** Why this tab keeps nothing any more; null as long as it does. */
  readonly ended = this.endedState.asReadonly();

  readonly trouble = computed<Trouble | null>(() => {
    const failed = this.failed().at(-1);
    if (failed) return { words: failed.words, retry: () => void this.retry() };
    const told = this.told();
    return told === null ? null : { words: told, retry: null };
  });
  /** Whether something is being written at this moment. */
  readonly writing = computed(() => this.underWay() > 0);
  /**
   * Whether the browser's storage holds all there is: nothing is being written, and nothing that failed waits to be
   * tried again.
   */
  readonly allKept = computed(() => this.ended() !== null || (!this.writing() && this.failed().length === 0));

  /**
   * Runs a write. Resolves to whether it was kept.
   * @param about what is written. A later write about the same takes the place of one that failed: trying again never
   * puts the older over the newer.
   */
  write(run: () => Promise<unknown>, about: unknown = run): Promise<boolean> {
    return this.during(async () => {
      try {
        await run();
        this.forget(about);
        this.told.set(null);
        return true;
      } catch (error) {
        this.forget(about);
        this.failed.update((all) => [...all, { about, words: storageWords(error), run }]);
        return false;
      }
    });
  }

  /** Work that ends in a write, reading first or waiting: while it lasts the page is not to be left unasked. */
  async during<T>(work: () => Promise<T>): Promise<T> {
    this.underWay.update((n) => n + 1);
    try {
      return await work();
    } finally {
      this.underWay.update((n) => n - 1);
    }
  }

  /** From here on this tab keeps nothing: it is said instead of everything else. */
  end(words: string): void {
    this.endedState.set(words);
  }

  /** What was told is over by itself. */
  untell(): void {
    this.told.set(null);
  }

  /** Shows a trouble that no retry mends. */
  tell(words: string): void {
    this.told.set(words);
  }

  fail(error: unknown): void {
    this.tell(storageWords(error));
  }

  dismiss(): void {
    this.told.set(null);
    this.failed.set([]);
  }

  /** All that failed, in the order in which it was meant. */
  private async retry(): Promise<void> {
    for (const { run, about } of this.failed()) await this.write(run, about);
  }

  private forget(about: unknown): void {
    if (this.failed().some((f) => f.about === about)) this.failed.update((all) => all.filter((f) => f.about !== about));
  }
}
