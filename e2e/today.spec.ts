import AxeBuilder from '@axe-core/playwright';
import { turn } from './clock';
import { expect, openDemo, test, written } from './fixture';

const DAY = 24 * 3600_000;

test('three days of the demo player from Today to the Log, by keys, on a clock of its own', async ({ page }) => {
  // The index has no fake clock: what is played must not lie in its future.
  const begin = new Date(Date.now() - 4 * DAY);
  begin.setHours(19, 0, 0, 0);
  await page.clock.install({ time: begin });
  await openDemo(page);
  const today = page.locator('ls-today');
  const first = page.locator('ls-block-row').first();
  const blockOver = async (): Promise<void> => {
    // The address is the room's before the room hears a key.
    await expect(page.getByRole('button', { name: 'End block' })).toBeVisible();
    await page.keyboard.press('b');
    await expect(page).toHaveURL(/\/today$/);
  };
  for (let day = 0; day < 3; day++) {
    await page.goto('/today');
    await expect(first).toBeVisible();
    await expect(first).toContainText('Warm-up');
    if (day === 0) {
      // Twenty minutes, by the keyboard.
      for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
      await expect(today.locator('.number')).toContainText('20 minutes');
    }
    await expect(today.locator('.number')).toContainText('20 minutes');
    // The warm-up is hardly begun: it is not done by that.
    await page.keyboard.press('Space');
    await expect(page).toHaveURL(/\/drill\/.*block=warm-up/);
    await blockOver();
    await expect(first).toContainText('Warm-up');
    await page.keyboard.press('Space');
    await expect(page).toHaveURL(/\/drill\//);
    await page.clock.runFor(3 * 60_000);
    // Real time goes on beside the clock that is turned.
    await expect(page.locator('ls-block-clock .left')).toHaveText(/^(0:00|\+0:\d\d)$/);
    await blockOver();
    await expect(first).not.toContainText('Warm-up');
    const name = (await first.locator('.name').textContent()) ?? '';
    await page.keyboard.press('Space');
    // The name stands on Today too: only in the room can a block be over.
    await expect(page).toHaveURL(/\/drill\//);
    await expect(page.getByRole('heading', { name })).toBeVisible();
    // One try, clean, by ear.
    if (day === 0) {
      await page.keyboard.press('Space');
      await expect(async () => {
        await turn(page, 2);
        await page.keyboard.press('ArrowUp');
        await expect(page.getByText(/\d+ was clean\./)).toBeVisible({ timeout: 100 });
      }).toPass({ timeout: 60_000 });
      await page.keyboard.press('ArrowLeft');
    }
    await page.clock.runFor(9 * 60_000);
    await blockOver();
    await expect(today.locator('aside')).toContainText(/\d+ minutes played in 2 blocks\./);
    await expect(page.locator('ls-block-row', { hasText: name }).locator('.kind')).toHaveCount(0);
    await written(page);
    // A page that is loaded again goes on with the day.
    if (day === 0) {
      await page.reload();
      await expect(today.locator('aside')).toContainText(/\d+ minutes played in 2 blocks\./);
    }
    await page.clock.fastForward(DAY);
  }
  await page.goto('/log?ask=practised');
  await expect(page.locator('#chart-title')).toHaveText(/^\d+ minutes? on \d days? of the last seven, \d+ planned\.$/);
  const chart = page.locator('ls-chart svg');
  await chart.focus();
  await page.keyboard.press('End');
  await expect(page.locator('ls-chart .reading')).toHaveText(/: \d+(\.\d)? min/);
});

test('the day is laid by hand: longer, held, not today, after all, taken back; axe finds nothing', async ({ page }) => {
  await openDemo(page);
  // The plan of a shelf that is still being worked out is another one.
  await expect(page.locator('ls-strip').first()).toContainText(/ready \d+/);
  await page.goto('/today');
  const rows = page.locator('ls-block-row');
  await expect(rows.first()).toBeVisible();
  const second = rows.nth(1);
  const name = (await second.locator('.name').textContent()) ?? '';
  const grip = second.locator('.grip');
  // A break may cut it in two.
  const minutesOf = (): Promise<number> =>
    page.evaluate((wanted) => {
      const own = [...document.querySelectorAll('ls-block-row')].filter(
        (r) => r.querySelector('.name')?.textContent === wanted,
      );
      return own.reduce((sum, r) => sum + Number(r.querySelector('.grip strong')?.textContent), 0);
    }, name);
  const minutes = await minutesOf();
  await grip.focus();
  await page.keyboard.press('+');
  const own = page.locator('ls-block-row', { has: page.locator(`.name:text-is("${name}")`) }).first();
  await expect.poll(minutesOf).toBe(minutes + 1);
  await expect(own.getByRole('button', { name: 'Hold it as it is' })).toHaveAttribute('aria-pressed', 'true');
  await own.locator('.grip').focus();
  await page.keyboard.press('Delete');
  await expect(own).toHaveCount(0);
  await expect(page.locator('aside')).toContainText('Not today: you skipped it.');
  for (const place of ['on a pad', 'no kit or pad']) {
    await page.getByRole('button', { name: place }).click();
    await expect(page.locator('aside')).toContainText('the sticking only');
  }
  await page.getByRole('button', { name: 'taking turns' }).click();
  await expect(page.getByText(/round 1 of \d/).first()).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => `${v.id} ${v.nodes[0]?.target.join(' ')}`)).toEqual([]);
  await page.getByRole('button', { name: `Play it today: ${name}` }).click();
  await expect(own).not.toHaveCount(0);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'at the kit' })).toHaveAttribute('aria-pressed', 'true');
  // Dragged by the pointer to another place.
  const names = async (): Promise<string[]> => page.locator('ls-block-row .name').allTextContents();
  const before = await names();
  const [from, to] = [await rows.nth(1).locator('.grip').boundingBox(), await rows.nth(2).boundingBox()];
  await page.mouse.move(from!.x + 8, from!.y + 8);
  await page.mouse.down();
  await page.mouse.move(from!.x + 10, from!.y + 30, { steps: 4 });
  await page.mouse.move(to!.x + 200, to!.y + to!.height - 6, { steps: 8 });
  await page.mouse.up();
  await expect.poll(names).not.toEqual(before);
});

