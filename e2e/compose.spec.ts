import { addMove, choose, expect, openDemo, test, typeSticking } from './fixture';

test('a bar of 7/8 is asked for by its hits with the pointer; an answer is heard, used, and is as promised', async ({
  page,
}) => {
  await page.goto('/bench?fresh=1');
  await page.getByRole('button', { name: /Ask for a phrase/ }).click();
  const sheet = page.locator('ls-compose-sheet');
  await expect(sheet.getByRole('heading', { name: 'Ask for a phrase' })).toBeVisible();
  await choose(sheet, 'Meter', '7/8');
  await expect(sheet.locator('.slot')).toHaveCount(14);
  await sheet.getByRole('button', { name: /^the & of 3: anything/ }).click();
  await expect(sheet.getByRole('button', { name: /^the & of 3: a hit/ })).toHaveAttribute('aria-pressed', 'true');
  await sheet.getByRole('button', { name: 'Find phrases' }).click();
  const answers = sheet.getByRole('article');
  await expect(answers.first()).toBeVisible();
  const sum = ((await answers.first().locator('.sum').textContent()) ?? '').trim();
  expect(sum.split(' + ').reduce((s, n) => s + Number(n), 0)).toBe(14);
  await sheet.getByRole('button', { name: 'Hear answer 1', exact: true }).click();
  await sheet.getByRole('button', { name: 'Stop answer 1', exact: true }).click();
  await sheet.getByRole('button', { name: 'Put answer 1 on the Bench', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
  await expect(page.locator('ls-compose-sheet')).toHaveCount(0);
  // It is edited like any other.
  await addMove(page, 'Swap the hands');
  await expect(page.getByRole('article', { name: /Swap the hands/ })).toBeVisible();
});

test('by keys alone: letters ask slot by slot, what contradicts is said, and where nothing fits a press helps', async ({
  page,
}) => {
  await page.goto('/bench?fresh=1');
  await expect(page.getByRole('heading', { name: 'Or ask for one' })).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('q');
  const sheet = page.locator('ls-compose-sheet');
  await sheet.locator('[data-slot="0"]').focus();
  await page.keyboard.press('h');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('k');
  await page.keyboard.press('-');
  await expect(sheet.getByText('the kick and a rest both on the e of 1.')).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Find phrases' })).toBeDisabled();
  await page.keyboard.press('k');
  await expect(sheet.getByText('the kick and a rest both on the e of 1.')).toHaveCount(0);
  // A rest there, and no cell has one: nothing answers.
  await sheet.getByRole('button', { name: 'Find phrases' }).press('Enter');
  await expect(sheet.getByText('Nothing is all of that')).toBeVisible();
  const help = sheet.getByRole('group', { name: 'What would help' }).getByRole('button');
  await expect(help.first()).toContainText('without a rest on the e of 1');
  await help.first().press('Enter');
  await expect(sheet.getByRole('article').first()).toBeVisible();
});

test('round the kick of a phrase on the Bench; kept ones are on the shelf, and others are told from them', async ({
  page,
}) => {
  await typeSticking(page, 'K - - K - - K - - - K - - - - -');
  await page.getByRole('button', { name: 'Ask', exact: true }).click();
  const sheet = page.locator('ls-compose-sheet');
  await sheet.getByRole('button', { name: 'its kick' }).click();
  await sheet.getByRole('button', { name: 'single strokes' }).click();
  await sheet.getByRole('button', { name: 'Find phrases' }).click();
  await expect(sheet.getByRole('article').first()).toBeVisible();
  await sheet.getByRole('button', { name: 'Keep answer 1', exact: true }).click();
  await expect(page.getByText(/is on the shelf\.$/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Find phrases' }).click();
  await expect(sheet.getByRole('article').first()).toContainText(/slots? from /);
  await page.goto('/shelf');
  await expect(page.locator('ls-strip')).toHaveCount(1);
});

test('on the demo: what is asked for holds at its tempo, and lands', async ({ page }) => {
  await openDemo(page, '/bench?fresh=1');
  await page.getByRole('button', { name: /Ask for a phrase/ }).click();
  const sheet = page.locator('ls-compose-sheet');
  await sheet.getByLabel('Holds at').fill('110');
  await sheet.getByLabel('Holds at').press('Tab');
  await choose(sheet, 'Lands on', 'crash, left hand');
  await sheet.getByRole('button', { name: 'Find phrases' }).click();
  await expect(sheet.getByRole('article').first()).toBeVisible();
  for (const bpm of await sheet.locator('.bpm').allTextContents())
    expect(bpm.trim() === 'any' || Number(bpm) >= 110).toBe(true);
  await sheet.getByRole('button', { name: 'Put answer 1 on the Bench', exact: true }).click();
  await expect(page.getByRole('article', { name: /Land on the next 1 with the left crash/ })).toBeVisible();
});

test('in words: a line sets what is asked, and answers are it; a word nobody knows is named and nothing changes', async ({
  page,
}) => {
  await page.goto('/bench?fresh=1');
  await page.getByRole('button', { name: /Ask for a phrase/ }).click();
  const sheet = page.locator('ls-compose-sheet');
  const line = sheet.getByLabel('Say what it must have');
  await line.fill('two bars of 16ths, hits on 1 and the a of 2, wibble');
  await line.press('Enter');
  await expect(sheet.getByText('“wibble” is not understood here.')).toBeVisible();
  await expect(sheet.locator('.slot')).toHaveCount(16);
  await line.fill('two bars of 16ths, hits on 1 and the a of 2, linear, playable at 110');
  await line.press('Enter');
  await expect(sheet.locator('.slot')).toHaveCount(32);
  await expect(sheet.locator('.slot.hit')).toHaveCount(4);
  await expect(sheet.getByLabel('Holds at')).toHaveValue('110');
  await expect(sheet.getByRole('article').first()).toBeVisible();
  for (const bpm of await sheet.locator('.bpm').allTextContents())
    expect(bpm.trim() === 'any' || Number(bpm) >= 110).toBe(true);
});

test('slots are drawn over, hits are those of a phrase, several answers are kept as a series and asked on from', async ({
  page,
}) => {
  await openDemo(page, '/bench/salt-1');
  await page.getByRole('button', { name: 'Variants', exact: true }).click();
  await page.getByRole('button', { name: 'Ask for one like it' }).click();
  const sheet = page.locator('ls-compose-sheet');
  // Drawn over four slots it is one step.
  const [from, to] = [
    await sheet.locator('[data-slot="2"]').boundingBox(),
    await sheet.locator('[data-slot="5"]').boundingBox(),
  ];
  await sheet.getByRole('button', { name: 'a rest', exact: true }).click();
  await page.mouse.move(from!.x + 10, from!.y + 10);
  await page.mouse.down();
  await page.mouse.move(to!.x + 10, to!.y + 10, { steps: 12 });
  await page.mouse.up();
  await expect(sheet.locator('.slot.set')).toHaveCount(4);
  await sheet.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.locator('.slot.set')).toHaveCount(0);
  await sheet.getByRole('button', { name: 'Take the hits of a phrase' }).click();
  await page.getByRole('menuitem', { name: 'Glass over five', exact: true }).click();
  await expect(sheet.locator('.slot')).toHaveCount(28);
  await expect(sheet.locator('.slot.hit').first()).toBeVisible();
  await sheet.getByRole('button', { name: 'single strokes' }).click();
  await sheet.getByRole('button', { name: 'single kicks' }).click();
  await sheet.getByRole('button', { name: 'Find phrases' }).click();
  await expect(sheet.getByRole('article').nth(2)).toBeVisible();
  // One key a piece.
  await sheet.getByRole('region', { name: /^Answers/ }).focus();
  await page.keyboard.press('ArrowDown');
  await expect(sheet.getByRole('button', { name: 'Stop answer 1', exact: true })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(sheet.getByRole('button', { name: 'Stop answer 2', exact: true })).toBeVisible();
  await page.keyboard.press(' ');
  await sheet.getByLabel('Choose answer 1 for a series').check();
  await sheet.getByLabel('Choose answer 3 for a series').check();
  await sheet.getByRole('button', { name: 'Keep 2 as a series' }).click();
  await expect(page.getByText(/^2 phrases from .* are on the shelf/)).toBeVisible();
  await page.getByRole('alert').last().getByRole('button', { name: 'Undo' }).click();
  await sheet.getByRole('button', { name: 'Ask on from answer 1', exact: true }).click();
  await page.getByRole('menuitem', { name: 'More with this first half' }).click();
  await expect(sheet.getByRole('button', { name: /14 slots of an answer stay/ })).toBeVisible();
  await expect(sheet.getByRole('article').first()).toBeVisible();
});

test('the hits of a recording are asked for on the Bench, in the room of the lick', async ({ page }) => {
  await openDemo(page, '/listen');
  await page.getByRole('button', { name: 'a groove' }).click();
  await expect(page.getByText('strokes found')).toBeVisible();
  const wave = (await page.locator('ls-wave').nth(1).boundingBox())!;
  await page.mouse.move(wave.x + wave.width * 0.045, wave.y + 60);
  await page.mouse.down();
  await page.mouse.move(wave.x + wave.width * 0.3, wave.y + 60);
  await page.mouse.move(wave.x + wave.width * 0.44, wave.y + 60);
  await page.mouse.up();
  await expect(page.locator('.school').first()).toBeVisible();
  await page.getByRole('button', { name: 'Ask with these hits' }).click();
  const sheet = page.locator('ls-compose-sheet');
  await expect(sheet.locator('.slot.hit').first()).toBeVisible();
  await sheet.getByRole('button', { name: 'single strokes' }).click();
  await sheet.getByRole('button', { name: 'Find phrases' }).click();
  await expect(sheet.getByRole('article').first()).toBeVisible();
});
