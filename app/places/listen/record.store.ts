import { inject, Injectable, signal } from '@angular/core';
import { proxy, transfer, type Remote } from 'comlink';
import type { Peaks } from '@core/listen';
import { RecordPlayer } from '../../sound/record-player';
import { spawnListening } from './spawn-listening';
import type { Analysis, ListeningEngine } from './listening.engine';
import { readSound } from './sound-file';

/** Samples that are handed to the worker at once: more would hold up the page. */
const PIECE = 262_144;

/** What is being done with a recording. */
export type Doing =
  | { readonly kind: 'nothing' }
  | { readonly kind: 'reading'; readonly name: string }
  | { readonly kind: 'analysing'; readonly share: number }
  | { readonly kind: 'refused'; readonly words: string };

/** A recording: read, drawn, analysed, and its sound. Another one ends whatever was being done with the one before. */
@Injectable({ providedIn: 'root' })
export class RecordStore {
  readonly player = inject(RecordPlayer);
  readonly doing = signal<Doing>({ kind: 'nothing' });
  readonly name = signal('');
  readonly buffer = signal<AudioBuffer | null>(null);
  readonly peaks = signal<Peaks | null>(null);
  readonly analysis = signal<Analysis | null>(null);
  private worker: { readonly api: Remote<ListeningEngine>; readonly end: () => void } | null = null;
  private run = 0;
  private readonly slowed = new Map<string, AudioBuffer>();

  get api(): Remote<ListeningEngine> | null {
    return this.worker?.api ?? null;
  }

  /** Reads a recording. Resolves to whether there is one now; what stood there before stays where there is none. */
  async open(file: Blob, name: string): Promise<boolean> {
    const run = ++this.run;
    this.player.stop();
    this.doing.set({ kind: 'reading', name });
    const read = await readSound(file);
    if (run !== this.run) return false;
    if (!read.ok) {
      this.doing.set({ kind: 'refused', words: read.words });
      return false;
    }
    this.close();
    this.run = run;
    const worker = spawnListening();
    this.worker = worker;
    this.name.set(name);
    this.doing.set({ kind: 'analysing', share: 0 });
    try {
      await this.hand(worker.api, read.buffer);
      if (run !== this.run) return false;
      this.peaks.set(await worker.api.peaks());
      this.buffer.set(read.buffer);
      const tell = (share: number): void => {
        if (run === this.run) this.doing.set({ kind: 'analysing', share });
      };
      const analysis = await worker.api.analyse(proxy(tell));
      if (run !== this.run) return false;
      this.analysis.set(analysis);
      this.doing.set({ kind: 'nothing' });
      return true;
    } catch {
      if (run === this.run)
        this.doing.set({ kind: 'refused', words: 'Reading this recording failed. Choose it again.' });
      return false;
    }
  }

  private async hand(api: Remote<ListeningEngine>, buffer: AudioBuffer): Promise<void> {
    await api.begin(buffer.length, buffer.sampleRate);
    for (let at = 0; at < buffer.length; at += PIECE) {
      const long = Math.min(PIECE, buffer.length - at);
      const channels = Array.from({ length: buffer.numberOfChannels }, (_, c) => {
        const part = new Float32Array(long);
        buffer.copyFromChannel(part, c, at);
        return part;
      });
      await api.add(at, handedOver(channels));
    }
  }

  /** A stretch at a pace, made once. Null while there is nothing, or where it was let go. */
  async paced(from: number, to: number, speed: number): Promise<AudioBuffer | null> {
    const key = `${from.toFixed(3)} ${to.toFixed(3)} ${speed}`;
    const known = this.slowed.get(key);
    if (known) return known;
    const { run, api } = this;
    const rate = this.buffer()?.sampleRate;
    if (!api || !rate) return null;
    const samples = await api.slowed(from, to, speed);
    if (run !== this.run) return null;
    const made = this.player.bufferOf([samples], rate);
    this.slowed.set(key, made);
    for (const old of [...this.slowed.keys()].slice(0, -8)) this.slowed.delete(old);
    return made;
  }

  /** Breaks off what is being done. */
  cancel(): void {
    this.close();
    this.doing.set({ kind: 'nothing' });
  }

  close(): void {
    this.run++;
    this.player.stop();
    this.worker?.end();
    this.worker = null;
    this.slowed.clear();
    this.buffer.set(null);
    this.peaks.set(null);
    this.analysis.set(null);
    this.name.set('');
  }
}

/** Samples that go to the worker as they are, without a copy of them. */
function handedOver(channels: Float32Array<ArrayBuffer>[]): Float32Array<ArrayBuffer>[] {
  return transfer(
    channels,
    channels.map((c) => c.buffer),
  );
}
