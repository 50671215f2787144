import { addMove, choose, expect, keepAs, kept, openDemo, test, typeSticking } from './fixture';

const MENU = [
  'Change the subdivision',
  'Stretch or condense',
  'Add strokes',
  'Remove strokes',
  'Give strokes to another limb',
  'Fill the bars',
  'Displace it',
  'Swap the hands',
  'Accents and ghosts',
  'Flams and drags',
  'Move it on the kit',
  'Move round the kit',
  'Add a part underneath',
  'Land it',
  'Join another phrase',
  'Edit by hand',
];

test('every move can be added, says what it does, and can be taken back', async ({ page }) => {
  await typeSticking(page, 'R! l l R K');
  for (const [i, title] of MENU.entries()) {
    await addMove(page, title);
    await expect(page.locator('.move')).toHaveCount(i + 1);
    await expect(page.locator('.move').last().locator('.sentence')).not.toBeEmpty();
    await expect(
      page.locator('.move').last().locator('ls-move-editor').locator('button, input, select').first(),
    ).toBeVisible();
  }
  await expect(page.locator('.middle svg .stem').first()).toBeVisible();
  for (let i = 0; i < MENU.length; i++) await page.keyboard.press('Control+z');
  await expect(page.locator('.move')).toHaveCount(0);
});

test('selectors are read from words, and say what was not understood', async ({ page }) => {
  await typeSticking(page, 'R L R R L R L L');
  await addMove(page, 'Accents and ghosts');
  const words = page.getByLabel('in words:');
  await words.fill('second of each double');
  await words.press('Enter');
  await expect(page.getByRole('button', { name: 'Accent the second of each double' })).toBeVisible();
  await expect(page.getByText('in words: 2 strokes')).toBeVisible();
  await words.fill('purple ones');
  await words.press('Enter');
  await expect(page.getByText('“purple” is not understood here.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Accent the second of each double' })).toBeVisible();
  await words.fill('every 3rd slot from the e of 1');
  await words.press('Enter');
  await expect(page.getByRole('button', { name: 'Accent every third slot from the second' })).toBeVisible();
});

test('a bar of 5/4 in groups of 3, 4 and 5: the even ones first', async ({ page }) => {
  await typeSticking(page, 'R l l K', '5/4');
  await addMove(page, 'Fill the bars');
  await page.getByRole('group', { name: 'How to close' }).getByRole('button', { name: 'groups' }).click();
  await page.getByRole('combobox', { name: 'Groups', exact: true }).click();
  const ways = page.getByRole('option');
  await expect(ways.nth(0)).toHaveText('5 + 5 + 5 + 5');
  await expect(ways.nth(1)).toHaveText('4 + 4 + 4 + 4 + 4');
  const mixed = (await ways.allTextContents()).findIndex((t) => t.trim() === '5 + 5 + 4 + 3 + 3');
  expect(mixed).toBeGreaterThan(2);
  await ways.nth(mixed).click();
  await expect(page.getByRole('button', { name: /in groups of 5 \+ 5 \+ 4 \+ 3 \+ 3/ })).toBeVisible();
  await expect(page.locator('.middle svg .group')).toHaveText(['5', '5', '4', '3', '3']);
});

test('the sums of a grown phrase: 4 against 5, where it is not linear, who leads', async ({ page }) => {
  await typeSticking(page, 'R l l R K');
  await addMove(page, 'Fill the bars');
  await page.getByLabel('How many bars or beats').fill('5');
  await page.getByLabel('How many bars or beats').press('Enter');
  await addMove(page, 'Accents and ghosts');
  await expect(page.locator('.sums')).toContainText(
    'accents every 5 sixteenths: 4 in 5 beats, back on the 1 after 5 bars',
  );
  await addMove(page, 'Add a part underneath');
  await expect(page.locator('.move').last()).toContainText('Together with the hi-hat foot: bar 1: 1, 2, 3 and 4;');
});

test('single strokes edited by hand become a move', async ({ page }) => {
  await typeSticking(page, 'R L R L');
  await addMove(page, 'Edit by hand');
  await page.getByRole('button', { name: 'Undo all 1' }).click();
  await page.getByRole('button', { name: 'kick foot, the e of 1, rest' }).click();
  await expect(page.getByRole('button', { name: 'kick foot, the e of 1, ghost' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'A soft kick on 1e' })).toBeVisible();
  await expect(page.locator('.middle svg .block')).toHaveCount(1);
});