test('a goal with a day is set on the shelf, for many at once, and stands in the strip, the plan and the Log', async ({
  page,
}) => {
  await openDemo(page);
  for (const name of ['Anchor chain', 'Both anchors'])
    await page.getByRole('checkbox', { name: `Choose ${name}` }).check();
  await page.getByRole('button', { name: 'Needed by …' }).click();
  const dialog = page.getByRole('dialog', { name: 'A date for 2 phrases' });
  await dialog.getByLabel('Needed by').fill(new Date(Date.now() + 3 * DAY).toISOString().slice(0, 10));
  await dialog.getByRole('button', { name: 'a lesson' }).click();
  await dialog.getByRole('button', { name: 'Set goal' }).click();
  const strip = page.locator('ls-strip', { hasText: 'Anchor chain' });
  await expect(strip).toContainText(/goal 104 by \w+day: /);
  await page.getByRole('alert').last().getByRole('button', { name: 'Undo' }).click();
  await expect(strip).toContainText(/goal 104: /);
  await page.getByPlaceholder('half bar 16ths no toms …').fill('for the show');
  await expect(page.getByRole('button', { name: /for the show, leaves \d+/ })).toBeVisible();
});

test('play freely: time, then open bars with something to try, nothing is judged', async ({ page }) => {
  await page.clock.install();
  await openDemo(page, '/drill/salt-6');
  await page.getByRole('button', { name: 'Add a stage' }).click();
  await page.getByRole('menuitem', { name: 'Free play' }).click();
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  await page.getByRole('button', { name: 'Add a stage' }).click();
  await page.getByRole('menuitem', { name: 'Free play' }).click();
  await page.getByRole('button', { name: 'Remove: The whole phrase' }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await turn(page, 6);
  await expect(page.getByText('Fill the open bars as you like.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Done/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Clean/ })).toHaveCount(0);
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /^New ladder/ }).first()).toBeVisible();
});
