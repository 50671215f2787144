import type { Page } from '@playwright/test';
import { expect, openDemo, test } from './fixture';

// What is tried here is the browser's own audio.
test.use({ audio: 'browser' });

/** A browser that holds the sound back for as long as the page is open. */
async function heldBack(page: Page): Promise<void> {
  await page.addInitScript(() => {
    AudioContext.prototype.resume = () => new Promise(() => undefined);
    Object.defineProperty(AudioContext.prototype, 'state', { get: () => 'suspended' });
  });
}

test('sound that is held back is said in every place that sounds, and nothing else stops', async ({ page }) => {
  await heldBack(page);
  await openDemo(page, '/shelf');
  const words = page.getByText('The browser blocked the sound. Press play again');
  await page
    .getByRole('button', { name: /^Hear / })
    .first()
    .click();
  await expect(words.first()).toBeVisible({ timeout: 15_000 });
  await page.goto('/bench/salt-1');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(words.first()).toBeVisible({ timeout: 15_000 });
  await page.goto('/drill/salt-6');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(words.first()).toBeVisible({ timeout: 15_000 });
});

test('a microphone that another program has, one that never answers, and MIDI that never answers, each in its words', async ({
  page,
}) => {
  await page.clock.install();
  await page.addInitScript(() => {
    const state = window as unknown as { microphone: 'busy' | 'mute' };
    state.microphone = 'busy';
    navigator.mediaDevices.getUserMedia = () =>
      state.microphone === 'busy'
        ? Promise.reject(new DOMException('no', 'NotReadableError'))
        : new Promise(() => undefined);
    navigator.requestMIDIAccess = () => new Promise(() => undefined);
  });
  await openDemo(page, '/drill/salt-6');
  const fresh = page.getByRole('button', { name: 'New ladder' });
  await expect(fresh.or(page.getByLabel('Add a stage')).first()).toBeVisible();
  if ((await fresh.count()) > 0) await fresh.click();
  await page.getByRole('button', { name: 'Microphone' }).click();
  await page.getByRole('button', { name: 'Set the levels' }).click();
  await expect(page.getByText('Another program has the microphone.').first()).toBeVisible({ timeout: 15_000 });
  await page.evaluate(() => ((window as unknown as { microphone: string }).microphone = 'mute'));
  await page.getByRole('button', { name: 'Set the levels' }).click();
  await page.clock.fastForward(21_000);
  await expect(page.getByText('The microphone does not answer.').first()).toBeVisible();
  await page.goto('/kit?part=devices');
  await page.getByRole('button', { name: 'Listen to MIDI' }).click();
  await page.clock.fastForward(21_000);
  await expect(page.getByText('MIDI does not answer.').first()).toBeVisible();
});
