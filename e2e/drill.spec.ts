import { addMove, choose, expect, keepAs, openDemo, test, typeSticking } from './fixture';

test('clean said early counts when the loops are played; messy takes it back; pause and stop wait', async ({
  page,
}) => {
  await typeSticking(page, 'R L R L R L R L');
  await keepAs(page, 'Early', '300');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByLabel('Start tempo').fill('200');
  await page.getByLabel('Start tempo').press('Enter');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toContainText('loop 1 of 4');
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toContainText('clean so far');
  await expect(page.locator('header')).toContainText('200 was clean.');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('button', { name: /Continue/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('header')).toContainText('Stopped at');
  await page.getByRole('button', { name: 'New ladder' }).click();
  await expect(page.getByLabel('Start tempo')).toBeVisible();
  // The lowest of 60 % of the goal, 70 % of the ceiling and what was clean last: here the ceiling.
  await expect(page.getByText('70% of your ceiling.')).toBeVisible();
  await expect.poll(async () => Number(await page.getByLabel('Start tempo').inputValue())).toBeLessThan(180);
  // What was played says what is ready, and the chance of each stair.
  await expect(page.locator('.believed')).toContainText(
    /Too early to say what is ready \(.+\); .*% chance of a clean try at \d+\./,
  );
  await page.locator('.believed').focus();
  await expect(page.locator('.p-tooltip')).toContainText(/So far \d tr(y|ies) on 1 day/);
  const chances = (await page.locator('ls-stairs .chance').allTextContents()).map((t) => Number(/\d+/.exec(t)));
  expect(chances.length).toBeGreaterThan(2);
  expect(chances).toEqual([...chances].sort((a, b) => b - a));
});

test('a fill from 3 is counted in, and comes round on 3', async ({ page }) => {
  await typeSticking(page, 'R L R L');
  await addMove(page, 'Fill the bars');
  await choose(page, 'Start count', '3');
  await expect(page.locator('.facts').first()).toContainText('half a bar of 4/4');
  await page.keyboard.press('Escape');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  // The whole bar passes under the playhead, not only the half that is played.
  const seen = new Set<number>();
  await expect
    .poll(
      async () => {
        const head = await page.locator('ls-ribbon-editor .playhead').boundingBox();
        seen.add(Math.round((head?.x ?? 0) / 100));
        return seen.size;
      },
      { intervals: [60], timeout: 12_000 },
    )
    .toBeGreaterThanOrEqual(5);
});

test('nothing is handed over late while it plays', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('ls-ribbon-editor .playhead')).toHaveCount(1);
  for (let i = 0; i < 10; i++) {
    await page.keyboard.press('ArrowUp');
    await expect(page.getByLabel('Tempo in bpm')).toHaveValue(String(93 + i));
  }
  await expect(page.locator('ls-play-bar')).toHaveAttribute('data-late', '0');
});
