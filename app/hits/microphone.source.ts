import { effect, inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Hit } from '@core/take';
import { MicLevelsRepo } from '../storage/mic-levels.repo';
import type { HitSource } from './source';
import { askMicrophone, closeMicrophone, reasonOf } from './ask-microphone';

/** What the worklet tells. */
type WorkletMessage =
  | { readonly kind: 'hit'; readonly seconds: number; readonly peak: number; readonly velocity: number }
  | { readonly kind: 'level'; readonly peak: number; readonly bright: number };

function isTold(value: unknown): value is WorkletMessage {
  return (
    typeof value === 'object' && value !== null && 'kind' in value && (value.kind === 'hit' || value.kind === 'level')
  );
}

const WHY: ReadonlyMap<string, string> = new Map([
  ['NotAllowedError', 'The microphone was not allowed. Allow it in the address bar, then choose it again.'],
  ['NotReadableError', 'Another program has the microphone. Close that program, then choose it again.'],
  ['AbortError', 'Another program has the microphone. Close that program, then choose it again.'],
  ['TimeoutError', 'The microphone does not answer. Unplug it and plug it in again, then choose it again.'],
]);

/** The microphone at a practice pad: hits are found on the audio thread. It hears one surface, not which hand. */
@Injectable({ providedIn: 'root' })
export class MicrophoneSource implements HitSource {
  readonly kind = 'microphone';
  readonly name = 'Microphone';
  readonly hint =
    'For a practice pad. Wear headphones, so that it hears you and not the click. Nothing is recorded or sent.';
  private readonly levels = inject(MicLevelsRepo);
  private readonly hits = new Subject<Hit>();
  readonly hits$ = this.hits.asObservable();
  /** Peaks of hits, for setting the levels. */
  readonly peaks$ = new Subject<number>();
  private readonly troubleState = signal<string | null>(null);
  readonly trouble = this.troubleState.asReadonly();
  readonly news = signal<string | null>(null).asReadonly();
  /** How loud it is now, 0–1. */
  readonly level = signal(0);
  /** How loud it is where hits are looked for, 0–1. */
  readonly bright = signal(0);
  private context: AudioContext | null = null;
  private stream: MediaStream | null = null;
  private node: AudioWorkletNode | null = null;

  constructor() {
    effect(() => {
      // Read before it is known whether anybody listens: else a change is never heard of.
      const levels = this.levels.now();
      this.node?.port.postMessage(levels);
    });
  }

  async start(): Promise<boolean> {
    if (this.node) return true;
    if (!('mediaDevices' in navigator))
      return this.fail('No microphone here: browsers allow it only over https or on this computer.');
    try {
      this.stream = await askMicrophone();
    } catch (error) {
      return this.fail(WHY.get(reasonOf(error)) ?? 'No microphone was found. Plug one in, then choose it again.');
    }
    try {
      this.context = new AudioContext({ latencyHint: 'interactive' });
      await this.context.audioWorklet.addModule(new URL('worklets/onset.js', document.baseURI));
      await this.context.resume();
      this.node = new AudioWorkletNode(this.context, 'onset', { numberOfInputs: 1, numberOfOutputs: 0 });
      this.node.port.onmessage = ({ data }: MessageEvent<unknown>) => this.hear(data);
      this.node.port.postMessage(this.levels.now());
      this.context.createMediaStreamSource(this.stream).connect(this.node);
      for (const track of this.stream.getTracks())
        track.onended = () => {
          // So that choosing it again begins anew.
          this.stop();
          this.fail('The microphone was unplugged. What you played is kept. Plug it in again.');
        };
    } catch {
      this.stop();
      return this.fail('This browser cannot use the microphone.');
    }
    this.troubleState.set(null);
    return true;
  }

  stop(): void {
    this.node?.disconnect();
    if (this.stream) closeMicrophone(this.stream);
    void this.context?.close().catch(() => undefined);
    this.node = null;
    this.stream = null;
    this.context = null;
    this.level.set(0);
  }

  private hear(data: unknown): void {
    const { context } = this;
    if (!context || !isTold(data)) return;
    if (data.kind === 'level') {
      this.level.set(data.peak);
      this.bright.set(data.bright);
      return;
    }
    const stamp = context.getOutputTimestamp();
    const lead = (stamp.performanceTime ?? performance.now()) / 1000 - (stamp.contextTime ?? context.currentTime);
    this.peaks$.next(data.peak);
    this.hits.next({ seconds: data.seconds + lead, limb: null, voice: null, velocity: data.velocity });
  }

  private fail(words: string): false {
    this.troubleState.set(words);
    return false;
  }
}
