import type { Page } from '@playwright/test';
import { expect, test } from './fixture';
import { strokesEvery, wavFile } from './wav';

const pick = (page: Page, name: string, buffer: Buffer): Promise<void> =>
  page.getByLabel('A recording', { exact: true }).setInputFiles({ name, mimeType: 'audio/wav', buffer });
const EVEN = strokesEvery(0.25);
const heard = (page: Page) => page.getByText(/\d+ strokes found/);
const many = async (page: Page): Promise<number> => Number(/(\d+) strokes/.exec(await heard(page).innerText())?.[1]);

test('recordings of any make are heard alike: 192 kHz, eight channels, eight bits', async ({ page }) => {
  await page.goto('/listen');
  for (const [name, form] of [
    ['fine.wav', { rate: 192_000, channels: 1, bits: 24, seconds: 6 }],
    ['round.wav', { rate: 48_000, channels: 8, bits: 16, seconds: 6 }],
    ['old.wav', { rate: 11_025, channels: 1, bits: 8, seconds: 6 }],
  ] as const) {
    await pick(page, name, wavFile(form, EVEN));
    await expect(page.locator('.listen .name')).toHaveText(name);
    await expect(heard(page)).toBeVisible();
    // Four a second for six seconds; the first and the last may be cut.
    expect(Math.abs((await many(page)) - 24)).toBeLessThanOrEqual(2);
  }
});

test('an hour is refused in words before it is unpacked, and what was worked on stays', async ({ page }) => {
  await page.goto('/listen');
  await pick(page, 'short.wav', wavFile({ rate: 44_100, channels: 1, bits: 16, seconds: 4 }, EVEN));
  await expect(heard(page)).toBeVisible();
  await pick(page, 'long.wav', wavFile({ rate: 8000, channels: 1, bits: 8, seconds: 3660 }));
  await expect(page.getByRole('alert')).toContainText('This is 1 hour 1 min long; the most is 15 minutes.');
  await expect(page.getByRole('alert')).toContainText('Your work is unchanged.');
  await expect(page.locator('.listen .name')).toHaveText('short.wav');
});

test('a song without drums is said to have no beat, and can be marked all the same', async ({ page }) => {
  await page.goto('/listen');
  const pad = (t: number): number => 0.2 * (Math.sin(2 * Math.PI * 220 * t) + Math.sin(2 * Math.PI * 277 * t));
  await pick(page, 'pad.wav', wavFile({ rate: 44_100, channels: 1, bits: 16, seconds: 8 }, pad));
  await expect(page.getByText('No beat found.')).toBeVisible();
  await expect(page.locator('ls-wave')).toHaveCount(2);
});

test('a full disk: what is heard is worked on, and it is said that a reload would lose it', async ({ page }) => {
  await page.goto('/listen');
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await pick(page, 'short.wav', wavFile({ rate: 44_100, channels: 1, bits: 16, seconds: 4 }, EVEN));
  await expect(heard(page)).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('Storage is full');
  await expect(page.getByText('This recording will not survive a reload')).toBeVisible();
});

/** What stands in the page in place of the microphone. */
async function microphone(page: Page, how: 'denied' | 'busy' | 'none'): Promise<void> {
  await page.addInitScript((kind) => {
    const name = { denied: 'NotAllowedError', busy: 'NotReadableError', none: 'NotFoundError' }[kind];
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', name));
  }, how);
}
for (const [how, words] of [
  ['denied', 'The microphone was not allowed.'],
  ['busy', 'Another program has the microphone.'],
  ['none', 'No microphone was found.'],
] as const)
  test(`a microphone that is ${how} is said in words`, async ({ page }) => {
    await microphone(page, how);
    await page.goto('/listen');
    await page.getByRole('button', { name: 'Record', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText(words);
    await expect(page.getByRole('button', { name: 'Record', exact: true })).toBeEnabled();
  });

test('a microphone that never answers is given up', async ({ page }) => {
  await page.clock.install();
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => new Promise(() => undefined);
  });
  await page.goto('/listen');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Asking for the microphone' })).toBeDisabled();
  await page.clock.runFor(21_000);
  await expect(page.getByRole('alert')).toContainText('The microphone does not answer.');
});
