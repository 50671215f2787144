import type { Page } from '@playwright/test';
import { fakeMicrophone, listeningTo } from './fake-microphone';
import { expect, goneOn, test } from './fixture';
import { secondsLost } from './page-audio';

const strokes = Array.from({ length: 4 * 20 }, (_, n) => ({ at: n / 4, velocity: 100 }));
test.use(listeningTo(fakeMicrophone('listen', { seconds: 20, strokes, noise: 0.002, gain: 0.8 })));

const heard = (page: Page) => page.getByText(/\d+ strokes found/);
const many = async (page: Page): Promise<number> => Number(/(\d+) strokes/.exec(await heard(page).innerText())?.[1]);

test('what it hears is worked out, also when it is taken out', async ({ page }) => {
  await page.addInitScript(() => {
    const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
    navigator.mediaDevices.getUserMedia = async (wish) => {
      const stream = await ask(wish);
      Object.assign(window, { takeOut: () => stream.getTracks()[0]?.dispatchEvent(new Event('ended')) });
      return stream;
    };
  });
  await page.goto('/listen');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Stop recording' })).toBeVisible();
  await goneOn(page, 5);
  await page.getByRole('button', { name: 'Stop recording' }).click();
  await expect(heard(page)).toBeVisible();
  // Four a second, for about five seconds.
  const found = await many(page);
  expect(found).toBeGreaterThan(0);
  if ((await secondsLost(page)) < 0.05) expect(found).toBeGreaterThanOrEqual(16);
  expect(found).toBeLessThanOrEqual(26);
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await goneOn(page, 3);
  await page.evaluate(() => (window as unknown as { takeOut: () => void }).takeOut());
  await expect(page.getByRole('button', { name: 'Record', exact: true })).toBeVisible();
  await expect.poll(() => many(page)).toBeGreaterThan(0);
  if ((await secondsLost(page)) < 0.05) await expect.poll(() => many(page)).toBeLessThan(found);
});
