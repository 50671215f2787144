import type { BrowserContext, Page } from '@playwright/test';

/** A sound that was handed to the browser: when it starts on the page's clock, in seconds, and which sound it is. */
export interface Handed {
  readonly when: number;
  readonly sound: number;
}

/**
 * The browser's audio on the page's clock. A browser without a loudspeaker lets its audio clock fall behind as soon as
 * the machine is busy, five times over and more: a test that waits for what is played would wait for the machine. It is
 * also the clock that a fake one turns. What was handed to it is kept, the sounds numbered by their first use.
 */
export async function audioOnThePagesClock(context: BrowserContext): Promise<void> {
  await context.addInitScript(() => {
    const now = () => performance.now() / 1000;
    class Param {
      value = 1;
      setValueAtTime(value: number) {
        this.value = value;
        return this;
      }
      linearRampToValueAtTime(value: number) {
        return this.setValueAtTime(value);
      }
      setTargetAtTime(value: number) {
        return this.setValueAtTime(value);
      }
      cancelScheduledValues() {
        return this;
      }
    }
    const sounds: object[] = [];
    const handed: { when: number; sound: number }[] = [];
    class Source {
      buffer: AudioBuffer | null = null;
      loop = false;
      loopStart = 0;
      loopEnd = 0;
      onended: (() => void) | null = null;
      private over: ReturnType<typeof setTimeout> | undefined;
      connect<T>(node: T): T {
        return node;
      }
      disconnect(): void {
        this.buffer = null;
      }
      start(when = 0, offset = 0): void {
        if (!this.buffer) return;
        if (!sounds.includes(this.buffer)) sounds.push(this.buffer);
        handed.push({ when, sound: sounds.indexOf(this.buffer) });
        if (!this.loop) this.stop(Math.max(when, now()) + this.buffer.duration - offset);
      }
      stop(when = 0): void {
        clearTimeout(this.over);
        this.over = setTimeout(() => this.onended?.(), Math.max(0, when - now()) * 1000);
      }
    }
    class Gain {
      readonly gain = new Param();
      connect<T>(node: T): T {
        return node;
      }
      disconnect(): void {
        this.gain.value = 0;
      }
    }
    class ClockAudio {
      readonly sampleRate = 48_000;
      readonly outputLatency = 0;
      readonly destination = {};
      readonly state = 'running';
      onstatechange: (() => void) | null = null;
      get currentTime(): number {
        return now();
      }
      getOutputTimestamp() {
        return { contextTime: now(), performanceTime: performance.now() };
      }
      resume(): Promise<void> {
        return Promise.resolve();
      }
      suspend(): Promise<void> {
        return Promise.resolve();
      }
      createBuffer(numberOfChannels: number, length: number, sampleRate: number): AudioBuffer {
        return new AudioBuffer({ numberOfChannels, length, sampleRate });
      }
      createGain(): Gain {
        return new Gain();
      }
      createBufferSource(): Source {
        return new Source();
      }
    }
    Object.assign(window, { AudioContext: ClockAudio, handed });
  });
}

/**
 * Lets it be known how far the browser's own audio fell behind: a machine that cannot keep up drops what a microphone
 * hears, and then nothing exact can be said of it.
 */
export async function watchTheAudio(context: BrowserContext): Promise<void> {
  await context.addInitScript(() => {
    const Browsers = AudioContext;
    const made: AudioContext[] = [];
    class Watched extends Browsers {
      constructor(options?: AudioContextOptions) {
        super(options);
        made.push(this);
      }
    }
    // Looked at ten times a second: so much of each moment the clock that lost most has lost.
    let [lost, before, at] = [0, new Map<AudioContext, number>(), performance.now()];
    setInterval(() => {
      const now = performance.now();
      const passed = (now - at) / 1000;
      const running = made.filter((c) => c.state === 'running');
      const gone = running.flatMap((c) => (before.has(c) ? [c.currentTime - (before.get(c) ?? 0)] : []));
      lost += Math.max(0, passed - Math.min(passed, ...gone));
      before = new Map(running.map((c) => [c, c.currentTime]));
      at = now;
    }, 100);
    Object.assign(window, { AudioContext: Watched, secondsLost: () => lost });
  });
}

/** Seconds by which the browser's audio fell behind since the page was opened. */
export const secondsLost = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { secondsLost: () => number }).secondsLost());
