import { expect, keepAs, openDemo, test, typeSticking, addMove } from './fixture';

test('a drill whose tab was closed stands at its rung, every finished try logged once', async ({ page, context }) => {
  await typeSticking(page, 'R L R L');
  await keepAs(page, 'Short', '300');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByLabel('Start tempo').fill('240');
  await page.getByLabel('Start tempo').press('Enter');
  await page.getByLabel('Loops a rung').fill('2');
  await page.getByLabel('Loops a rung').press('Tab');
  await page.getByRole('button', { name: /Start/ }).click();
  await expect(page.locator('.loops')).toContainText('How was it?');
  await page.keyboard.press('Space');
  await expect(page.locator('header')).toContainText('was clean.');
  // Closed in the middle of the next rung, with nothing left to write.
  await page.waitForTimeout(500);
  const rung = await page.locator('.huge').textContent();
  const url = page.url();
  await page.close();

  const again = await context.newPage();
  await again.goto('/drill');
  await again.getByRole('link', { name: /Short/ }).click();
  await expect(again).toHaveURL(url);
  await expect(again.locator('.huge')).toHaveText(rung ?? '');
  await expect(again.locator('header')).toContainText(`You left at ${rung ?? ''}`);
  await again.goto('/log');
  await expect(again.getByRole('heading', { name: '1 try' })).toBeVisible();
});

test('clean said early counts when the loops are played; messy takes it back; pause and stop wait', async ({ page }) => {
  await typeSticking(page, 'R L R L R L R L');
  await keepAs(page, 'Early', '300');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByLabel('Start tempo').fill('200');
  await page.getByLabel('Start tempo').press('Enter');
  await page.locator('.huge').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toContainText('loop 1 of 4');
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toContainText('counts as clean');
  await expect(page.locator('header')).toContainText('200 was clean.');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('button', { name: /Go on/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('header')).toContainText('Enough for today');
  await page.getByRole('button', { name: 'New ladder' }).click();
  await expect(page.getByLabel('Start tempo')).toBeVisible();
  // The first start is never above what was clean last.
  await expect(page.getByLabel('Start tempo')).toHaveValue('180');
});

test('a fill from 3 is counted in, and comes round on 3', async ({ page }) => {
  await typeSticking(page, 'R L R L');
  await addMove(page, 'Fill the bars');
  await page.getByLabel('Start count').selectOption('3');
  await expect(page.locator('.facts').first()).toContainText('half a bar of 4/4');
  await page.keyboard.press('Escape');
  await page.locator('.middle').click();
  await page.keyboard.press('Space');
  // The whole bar passes under the playhead, not only the half that is played.
  const seen = new Set<number>();
  await expect
    .poll(
      async () => {
        seen.add(Math.round(Number(await page.locator('.middle .playhead').getAttribute('x1')) / 100));
        return seen.size;
      },
      { intervals: [60], timeout: 12_000 },
    )
    .toBeGreaterThanOrEqual(5);
});

test('nothing is handed over late while it plays', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await page.locator('.middle').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.middle .playhead')).toHaveCount(1);
  for (let i = 0; i < 10; i++) {
    await page.keyboard.press('ArrowUp');
    await page.waitForTimeout(120);
  }
  await expect(page.getByLabel('Beats a minute')).toHaveValue('102');
  await expect(page.locator('ls-play-bar')).toHaveAttribute('data-late', '0');
});
