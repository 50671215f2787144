import { expect, test } from './fixture';

test('64 bars rendered offline are 0 samples off, at 61.7 and at 199.9 too', async ({ page }) => {
  await page.goto('/kit');
  await page.getByRole('button', { name: 'Check the sound' }).click();
  await expect(page.locator('.checks li')).toHaveCount(4, { timeout: 60_000 });
  for (const line of await page.locator('.checks li').allTextContents())
    expect(line).toMatch(/^[\d.]+ beats a minute: 896 sounds, 0 samples off$/);
  await expect(page.locator('.checks')).toContainText('61.7 beats a minute');
});