test('variants: found in a worker, heard, used, joined, kept with their parent', async ({ page }) => {
  await typeSticking(page, 'R l l R K');
  await addMove(page, 'Fill the bars');
  await keepAs(page, 'Parent');
  await page.getByRole('button', { name: 'Variants' }).click();
  await page.getByLabel('How many accents').fill('3');
  await page.getByLabel('How many accents').press('Enter');
  await page.getByRole('button', { name: 'Find variants' }).click();
  await expect(page.locator('ls-variants-sheet .said')).toContainText(/\d+ variants|showing the best/);
  await expect(page.locator('ls-found-row').first()).toContainText('1');

  await page.getByRole('button', { name: 'Hear variant 1', exact: true }).click();
  await expect(page.locator('ls-found-row .playhead')).toHaveCount(1);
  await page.getByRole('button', { name: 'Hear variant 2', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Stop variant 2', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Stop variant 2', exact: true }).click();

  await page.getByRole('button', { name: 'Compare variant 1 with the phrase' }).click();
  const beneath = page.getByRole('tabpanel', { name: 'Compare' });
  await expect(beneath.getByLabel('Phrase to compare with')).toHaveText(/Variant 1: /);
  await expect(beneath.locator('.said')).not.toBeEmpty();
  await expect(beneath.locator('ls-ribbon')).toBeVisible();
  await page.getByRole('button', { name: 'Variants' }).click();
  await page.getByRole('button', { name: 'Find variants' }).click();
  await page.getByRole('button', { name: 'Keep variant 2', exact: true }).click();
  await expect(page.getByText('“Parent · 2” is on the shelf')).toBeVisible();
  await page.getByRole('button', { name: 'Join after: variant 1', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Join “variant 1”' })).toBeVisible();
  await expect(page.locator('.facts').first()).toContainText('2 bars of 4/4');
  await page.goto('/shelf');
  await expect(page.locator('ls-strip')).toHaveCount(2);
  await page
    .getByRole('link', { name: /Parent · 2/ })
    .first()
    .click();
  await expect(page.locator('.move')).toHaveCount(2);
});

test('a search that is too wide stops at its bound, and can be stopped before', async ({ page }) => {
  await typeSticking(page, '(R L R L R L R L)x8');
  await page.keyboard.press('v');
  await page.getByRole('group', { name: 'What to change' }).getByRole('button', { name: 'hands swapped' }).click();
  await page.getByLabel('How many accents').fill('6');
  await page.getByLabel('How many accents').press('Enter');
  await page.getByRole('button', { name: 'Find variants' }).click();
  await expect(page.getByText(/checked/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('button', { name: 'Find variants' })).toBeVisible();
  await page.getByRole('button', { name: 'Find variants' }).click();
  await expect(page.locator('ls-variants-sheet .said')).toContainText(/showing the best 200 of at least [\d,]+/, {
    timeout: 60_000,
  });
});

test('the sung line and half-time counts; own syllables are kept', async ({ page }) => {
  await openDemo(page, '/kit?part=data');
  await page.getByLabel('kick, tap').fill('dum');
  await page.getByLabel('kick, tap').press('Enter');
  await expect.poll(() => kept(page, 'settings', 'loop-shelf-demo')).toMatchObject({ sung: { 'kick tap': 'dum' } });
  await page.goto('/bench/salt-1');
  await page.locator('h1').click();
  await page.keyboard.press('s');
  await expect(page.locator('.sung', { hasText: 'dum' }).first()).toBeVisible();
  await expect(
    page
      .locator('.sung', { hasText: 'KASH' })
      .or(page.locator('.sung', { hasText: 'BOOM' }))
      .first(),
  ).toBeVisible();
  await page.goto('/bench/salt-24');
  await expect(page.locator('.count.strong')).toHaveText(['1', '2', '3', '4']);
  await page.keyboard.press('h');
  await expect(page.locator('.count.strong')).toHaveText(['1', '2']);
});

test('where nine strokes must start to end on the & of 4, and of 7 in 7/8', async ({ page }) => {
  for (const [meter, ending, start] of [
    ['4/4', '4&', 'start on the & of 2'],
    ['7/8', '7&', 'start on the & of 3'],
  ] as const) {
    await typeSticking(page, 'R L R L R L R L R', meter);
    await choose(page, 'Count of the last stroke', ending);
    await expect(page.locator('.ending')).toContainText(start);
  }
});
