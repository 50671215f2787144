import type { Page } from '@playwright/test';
import { keepAs, typeSticking } from './fixture';

/** A sound that was handed to the browser: when it starts on the page's clock, in seconds, and which sound it is. */
export interface Handed {
  readonly when: number;
  readonly sound: number;
}

/** The browser's audio on the page's clock, so that a fake clock turns both. It keeps what was handed to it. */
export async function audioOnThePagesClock(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const param = () => ({ value: 1, setTargetAtTime: () => undefined });
    const sounds: object[] = [];
    const handed: { when: number; sound: number }[] = [];
    class Source {
      buffer: object | null = null;
      connect(n: object) {
        return n;
      }
      disconnect(): void {
        this.buffer = null;
      }
      start(when: number): void {
        if (this.buffer && !sounds.includes(this.buffer)) sounds.push(this.buffer);
        if (this.buffer) handed.push({ when, sound: sounds.indexOf(this.buffer) });
      }
      stop(): void {
        this.buffer = null;
      }
    }
    class ClockAudio {
      readonly sampleRate = 48_000;
      readonly outputLatency = 0;
      readonly destination = {};
      get currentTime(): number {
        return performance.now() / 1000;
      }
      getOutputTimestamp() {
        return { contextTime: this.currentTime, performanceTime: performance.now() };
      }
      resume() {
        return Promise.resolve();
      }
      createBuffer() {
        return { copyToChannel: () => undefined };
      }
      createGain() {
        return { gain: param(), connect: (n: object) => n, disconnect: () => undefined };
      }
      createBufferSource() {
        return new Source();
      }
    }
    Object.assign(window, { AudioContext: ClockAudio, handed });
  });
}

/** What was handed to the browser's audio since it was asked last, in order of time. */
export async function handedOver(page: Page): Promise<readonly Handed[]> {
  const all = await page.evaluate(() => (window as unknown as { handed: Handed[] }).handed.splice(0));
  return all.sort((a, b) => a.when - b.when);
}

/**
 * Turns the fake clock on in steps that the ticker can follow: less than the second by which sounds are handed over
 * ahead.
 */
export async function turn(page: Page, seconds: number, step = 0.25): Promise<void> {
  for (let i = 0; i < Math.round(seconds / step); i++) {
    await page.clock.runFor(step * 1000);
    // The ticker is a worker, on a clock of its own that nothing here turns.
    await new Promise((r) => setTimeout(r, 30));
  }
}

/** Sets numbers of the practice room's set-up, by their labels. */
export async function setUp(page: Page, numbers: Readonly<Record<string, number>>): Promise<void> {
  for (const [label, value] of Object.entries(numbers)) {
    await page.getByLabel(label, { exact: true }).fill(String(value));
    await page.getByLabel(label, { exact: true }).press('Enter');
  }
}

/** A phrase of one's own in the practice room, the whole of it. */
export async function roomOf(page: Page, text: string, meter = '4/4', ready?: () => Promise<void>): Promise<void> {
  await typeSticking(page, text, meter);
  await ready?.();
  await keepAs(page, 'Room', '300');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByRole('button', { name: 'Only the whole' }).click();
}
