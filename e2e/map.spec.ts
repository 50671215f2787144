import AxeBuilder from '@axe-core/playwright';
import { choose, expect, keepAs, openDemo, test, typeSticking } from './fixture';

test('the map of the demo: squares hold every phrase, next to learn is heard, opened and drilled', async ({ page }) => {
  await openDemo(page, '/shelf');
  await page.locator('ls-strip').first().waitFor();
  await page.getByRole('button', { name: 'Map', exact: true }).click();
  const map = page.locator('ls-shelf-map');
  await expect(map.locator('.square.full').first()).toBeVisible();
  const numbers = await map.locator('.many').allTextContents();
  // What is drawn and what a screen reader hears are the same numbers, and all there is.
  const read = await map.locator('table tbody td').allTextContents();
  const sum = (all: readonly string[]): number => all.reduce((n, t) => n + Number(t), 0);
  expect(sum(numbers)).toBe(sum(read));
  await choose(map, 'Columns', 'lead');
  await expect(map.getByRole('button', { name: /16ths, right: / }).first()).toBeVisible();
  expect(sum(await map.locator('.many').allTextContents())).toBe(sum(numbers));
  const step = map.locator('.step').first();
  await expect(step).toBeVisible();
  await expect(step).toContainText('ready at');
  expect((await new AxeBuilder({ page }).include('ls-shelf-map').analyze()).violations.map((v) => v.id)).toEqual([]);
  await step.getByRole('button', { name: /^Hear/ }).click();
  await step.getByRole('button', { name: /^Stop/ }).click();
  await step.getByRole('button', { name: /on the Bench$/ }).click();
  await expect(page.locator('.facts').first()).toContainText('not kept yet');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await expect(page.locator('ls-drill-setup')).toBeVisible();
});

test('by keys, on a shelf of one, and with nothing ready to build on', async ({ page }) => {
  await typeSticking(page, 'R L R L R L R L');
  await keepAs(page, 'Rope');
  await page.goto('/shelf');
  await page.locator('ls-strip').first().waitFor();
  await page.locator('h1').click();
  await page.keyboard.press('m');
  const map = page.locator('ls-shelf-map');
  await expect(map.locator('.square')).toHaveCount(1);
  await expect(map.getByText('Nothing to build on yet')).toBeVisible();
  await map.locator('[data-square="0,0"]').focus();
  await page.keyboard.press('Enter');
  await expect(map.getByRole('button', { name: 'Rope' })).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    map.getByRole('button', { name: /as CSV/ }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('Map of the shelf.csv');
  await page.locator('h1').click();
  await page.keyboard.press('m');
  await expect(page.locator('ls-strip')).toHaveCount(1);
});
