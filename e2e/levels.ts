import type { Page } from '@playwright/test';
import type { Heard } from './fake-microphone';
import { expect, keepAs, typeSticking } from './fixture';

const hits = (from: number, velocity: number): Heard['strokes'] =>
  Array.from({ length: 4 }, (_, i) => ({ at: from + i * 0.3, velocity }));

/** A room with noise, 32 dB below the hard hits, then four soft hits and four hard ones. */
export const roomThenHits = {
  seconds: 12,
  strokes: [...hits(4, 45), ...hits(5.4, 120)],
  noise: 10 ** (-32 / 20),
} as const;

/** Sets the levels at the drill of a phrase; what is set lies between the room's noise and the soft hits. */
export async function levelsAreSet(page: Page, gain: number): Promise<void> {
  await typeSticking(page, '(R L R L)x4');
  await keepAs(page, 'Pad', '200');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByRole('button', { name: 'Microphone' }).click();
  await page.getByRole('button', { name: 'Set the levels' }).click();
  await expect(page.getByText('Be quiet for a moment: the room is measured first.')).toBeVisible();
  await expect(page.getByText('Hit softly, as a ghost stroke: 0 of 4.')).toBeVisible();
  await expect(page.getByText('The levels are set.')).toBeVisible({ timeout: 20_000 });
  // The line in the meter is where a hit begins to count: below the soft hits, and it stands where it was set.
  const line = async (): Promise<number> =>
    Number(/left: ([\d.e-]+)%/.exec((await page.locator('.level i').getAttribute('style')) ?? '')?.[1]);
  const set = await line();
  expect(set).toBeGreaterThan(0);
  expect(set).toBeLessThan(30 * gain);
  await page.reload();
  await page.getByRole('button', { name: 'Microphone' }).click();
  await expect.poll(line).toBe(set);
}
