import { Injectable, signal } from '@angular/core';
import type { Clip } from '@core/listen';
import { spawnBacking } from './spawn-sound';

/** So many tempos are kept at once: the one that sounds, the next, and the half of one. */
const KEPT = 4;

/**
 * The record that goes round beneath a phrase: made once for each tempo, beside the page, and silent until then.
 */
@Injectable({ providedIn: 'root' })
export class BackingService {
  private clip: Clip | null = null;
  private worker: (ReturnType<typeof spawnBacking> & { readonly taken: Promise<unknown> }) | null = null;
  /** By quarters a minute; null while it is being made, and where nothing can be made of it. */
  private readonly made = new Map<number, AudioBuffer | null>();
  /** Tempos at which this record cannot sound. */
  private readonly far = signal<ReadonlySet<number>>(new Set());

  private readonly brokeState = signal(false);
  /** What makes it broke: it is silent until it is tried again. */
  readonly broke = this.brokeState.asReadonly();

  /** The record that is meant from now on; null for none. */
  take(clip: Clip | null): void {
    if (clip?.id === this.clip?.id && clip?.at === this.clip?.at) return;
    this.worker?.end();
    this.worker = null;
    this.clip = clip;
    this.made.clear();
    this.far.set(new Set());
    this.brokeState.set(false);
  }

  /** After it broke: whatever is prepared from now on is made anew. */
  tryAgain(): void {
    const { clip } = this;
    this.take(null);
    this.take(clip);
  }

  /** Whether the record cannot go at a tempo, in quarters a minute. */
  isFar(bpm: number): boolean {
    return this.far().has(bpm);
  }

  /** Has it made for a tempo that will be played, in quarters a minute. */
  prepare(bpm: number): void {
    if (!this.clip || this.brokeState() || this.made.has(bpm)) return;
    this.made.set(bpm, null);
    for (const old of [...this.made.keys()].slice(0, -KEPT)) this.made.delete(old);
    const { clip } = this;
    this.make(clip, bpm).catch((error: unknown) => {
      if (clip !== this.clip) return;
      console.error(error);
      this.worker?.end();
      this.worker = null;
      this.brokeState.set(true);
    });
  }

  /** At a tempo in quarters a minute; null while it is being made. */
  at(bpm: number): AudioBuffer | null {
    this.prepare(bpm);
    return this.made.get(bpm) ?? null;
  }

  private async make(clip: Clip, bpm: number): Promise<void> {
    if (!this.worker) {
      const worker = spawnBacking();
      this.worker = { ...worker, taken: Promise.resolve(worker.api.take(clip)) };
    }
    const { worker } = this;
    const [made] = await Promise.race([Promise.all([worker.api.at(bpm), worker.taken]), worker.broken]);
    if (worker !== this.worker || !this.made.has(bpm)) return;
    if (!made) {
      this.far.update((far) => new Set([...far, bpm]));
      return;
    }
    const buffer = new AudioBuffer({ numberOfChannels: 1, length: made.samples.length, sampleRate: made.rate });
    buffer.copyToChannel(made.samples, 0);
    this.made.set(bpm, buffer);
  }
}
