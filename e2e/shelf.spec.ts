import AxeBuilder from '@axe-core/playwright';
import { addMove, expect, keepAs, openDemo, settled, test, typeSticking, written } from './fixture';

test('the box understands words: each is a chip that says how many it leaves, and can be taken out', async ({
  page,
}) => {
  await openDemo(page);
  const box = page.getByRole('searchbox', { name: 'Ask the shelf' });
  await page.keyboard.press('/');
  await expect(box).toBeFocused();
  await box.fill('half bar sextuplets');
  const strips = page.locator('ls-strip .title');
  await expect(strips).toHaveText(['Lamp trimmer', 'Spilled herring']);
  await box.fill('half bar sextuplets no kick');
  await expect(strips).toHaveText(['Lamp trimmer']);
  await page.getByRole('button', { name: /^no kick, leaves 1/ }).click();
  await expect(box).toHaveValue('half bar sextuplets');
  await expect(strips).toHaveCount(2);
  await box.fill('zebra');
  await expect(page.getByRole('heading', { name: 'No phrase matches “zebra”' })).toBeVisible();
  await page.getByRole('button', { name: 'Show all 40' }).click();
  await expect(strips.first()).toHaveText('Anchor chain');
});

test('where nothing is found the list is out of sight and stays, and shows what is found next to its end', async ({
  page,
}) => {
  await openDemo(page);
  const box = page.getByRole('searchbox', { name: 'Ask the shelf' });
  const list = page.getByRole('region', { name: 'Phrases' });
  await expect(list).toBeVisible();
  const made = await page.locator('cdk-virtual-scroll-viewport').elementHandle();
  await box.fill('qqq');
  await expect(page.getByRole('heading', { name: 'No phrase matches “qqq”' })).toBeVisible();
  await expect(list).toHaveCount(0);
  await page.getByRole('button', { name: /^Show all/ }).click();
  await expect(list).toBeVisible();
  expect(await made?.evaluate((e) => e.isConnected)).toBe(true);
  await list.evaluate((e) => (e.scrollTop = e.scrollHeight));
  await expect(page.locator('ls-strip .title').getByText('Slow swell')).toBeInViewport();
});

test('the list is made while the first answer is awaited; its strips come in two goes, and no ribbon lays it out anew', async ({
  page,
}) => {
  await openDemo(page);
  await expect(page.locator('ls-strip ls-ribbon svg').first()).toBeVisible();
  await page.addInitScript(() => {
    const seen: { list: boolean; strips: number }[] = [];
    const measured = { ribbons: 0 };
    Object.assign(window, { seen, measured });
    const own = Object.getOwnPropertyDescriptor(Element.prototype, 'clientWidth');
    Object.defineProperty(Element.prototype, 'clientWidth', {
      get(this: Element): number {
        if (this.matches('ls-strip ls-ribbon')) measured.ribbons++;
        return own?.get?.call(this) as number;
      },
    });
    new MutationObserver(() => {
      const now = {
        list: document.querySelector('cdk-virtual-scroll-viewport') !== null,
        strips: document.querySelectorAll('ls-strip').length,
      };
      if (JSON.stringify(now) !== JSON.stringify(seen.at(-1))) seen.push(now);
    }).observe(document, { subtree: true, childList: true });
  });
  await page.reload();
  await expect(page.locator('ls-strip').nth(8).locator('ls-ribbon svg')).toBeVisible();
  const [seen, measured] = await page.evaluate(() => {
    const w = window as unknown as { seen: { list: boolean; strips: number }[]; measured: { ribbons: number } };
    return [w.seen, w.measured.ribbons] as const;
  });
  const steps = seen.map((s) => (s.list ? s.strips : -1));
  expect(steps.slice(0, 2)).toEqual([-1, 0]);
  expect(steps[2]).toBeGreaterThan(0);
  expect(steps[2]).toBeLessThanOrEqual(6);
  expect(steps.at(-1)).toBeGreaterThan(8);
  expect(measured).toBe(0);
});

