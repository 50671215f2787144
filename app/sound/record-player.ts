import { effect, inject, Injectable, signal } from '@angular/core';
import { Transport } from './transport.service';

/** A stretch of a sound that is a stretch of the record: in seconds. */
export interface Laid {
  readonly at: number;
  readonly record: number;
  readonly seconds: number;
}

/** What of a record sounds: its samples, the moment of the record with which they begin, and their pace. */
export interface RecordSound {
  readonly buffer: AudioBuffer;
  /** Second of the record at the beginning of the samples. */
  readonly from: number;
  readonly speed: number;
  /** Seconds of the samples that go round; null for once through. */
  readonly round: { readonly from: number; readonly to: number } | null;
  /** Where the samples are not the record as it goes on, but stretches of it. */
  readonly laid?: readonly Laid[];
}

/** Seconds in which one pace gives way to another. */
const FADE = 0.012;

/**
 * Plays a record: from anywhere, round and round without a gap, and from one pace to another at the same place. Either
 * a record sounds or a phrase does.
 */
@Injectable({ providedIn: 'root' })
export class RecordPlayer {
  private readonly transport = inject(Transport);
  private context: AudioContext | null = null;
  private now: {
    readonly sound: RecordSound;
    readonly source: AudioBufferSourceNode;
    readonly gain: GainNode;
    readonly begun: number;
    readonly offset: number;
  } | null = null;
  private run = 0;
  private readonly playingState = signal(false);
  private readonly positionState = signal<number | null>(null);
  readonly playing = this.playingState.asReadonly();
  /** The second of the record that is heard; null in silence. */
  readonly position = this.positionState.asReadonly();
  readonly trouble = signal<string | null>(null);

  constructor() {
    effect(() => {
      if (this.transport.playing()) this.stop();
    });
  }

  /** Makes samples ready to sound. */
  bufferOf(channels: readonly Float32Array<ArrayBuffer>[], rate: number): AudioBuffer {
    const first = channels[0] ?? new Float32Array(1);
    const buffer = new AudioBuffer({
      numberOfChannels: Math.max(1, channels.length),
      length: Math.max(1, first.length),
      sampleRate: rate,
    });
    channels.forEach((c, i) => buffer.copyToChannel(c, i));
    return buffer;
  }

  /** Begins a sound at a second of the record. */
  async play(sound: RecordSound, at: number): Promise<void> {
    this.transport.stop();
    const run = ++this.run;
    const context = await this.wake();
    if (!context || run !== this.run) return;
    this.begin(context, sound, offsetOf(sound, at));
    this.playingState.set(true);
    requestAnimationFrame(() => this.follow(run));
  }

  /** Goes on with another sound at the place that is heard now. Does nothing in silence. */
  goOn(sound: RecordSound): void {
    const { context } = this;
    if (!context || !this.now) return;
    this.begin(context, sound, offsetOf(sound, this.placeNow(context)));
  }

  /** What sounds; null in silence. */
  sounding(): RecordSound | null {
    return this.now?.sound ?? null;
  }

  stop(): void {
    this.run++;
    const { context, now } = this;
    if (context && now) this.end(context, now);
    this.now = null;
    this.playingState.set(false);
    this.positionState.set(null);
  }

  private begin(context: AudioContext, sound: RecordSound, offset: number): void {
    const old = this.now;
    const source = context.createBufferSource();
    source.buffer = sound.buffer;
    if (sound.round) {
      source.loop = true;
      source.loopStart = sound.round.from;
      source.loopEnd = sound.round.to;
    }
    const gain = context.createGain();
    const begun = context.currentTime;
    gain.gain.setValueAtTime(0, begun);
    gain.gain.linearRampToValueAtTime(1, begun + (old ? FADE : 0.002));
    source.connect(gain).connect(context.destination);
    source.onended = () => {
      gain.disconnect();
      if (this.now?.source === source) this.stop();
    };
    source.start(begun, offset);
    this.now = { sound, source, gain, begun, offset };
    if (old) this.end(context, old);
  }

  private end(context: AudioContext, { gain, source }: { gain: GainNode; source: AudioBufferSourceNode }): void {
    const at = context.currentTime;
    gain.gain.cancelScheduledValues(at);
    gain.gain.setValueAtTime(1, at);
    gain.gain.linearRampToValueAtTime(0, at + FADE);
    source.stop(at + FADE);
  }

  private placeNow(context: AudioContext, delay = 0): number {
    const { now } = this;
    if (!now) return 0;
    const { sound, begun, offset } = now;
    let at = offset + Math.max(0, context.currentTime - delay - begun);
    const { round } = sound;
    if (round && at > round.to) at = round.from + ((at - round.from) % Math.max(0.001, round.to - round.from));
    const part = sound.laid?.findLast((l) => l.at <= at);
    return part ? part.record + (at - part.at) * sound.speed : sound.from + at * sound.speed;
  }

  private follow(run: number): void {
    if (run !== this.run || !this.context) return;
    this.positionState.set(this.placeNow(this.context, this.context.outputLatency || 0));
    requestAnimationFrame(() => this.follow(run));
  }

  private async wake(): Promise<AudioContext | null> {
    try {
      this.context ??= new AudioContext({ latencyHint: 'interactive' });
      await Promise.race([this.context.resume(), new Promise((r) => setTimeout(r, 2000))]);
      const held = this.context.state === 'suspended';
      this.trouble.set(held ? 'The browser blocked the sound. Press play again; if it stays silent, reload.' : null);
      return held ? null : this.context;
    } catch {
      this.trouble.set('No sound from the browser. Check your speakers or headphones, then press play again.');
      return null;
    }
  }
}

/** Seconds into the samples at which a second of the record stands, inside what goes round. */
function offsetOf({ from, speed, round, laid, buffer }: RecordSound, at: number): number {
  const part = laid?.find((l) => at >= l.record && at < l.record + l.seconds * speed);
  const offset = part ? part.at + (at - part.record) / speed : (at - from) / speed;
  const [low, high] = round ? [Math.max(0, round.from), round.to] : [0, buffer.duration];
  return offset >= low && offset < high ? offset : low;
}
