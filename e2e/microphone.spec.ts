import { fakeMicrophone, listeningTo } from './fake-microphone';
import { expect, goneOn, keepAs, test, typeSticking } from './fixture';
import { secondsLost } from './page-audio';

/** What a stroke may be off by because the browser's audio was late, before nothing exact can be said. */
const KEPT_UP = 0.05;

const PER_SECOND = 8;

/** A steady stream of snare strokes with a little noise: what the fake microphone hears, again and again. */
function pad(): string {
  const seconds = 30;
  const strokes = Array.from({ length: seconds * PER_SECOND }, (_, n) => ({
    at: n / PER_SECOND,
    velocity: n % 2 ? 90 : 100,
  }));
  return fakeMicrophone('pad', { seconds, strokes, noise: 0.002, gain: 1 });
}

test.use(listeningTo(pad()));

test('the microphone hears strokes on a pad: the limb test gives the rate that was played', async ({ page }) => {
  await page.goto('/kit?part=hands');
  await page.getByRole('button', { name: 'Microphone' }).click();
  await page.getByRole('button', { name: 'Start the limb test' }).click();
  await expect(page.locator('.result')).toBeVisible({ timeout: 30_000 });
  const rate = Number(/([\d.]+) strokes/.exec((await page.locator('.result').textContent()) ?? '')?.[1]);
  // Strokes that were dropped on the way leave fewer, never more.
  expect(rate / PER_SECOND).toBeLessThan(1.03);
  if ((await secondsLost(page)) > KEPT_UP) return;
  expect(rate / PER_SECOND).toBeGreaterThan(0.97);
  await expect(page.locator('.result')).toContainText('even');
});

test('the microphone judges a rung: hits are dots, the try has a verdict, and what listens is in the log', async ({
  page,
}) => {
  await typeSticking(page, '(R L R L)x4');
  await keepAs(page, 'Pad', '200');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  // The pad is struck on 16ths at 120, wherever the click begins: steady, and off by as much everywhere.
  for (const [label, value] of [
    ['Start tempo', '120'],
    ['Loops a rung', '2'],
  ] as const) {
    await page.getByLabel(label).fill(value);
    await page.getByLabel(label).press('Enter');
  }
  await page.getByRole('button', { name: 'Microphone' }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.hit').nth(7)).toBeVisible({ timeout: 20_000 });
  await goneOn(page, 6);
  await page.keyboard.press('Enter');
  await expect(page.locator('ls-judged .verdict')).toHaveText(/Clean|Almost|Messy/);
  const scale = page.locator('ls-late-scale [role=img]').first();
  const spread = Number(/spread (\d+) ms/.exec((await scale.getAttribute('aria-label')) ?? '')?.[1]);
  if ((await secondsLost(page)) <= KEPT_UP) expect(spread).toBeLessThan(12);
  await page.keyboard.press('Escape');
  await page.goto('/log');
  await expect(page.locator('tbody tr:not(.sitting)').first()).toContainText('spread');
});
