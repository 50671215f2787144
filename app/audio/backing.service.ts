import { Injectable, signal } from '@angular/core';
import type { Clip } from '@core/listen';
import { spawnBacking } from '../workers/spawn';

/** So many tempos are kept at once: the one that sounds, the next, and the half of one. */
const KEPT = 4;

/**
 * The record that goes round beneath a phrase: made once for each tempo, beside the page, and silent until then.
 */
@Injectable({ providedIn: 'root' })
export class BackingService {
  private clip: Clip | null = null;
  private worker: ReturnType<typeof spawnBacking> | null = null;
  /** By quarters a minute; null while it is being made, and where nothing can be made of it. */
  private readonly made = new Map<number, AudioBuffer | null>();
  /** Tempos at which this record cannot sound. */
  private readonly far = signal<ReadonlySet<number>>(new Set());

  /** The record that is meant from now on; null for none. */
  take(clip: Clip | null): void {
    if (clip?.id === this.clip?.id && clip?.at === this.clip?.at) return;
    this.worker?.end();
    this.worker = null;
    this.clip = clip;
    this.made.clear();
    this.far.set(new Set());
  }

  /** Whether the record cannot go at a tempo, in quarters a minute. */
  isFar(bpm: number): boolean {
    return this.far().has(bpm);
  }

  /** Has it made for a tempo that will be played, in quarters a minute. */
  prepare(bpm: number): void {
    if (!this.clip || this.made.has(bpm)) return;
    this.made.set(bpm, null);
    for (const old of [...this.made.keys()].slice(0, -KEPT)) this.made.delete(old);
    void this.make(this.clip, bpm);
  }

  /** At a tempo in quarters a minute; null while it is being made. */
  at(bpm: number): AudioBuffer | null {
    this.prepare(bpm);
    return this.made.get(bpm) ?? null;
  }

  private async make(clip: Clip, bpm: number): Promise<void> {
    if (!this.worker) {
      this.worker = spawnBacking();
      void this.worker.api.take(clip);
    }
    const { worker } = this;
    const made = await worker.api.at(bpm);
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
