import { readFile } from 'node:fs/promises';
import { addMove, choose, expect, test, typeSticking } from './fixture';

test('a rudiment becomes a drilled phrase, and goes out and in as a file', async ({ page, browser, baseURL }) => {
  // An empty shelf shows one thing to do.
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  await page.getByRole('button', { name: 'New phrase' }).click();

  // Forty rudiments, searched by words.
  await expect(page.getByRole('heading', { name: 'Or choose a rudiment' })).toBeVisible();
  await expect(page.locator('.rudiment')).toHaveCount(40);
  await page.getByLabel('Find a rudiment').fill('flam para');
  await expect(page.locator('.rudiment')).toHaveCount(2);
  await page.getByRole('button', { name: /^Flam paradiddle 16ths/ }).click();
  await expect(page.getByRole('heading', { name: 'New phrase' })).toBeVisible();

  // Begin with something else: the moves to come stand on a typed sticking.
  await page.getByRole('button', { name: /Flam paradiddle/ }).click();
  const picker = page.getByRole('dialog');
  await choose(picker, 'Meter', '7/8');
  await picker.getByRole('textbox', { name: 'Sticking' }).fill('R l l R');
  await picker.getByRole('button', { name: 'Put it on the Bench' }).click();

  // Six moves, each with its card.
  await addMove(page, 'Add strokes');
  await expect(page.getByRole('button', { name: 'Add a kick at the end' })).toBeVisible();
  await addMove(page, 'Fill the bars');
  await page.getByLabel('How many bars or beats').fill('2');
  await page.getByLabel('How many bars or beats').press('Enter');
  await page.getByRole('group', { name: 'How to close' }).getByRole('button', { name: 'strokes' }).click();
  await expect(page.getByRole('button', { name: 'Fill 2 bars, close with R L R' })).toBeVisible();
  await expect(page.locator('.fit')).toHaveText('28 = 5 × 5 + 3');
  await expect(page.locator('.sums')).toContainText('back on the 1 with the right hand after 2 bars');
  await expect(page.locator('.sums')).toContainText('ends on the & of 7 in bar 2');
  await addMove(page, 'Accents and ghosts');
  await addMove(page, 'Move it on the kit');
  await page.getByRole('group', { name: 'Stick heights' }).getByRole('button', { name: 'accents' }).click();
  await page
    .getByRole('group', { name: /Pieces/ })
    .getByRole('button', { name: 'right crash' })
    .click();
  await page
    .getByRole('group', { name: /Pieces/ })
    .getByRole('button', { name: 'high tom' })
    .click();
  await choose(page, 'Foot underneath', 'kick');
  await expect(
    page.getByRole('button', { name: 'Send right accents to the right crash, kick under them' }),
  ).toBeVisible();
  await expect(page.locator('ls-findings')).toContainText('unisons: bar 1: 1, 3& and 6');
  await addMove(page, 'Displace it');
  await addMove(page, 'Change the subdivision');
  await page.getByRole('group', { name: 'Subdivision' }).getByRole('button', { name: '16ths', exact: true }).click();
  await expect(page.locator('.move')).toHaveCount(6);

  // Switch off, reorder by keys, remove, undo and redo.
  await page.getByRole('switch', { name: /Displace it/ }).click();
  await expect(page.locator('.move.off')).toHaveCount(1);
  await page.getByRole('button', { name: 'Move 6 up or down: arrow keys, or drag' }).press('ArrowUp');
  await expect(page.locator('.move').nth(4)).toContainText('Put it on 16ths');
  await page.locator('.move').nth(4).getByRole('button', { name: 'Remove' }).click();
  await expect(page.locator('.move')).toHaveCount(5);
  await page.keyboard.press('Control+z');
  await expect(page.locator('.move')).toHaveCount(6);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(page.locator('.move')).toHaveCount(5);

  // Space plays; the playhead moves; the tempo changes while it plays.
  await page.keyboard.press('Space');
  await expect(page.locator('ls-ribbon-editor .playhead')).toHaveCount(1);
  const head = page.locator('ls-ribbon-editor .playhead');
  const before = (await head.boundingBox())?.x;
  await expect.poll(async () => (await head.boundingBox())?.x).not.toBe(before);
  await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByLabel('Tempo in bpm')).toHaveValue('95');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.locator('ls-ribbon-editor .playhead')).toHaveCount(0);

  // Keep it, reload: it is there.
  await page.getByRole('button', { name: 'Keep it' }).click();
  const dialog = page.getByRole('dialog', { name: 'Keep it' });
  await dialog.getByLabel('Name').fill('Glass over five');
  await dialog.getByRole('button', { name: 'fill' }).click();
  await dialog.getByLabel('Goal tempo').fill('360');
  await dialog.getByLabel('When to use it').fill('Out of the storm.');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('heading', { name: 'Glass over five' })).toBeVisible();
  await page.reload();
  await expect(page.locator('.move')).toHaveCount(5);
  await page.getByRole('link', { name: 'Shelf' }).click();
  await expect(page.locator('ls-strip')).toHaveCount(1);
  await expect(page.locator('ls-strip')).toContainText('2 bars of 7/8 · 16ths');

  // Drill it with Space, Enter and arrows alone.
  await page.locator('ls-strip').getByRole('link', { name: 'Drill' }).click();
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  await page.getByLabel('Start tempo').fill('300');
  await page.getByLabel('Start tempo').press('Enter');
  await page.getByLabel('Step').fill('60');
  await page.getByLabel('Loops a rung').fill('1');
  await page.getByLabel('Loops a rung').press('Tab');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toHaveText('count-in');
  await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 15_000 });
  await page.keyboard.press('Space');
  await expect(page.locator('.huge')).toHaveText('360');
  for (const said of ['Messy at 360: try again.', 'Two messy tries at 360: one rung down.']) {
    await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 15_000 });
    await page.keyboard.press('Enter');
    await expect(page.locator('header')).toContainText(said);
  }
  await expect(page.locator('.huge')).toHaveText('300');
  for (const next of ['360', 'done']) {
    await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 15_000 });
    await page.keyboard.press('ArrowUp');
    if (next === 'done') await expect(page.locator('header')).toContainText('Goal 360 was clean');
    else await expect(page.locator('.huge')).toHaveText(next);
  }

  // The log has every try.
  await page.getByRole('link', { name: 'Open the Log' }).click();
  await expect(page.getByRole('heading', { name: '5 tries' })).toBeVisible();
  await expect(page.locator('tbody tr:not(.sitting)')).toHaveCount(5);
  await expect(page.locator('tbody .verdict', { hasText: 'messy' })).toHaveCount(2);
  await expect(
    page.getByRole('heading', { name: /Too early to say what is ready: .* Best clean try 360, goal 360\./ }),
  ).toBeVisible();
  await expect(page.locator('ls-chart').getByText('goal 360')).toBeVisible();

  // Out as a file, into an empty browser, out again: identical.
  const save = async (from: typeof page): Promise<string> => {
    await from.goto('/kit?part=data');
    const [download] = await Promise.all([
      from.waitForEvent('download'),
      from.getByRole('button', { name: 'Export the shelf' }).click(),
    ]);
    return (await download.path()) ?? '';
  };
  const file = await save(page);
  const other = await browser.newContext({ baseURL: baseURL ?? '' });
  const empty = await other.newPage();
  await empty.goto('/kit?part=data');
  await empty.locator('input[type=file]').setInputFiles(file);
  await expect(empty.getByText('The file can be read.')).toBeVisible();
  await expect(empty.getByText('1 new phrase')).toBeVisible();
  await expect(empty.getByText('5 tries of the log')).toBeVisible();
  await empty.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(empty.getByText('1 phrase and 5 tries from the file are on the shelf.')).toBeVisible();
  expect(await readFile(await save(empty), 'utf8')).toBe(await readFile(file, 'utf8'));
  await other.close();
});

test('a typed sticking of five: 16 = 3 × 5 + 1, back on 1 after 5 bars', async ({ page }) => {
  await typeSticking(page, 'R l l R K');
  await expect(page.locator('.sums')).toContainText('back on the 1 with the right hand after 5 bars');
  await addMove(page, 'Fill the bars');
  await expect(page.locator('.fit')).toHaveText('16 = 3 × 5 + 1');
  await expect(page.locator('.sums')).toContainText('back on the 1 with the right hand after 1 bar');
  await expect(page.locator('ls-findings')).toContainText('Linear: one limb at a time.');
});
