import { expect, openDemo, test } from './fixture';

test('256 bars rendered offline are 0 samples off, with every click, swung, through tempo changes', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await page.goto('/kit?part=data');
  await page.getByRole('button', { name: 'Check the sound' }).click();
  await expect(page.locator('.checks li')).toHaveCount(6, { timeout: 150_000 });
  for (const line of await page.locator('.checks li').allTextContents()) {
    expect(line).toMatch(/, 0 samples off/);
    expect(Number(/(\d+) sounds/.exec(line)?.[1])).toBeGreaterThan(2000);
  }
});

test('with the page busy 200 ms of every second nothing is handed over late', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await expect(page.locator('ls-ribbon-editor .stem').first()).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.evaluate(async () => {
    for (let second = 0; second < 15; second++) {
      const until = performance.now() + 200;
      while (performance.now() < until);
      await new Promise((r) => setTimeout(r, 800));
    }
  });
  const bar = page.locator('ls-play-bar');
  await expect(bar).toHaveAttribute('data-late', '0');
  expect(Number(await bar.getAttribute('data-sounds'))).toBeGreaterThan(50);
  expect(Number(await bar.getAttribute('data-nearest')), 'seconds ahead of its sound').toBeGreaterThan(0.1);
});
