import { OnsetDetector } from '@core/listen';

// The little of AudioWorkletGlobalScope that is used: the DOM library has no types for it.
declare const sampleRate: number;
declare const currentTime: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;

/** Blocks of 128 samples between two messages of the level: about 20 a second. */
const METER_BLOCKS = 18;

/**
 * Listens on the audio thread, where a busy page cannot disturb it, and tells each hit with its moment on the audio
 * clock.
 */
class OnsetProcessor extends AudioWorkletProcessor {
  private readonly detector = new OnsetDetector({ rate: sampleRate, threshold: 0.05, loudest: 0.7 });
  private begin: number | null = null;
  private blocks = 0;
  private peak = 0;
  private bright = 0;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<{ threshold: number; loudest: number }>) => this.detector.set(data);
  }

  process(inputs: Float32Array[][]): boolean {
    const samples = inputs[0]?.[0];
    if (!samples) return true;
    this.begin ??= currentTime;
    for (const { sample, peak } of this.detector.push(samples))
      this.port.postMessage({
        kind: 'hit',
        seconds: this.begin + sample / sampleRate,
        peak,
        velocity: this.detector.velocityOf(peak),
      });
    for (const x of samples) this.peak = Math.max(this.peak, Math.abs(x));
    this.bright = Math.max(this.bright, this.detector.level);
    if (++this.blocks % METER_BLOCKS === 0) {
      this.port.postMessage({ kind: 'level', peak: this.peak, bright: this.bright });
      this.peak = 0;
      this.bright = 0;
    }
    return true;
  }
}
registerProcessor('onset', OnsetProcessor);
