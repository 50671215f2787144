import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { choose, expect, fromMenu, goWithin, keepAs, openDemo, test, typeSticking, written } from './fixture';

const recipesOf = (page: Page): Promise<string> =>
  page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        const open = indexedDB.open('loop-shelf');
        open.onsuccess = () => {
          const all = open.result.transaction('phrases').objectStore('phrases').getAll();
          all.onsuccess = () => {
            open.result.close();
            resolve(JSON.stringify(all.result));
          };
        };
      }),
  );

test('a kit is built by dragging: move, size, turn, add, rename, undo; it is there after a reload', async ({
  page,
}) => {
  await page.goto('/kit');
  const snare = page.getByRole('button', { name: /^Snare,/ });
  await written(page);
  const box = (await snare.boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.down();
  await page.mouse.move(middle.x - 60, middle.y + 10, { steps: 6 });
  await page.mouse.up();
  const right = page.getByLabel('right, cm');
  await expect(right).toBeVisible();
  const reads = (label: string) => async () => Number(await page.getByLabel(label).inputValue());
  await expect.poll(reads('right, cm')).toBeLessThan(-8);
  await page.keyboard.press('Control+z');
  await expect(right).toHaveValue('0');
  await page.keyboard.press('Control+y');
  const handle = (await page.locator('.handle').first().boundingBox())!;
  await page.mouse.move(handle.x + 5, handle.y + 5);
  await page.mouse.down();
  await page.mouse.move(handle.x + 25, handle.y + 5, { steps: 4 });
  await page.mouse.up();
  await expect.poll(reads('across, cm')).toBeGreaterThan(38);
  const turn = (await page.locator('.handle.turn').boundingBox())!;
  await page.mouse.move(turn.x + 5, turn.y + 5);
  await page.mouse.down();
  await page.mouse.move(turn.x + 60, turn.y - 40, { steps: 4 });
  await page.mouse.up();
  await expect.poll(reads('turned, °')).not.toBe(0);
  await snare.focus();
  await page.keyboard.press('ArrowUp');
  await page.getByLabel('Name of the piece').fill('Deep snare');
  await page.getByLabel('Name of the piece').press('Enter');
  await fromMenu(page, 'Add a piece', 'crash');
  await page.getByLabel('Name of the kit').fill('Harbour kit');
  await page.getByLabel('Name of the kit').press('Enter');
  await page.reload();
  await expect(page.getByLabel('Name of the kit')).toHaveValue('Harbour kit');
  await expect(page.getByRole('button', { name: /^Deep snare,/ })).toBeVisible();
  await expect(page.locator('ls-plan-editor .piece')).toHaveCount(10);
});

test('absurd sizes are held, a kit without drums and pieces on each other are said in words', async ({ page }) => {
  await page.goto('/kit');
  await page.getByRole('button', { name: /^Snare,/ }).focus();
  await page.getByLabel('across, cm').fill('99999');
  await page.getByLabel('across, cm').press('Enter');
  await expect(page.getByLabel('across, cm')).toHaveValue('80');
  await page.getByLabel('right, cm').fill('50');
  await page.getByLabel('right, cm').press('Enter');
  await expect(page.getByText('Snare and Floor tom are on top of each other. Move one.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  for (const name of ['Snare', 'High tom', 'Mid tom', 'Floor tom']) {
    await page.getByRole('button', { name: new RegExp(`^${name},`) }).focus();
    await page.keyboard.press('Delete');
  }
  await expect(page.getByText('There is no drum for the hands.')).toBeVisible();
  await expect(page.locator('body')).not.toContainText('NaN');
});

test('a phrase with three toms is re-voiced on three drums and back, and the shelf keeps what it was', async ({
  page,
}) => {
  await typeSticking(page, 'R L R L R L R L');
  await page.keyboard.press('/');
  await page.keyboard.type('down the toms in twos');
  await page.keyboard.press('Enter');
  await keepAs(page, 'Down the ladder');
  const before = await recipesOf(page);
  await goWithin(page, '/kit');
  await fromMenu(page, 'Another kit, from a preset', 'Three drums');
  await expect(page.getByRole('combobox', { name: 'The kit that is set up' })).toHaveText('Three drums');
  await goWithin(page, '/shelf');
  await page
    .getByRole('link', { name: /Down the ladder/ })
    .first()
    .click();
  await expect(page.getByText('No mid tom on “Three drums”', { exact: false })).toBeVisible();
  await expect(page.getByText(/No high tom on “Three drums”: .* go to the snare/)).toBeVisible();
  await goWithin(page, '/kit');
  await choose(page, 'The kit that is set up', 'Five drums');
  await goWithin(page, '/shelf');
  await page
    .getByRole('link', { name: /Down the ladder/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'Speed' })).toBeVisible();
  await expect(page.getByText('No mid tom')).toHaveCount(0);
  expect(await recipesOf(page)).toBe(before);
});

test('a rhythm is stuck: two strokes pinned, the answer of the doubles taken; the other hand has its ceiling beside', async ({
  page,
}) => {
  await typeSticking(page, 'R! R R R R! R R R');
  await page.keyboard.press('b');
  const lead = page.getByRole('region', { name: 'lead hand' });
  await expect(lead.getByText('As alternating.')).toBeVisible();
  await page.getByRole('button', { name: 'Stroke 2, free' }).click();
  await page.getByRole('button', { name: 'Stroke 2, pinned to the right' }).waitFor();
  await page.getByRole('button', { name: 'Stroke 4, free' }).click();
  await page.getByRole('button', { name: 'Stroke 4, pinned to the right' }).click();
  await expect(page.getByRole('button', { name: 'Stroke 4, pinned to the left' })).toBeVisible();
  const pairs = page.getByRole('region', { name: 'doubles' });
  await expect(pairs.getByText(/^R R L L/).first()).toBeVisible();
  const letters = await pairs.locator('.letters').first().textContent();
  await pairs.getByRole('button', { name: 'Use it' }).first().click();
  await expect(page.getByRole('article', { name: /to the (right|left) hand/ })).toBeVisible();
  await expect(pairs.getByRole('button', { name: 'In use' })).toBeVisible();
  const on = await page.locator('ls-ribbon-editor .letter').allTextContents();
  expect(on.map((t) => t.trim()).join(' ')).toBe(letters?.trim());
  await expect(page.getByText('Lead with the other hand')).toBeVisible();
  await expect(page.locator('.ways').getByText(/^ceiling \d+$/)).toHaveCount(2);
  await expect(page.locator('.now')).toHaveText(/As now [RL ]+ceiling\s*\d+/);
});

test('the ceiling names the tightest places, and what raises it is worked out: taken, it is the tempo that was promised', async ({
  page,
}) => {
  await typeSticking(page, 'R R R L R R R L');
  const speed = page.locator('ls-speed');
  const top = async () => Number(await speed.locator('.top strong').textContent());
  const before = await top();
  const offer = speed.locator('.panel').getByRole('button').first();
  const promised = Number(await offer.locator('strong').textContent());
  expect(promised).toBeGreaterThan(before);
  // The three hardest spots differ by their place only: one line.
  await expect(speed.locator('li')).toHaveText([/^right hand, snare twice, .* and more/]);
  await offer.click();
  await expect.poll(top).toBe(promised);
});

test('the limb test hears the simulated player at the rate it was set to, and keeps it; two taps are not enough', async ({
  page,
}) => {
  await page.goto('/kit');
  await page.getByRole('tab', { name: 'My hands and feet' }).click();
  await page.getByRole('button', { name: 'Start the limb test' }).click();
  await page.keyboard.press('j');
  await page.keyboard.press('j');
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(
    page.getByText('Too few strokes. Play for ten seconds without stopping. Nothing changed.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.getByLabel('Strokes per second it plays').fill('6.5');
  await page.getByLabel('Strokes per second it plays').press('Tab');
  await page.getByRole('group', { name: 'Limb' }).getByRole('button', { name: 'left hand' }).click();
  await page.getByRole('button', { name: 'Again' }).click();
  await expect(page.locator('.result')).toBeVisible({ timeout: 20_000 });
  const rate = Number(/([\d.]+) strokes/.exec((await page.locator('.result').textContent()) ?? '')?.[1]);
  expect(Math.abs(rate / 6.5 - 1)).toBeLessThan(0.03);
  await page.getByRole('button', { name: 'Use as my speed' }).click();
  const row = page.getByRole('row', { name: /left hand/ });
  await expect(row.getByRole('cell').first()).toHaveText(rate.toFixed(1));
  await page.reload();
  await page.getByRole('tab', { name: 'My hands and feet' }).click();
  await expect(row.getByRole('cell').first()).toHaveText(rate.toFixed(1));
});

test('the way test times a hand between two pieces, and the ceiling that a way limits follows it', async ({ page }) => {
  await openDemo(page, '/kit');
  await page.getByRole('tab', { name: 'My hands and feet' }).click();
  await page.getByRole('button', { name: 'to and fro' }).click();
  await expect(page.getByText(/\d+ cm apart on this kit/)).toBeVisible();
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.getByLabel('Strokes per second it plays').fill('3');
  await page.getByLabel('Strokes per second it plays').press('Tab');
  await page.getByRole('button', { name: 'Start the travel test' }).click();
  await expect(page.locator('.result')).toHaveText(/^33\d ms for \d+ cm/, { timeout: 20_000 });
  await page.getByRole('button', { name: 'Use as my travel time' }).click();
  await expect(page.getByRole('row', { name: /right hand, snare and floor tom/ })).toContainText('33');
  await page.reload();
  await page.getByRole('tab', { name: 'My hands and feet' }).click();
  await expect(page.getByRole('row', { name: /right hand, snare and floor tom/ })).toContainText('33');
});

test('the hands’ way over the kit is drawn with its length; axe finds nothing in the new parts', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await expect(page.locator('ls-ribbon-editor .stem').first()).toBeVisible();
  await page.keyboard.press('a');
  await expect(page.getByText(/\d+ cm per bar/).first()).toBeVisible();
  await expect(page.locator('ls-paths-panel path.path')).toHaveCount(2);
  const check = async (): Promise<void> => {
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze();
    expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`)).toEqual([]);
  };
  await page.keyboard.press('b');
  await expect(page.locator('ls-sticking-sheet article').first()).toBeVisible();
  await check();
  await page.goto('/kit');
  await page.getByRole('button', { name: /^Snare,/ }).focus();
  await check();
  await page.getByRole('tab', { name: 'My hands and feet' }).click();
  await check();
});