test('a series by one key each: the next number, and the parent remembered', async ({ page }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await page
    .locator('ls-ribbon-editor')
    .first()
    .click({ position: { x: 5, y: 5 } });
  // The ribbon has the keys, and writes strokes with them, until it is left.
  await page.locator('h1').click();
  for (const n of [2, 3, 4]) {
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('Shift+K');
    await expect(page.getByRole('heading', { name: `Rope ${n}`, level: 1 })).toBeVisible();
  }
  await page.goto('/shelf');
  await expect(page.locator('ls-strip .title')).toHaveText(['Rope', 'Rope 2', 'Rope 3', 'Rope 4']);
  await page.locator('ls-strip').nth(3).hover();
  await page.keyboard.press('f');
  const kin = page.getByRole('dialog', { name: /^Related to Rope 4/ });
  await expect(kin.locator('.tree a')).toHaveText(['Rope', 'Rope 2', 'Rope 3', 'Rope 4']);
});

test('kept under another name it is asked which is meant; an earlier state is looked at and brought back', async ({
  page,
}) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await addMove(page, 'Swap the hands');
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Keep it' });
  await dialog.getByLabel('Name').fill('Cold rope');
  await expect(dialog).toContainText('Is this the same phrase renamed, or a new one?');
  await dialog.getByRole('button', { name: 'Rename it' }).click();
  await expect(page.getByRole('heading', { name: 'Cold rope', level: 1 })).toBeVisible();
  await page.keyboard.press('o');
  const states = page.getByRole('dialog', { name: 'Earlier versions' });
  await expect(states.locator('li')).toHaveCount(1);
  await expect(states.locator('li')).toContainText('“Rope”');
  await states.getByRole('button', { name: 'Use', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Rope', level: 1, exact: true })).toBeVisible();
  await expect(page.locator('.move')).toHaveCount(0);
  await page.getByRole('alert').last().getByRole('button', { name: 'Undo' }).click();
  await page.goto('/shelf');
  await expect(page.locator('ls-strip .title')).toHaveText(['Cold rope']);
});

test('after Keep the keyboard stays where it was; after adding a move it is on the new card', async ({ page }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await expect(page.getByText('“Rope” is on the shelf')).toBeVisible();
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.keyboard.press(' ');
  await addMove(page, 'Swap the hands');
  const inCard = (): Promise<boolean> =>
    page.evaluate(() => document.activeElement?.closest('.move') !== null && document.activeElement !== document.body);
  await expect.poll(inCard).toBe(true);
});

test('boards: made of what is chosen, ordered by keys and by hand, kept over a reload', async ({ page }) => {
  await openDemo(page);
  for (const name of ['Anchor chain', 'Cold rope', 'Kelp'])
    await page.getByRole('checkbox', { name: `Choose ${name}` }).check();
  // On the whole shelf there is no board to take them off.
  await expect(page.getByRole('button', { name: 'Remove from board' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Put on a board …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Put 3 phrases on a board' });
  await dialog.getByLabel('Or a new board named').fill('First night');
  await dialog.getByRole('button', { name: 'Make the board' }).click();
  const strips = page.locator('ls-strip .title');
  await expect(strips).toHaveText(['Anchor chain', 'Cold rope', 'Kelp']);
  await page.locator('ls-strip').nth(2).hover();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(strips).toHaveText(['Anchor chain', 'Kelp', 'Cold rope']);
  const box = async (n: number) => (await page.locator('ls-strip').nth(n).boundingBox())!;
  const [from, to] = [await box(0), await box(2)];
  await page.mouse.move(from.x + 600, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 600, from.y + 40, { steps: 3 });
  await page.mouse.move(to.x + 600, to.y + to.height - 10, { steps: 10 });
  await page.mouse.up();
  await expect(strips).toHaveText(['Kelp', 'Cold rope', 'Anchor chain']);
  await written(page);
  await page.reload();
  await page.getByRole('button', { name: 'First night' }).click();
  await expect(strips).toHaveText(['Kelp', 'Cold rope', 'Anchor chain']);
});

test('many at once: taken off, and all of it brought back from one place', async ({ page }) => {
  await openDemo(page);
  const said = page.locator('ls-strip').first().locator('.line').last();
  // What is believed of it comes a moment after what was played.
  await expect(said).toContainText(/ready \d+.*best \d+/);
  const before = (await said.textContent()) ?? 'nothing';
  for (const name of ['Anchor chain', 'Cold rope'])
    await page.getByRole('checkbox', { name: `Choose ${name}` }).check();
  await page.getByRole('button', { name: 'Take off' }).click();
  await page.getByRole('button', { name: 'Taken off: 2' }).click();
  const dialog = page.getByRole('dialog', { name: 'Taken off the shelf' });
  await expect(dialog.locator('li')).toHaveCount(2);
  await dialog.getByRole('button', { name: 'Put all 2 back' }).click();
  await expect(dialog.locator('li')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(page.locator('ls-strip .title').first()).toHaveText('Anchor chain');
  await expect(said).toHaveText(before);
});

test('drilled in turn, one after the other', async ({ page }) => {
  await openDemo(page);
  for (const name of ['Anchor chain', 'Cold rope', 'Kelp'])
    await page.getByRole('checkbox', { name: `Choose ${name}` }).check();
  await page.getByRole('button', { name: 'Drill one by one' }).click();
  await expect(page.getByRole('heading', { name: 'Anchor chain', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: 'Next phrase (2 left)' }).click();
  await expect(page.getByRole('heading', { name: 'Cold rope', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: 'Next phrase (1 left)' }).click();
  await expect(page.getByRole('heading', { name: 'Kelp', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: /Next phrase/ })).toHaveCount(0);
});

test('the table sorts by its heads; a held key is heard for as long as it is held', async ({ page }) => {
  await openDemo(page);
  await page.locator('ls-strip').first().hover();
  await page.keyboard.down('h');
  await expect(page.getByRole('button', { name: 'Stop Anchor chain' })).toBeVisible();
  await page.keyboard.up('h');
  await expect(page.getByRole('button', { name: 'Hear Anchor chain' })).toBeVisible();
  await page.getByRole('button', { name: 'Table' }).click();
  await page.getByRole('button', { name: 'Goal' }).click();
  const goals = page.locator('ls-shelf-table tbody tr td:nth-child(5)');
  await expect(goals.first()).toBeVisible();
  const read = async (): Promise<number[]> => (await goals.allTextContents()).map(Number);
  // Rows come and go under the eye: what is drawn and whether it is in order is asked of the same reading.
  await expect
    .poll(async () => {
      const all = await read();
      return all.length >= 8 && all.every((goal, i) => goal >= (all[i - 1] ?? 0));
    })
    .toBe(true);
  await page.getByRole('button', { name: 'Name' }).click();
  await expect(page.locator('ls-shelf-table .name').first()).toHaveText('Anchor chain');
});

for (const [width, height] of [
  [390, 844],
  [640, 400],
  [844, 390],
  [820, 1180],
] as const)
  test(`at ${width}×${height} the shelf never scrolls sideways, and axe finds nothing`, async ({ page }) => {
    await openDemo(page);
    await page.setViewportSize({ width, height });
    await expect(page.locator('ls-strip').first()).toBeVisible();
    await settled(page);
    const wide = await page.evaluate(() =>
      [document.documentElement, ...document.querySelectorAll('ls-shelf, ls-shelf .rows')].map(
        (e) => e.scrollWidth - e.clientWidth,
      ),
    );
    expect(wide.every((w) => w <= 0)).toBe(true);
    const found = await new AxeBuilder({ page }).analyze();
    expect(found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join('; ')}`)).toEqual([]);
  });
