import { computed, inject, Injectable, InjectionToken, signal } from '@angular/core';
import { isFull, storageWords } from './storage-words';

/** A trouble with storage that is shown until it is mended or closed. */
export interface Trouble {
  readonly words: string;
  readonly retry: (() => void) | null;
  /** Whether it stands until it is over, and cannot be closed. */
  readonly stays?: true;
  /** Whether a backup is to be saved at once. */
  readonly urges?: true;
}

/** After so long without an answer of the storage it is said that it is busy, in milliseconds. */
export const PATIENCE = new InjectionToken<number>('patience', { factory: () => 2000 });

const BUSY = 'The shelf is busy in another tab. Your work waits and is kept then.';

interface FailedWrite {
  readonly about: unknown;
  readonly words: string;
  readonly full: boolean;
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

  private readonly standing = signal<ReadonlyMap<string, Trouble>>(new Map());
  private readonly patience = inject(PATIENCE);
  /** How much that was asked of the storage is late. */
  private readonly late = signal(0);

  private readonly endedState = signal<string | null>(null);
  /** Why this tab keeps nothing any more; null as long as it does. */
  readonly ended = this.endedState.asReadonly();

  readonly trouble = computed<Trouble | null>(() => {
    const failed = this.failed().at(-1);
    if (failed) return { words: failed.words, retry: () => void this.retry(), ...(failed.full ? { urges: true } : {}) };
    const stands = [...this.standing().values()].at(-1);
    if (stands) return stands;
    const told = this.told();
    if (told !== null) return { words: told, retry: null };
    return this.late() > 0 ? { words: BUSY, retry: null, stays: true } : null;
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
        await this.awaited(run());
        this.forget(about);
        this.told.set(null);
        return true;
      } catch (error) {
        this.forget(about);
        this.failed.update((all) => [...all, { about, words: storageWords(error), full: isFull(error), run }]);
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

  /** What is asked of the storage. Where no answer comes for a while that is said until it does. */
  async awaited<T>(work: PromiseLike<T>): Promise<T> {
    const late = { by: 0 };
    const timer = setTimeout(() => {
      late.by = 1;
      this.late.update((n) => n + 1);
    }, this.patience);
    try {
      return await work;
    } finally {
      clearTimeout(timer);
      this.late.update((n) => n - late.by);
    }
  }

  /** A trouble that stands until it is over, with what may mend it. */
  stand(about: string, words: string, retry: (() => void) | null): void {
    this.standing.update((all) => new Map(all).set(about, { words, retry, stays: true }));
  }

  over(about: string): void {
    if (!this.standing().has(about)) return;
    this.standing.update((all) => new Map([...all].filter(([key]) => key !== about)));
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
