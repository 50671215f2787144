import { Injectable, signal } from '@angular/core';
import { storageWords } from './storage-words';

/** A trouble with storage that is shown until it is mended or closed. */
export interface Trouble {
  readonly words: string;
  readonly retry: (() => void) | null;
}

/** Every write goes through here: a failed one is shown in words and can be tried again, never swallowed. */
@Injectable({ providedIn: 'root' })
export class HealthService {
  private readonly state = signal<Trouble | null>(null);
  readonly trouble = this.state.asReadonly();

  /** Runs a write. Resolves to whether it was kept. */
  async write(run: () => Promise<unknown>): Promise<boolean> {
    try {
      await run();
      this.state.set(null);
      return true;
    } catch (error) {
      this.state.set({ words: storageWords(error), retry: () => void this.write(run) });
      return false;
    }
  }

  /** Shows a trouble that no retry mends. */
  tell(words: string): void {
    this.state.set({ words, retry: null });
  }

  fail(error: unknown): void {
    this.tell(storageWords(error));
  }

  dismiss(): void {
    this.state.set(null);
  }
}
