import type { Page } from '@playwright/test';
import { keepAs, typeSticking } from './fixture';
import type { Handed } from './page-audio';

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
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
}
