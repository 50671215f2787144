import { expect, keepAs, openDemo, test, typeSticking } from './fixture';

test('a wrong sticking names the column, and the last good one stays drawn', async ({ page }) => {
  await page.goto('/bench');
  const field = page.getByRole('textbox', { name: 'Sticking' });
  await field.fill('R L K');
  await expect(page.locator('.preview svg .stem')).toHaveCount(2);
  await field.fill('R L K Q');
  await expect(page.getByText('Column 7: “Q” is not a stroke.')).toBeVisible();
  await expect(page.locator('.preview svg .stem')).toHaveCount(2);
  await expect(page.getByRole('button', { name: 'Put it on the Bench' })).toBeDisabled();
});

test('tempos are held between 20 and 400, with a hint', async ({ page }) => {
  await typeSticking(page, 'R L');
  const tempo = page.getByLabel('Tempo in bpm');
  for (const [typed, kept, hint] of [
    ['0', '20', 'Tempos go from 20 to 400.'],
    ['-5', '20', 'Tempos go from 20 to 400.'],
    ['1000', '400', 'Tempos go from 20 to 400.'],
    ['abc', '400', 'Type a tempo from 20 to 400.'],
  ] as const) {
    await tempo.fill(typed);
    await tempo.press('Enter');
    await expect(tempo).toHaveValue(kept);
    await expect(page.getByText(hint)).toBeVisible();
  }
});

test('a move that no longer fits says so on its card and loses nothing', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await page.getByRole('switch', { name: /Accent rights/ }).click();
  await expect(page.locator('.move', { hasText: 'Send hand accents' })).toContainText(
    'There are no hand accents here, so nothing changes.',
  );
  await page.keyboard.press('Control+z');
  await expect(page.locator('.move .finding.stop')).toHaveCount(0);
});

const HOSTILE = [
  ['markup', '<img src=x onerror="document.title=1">'],
  ['10,000 letters', 'ab '.repeat(3333) + 'c'],
  ['right to left', 'שלום ‮ reversed'],
  ['signs', '🥁🥁 é ﷽'],
] as const;
for (const [kind, name] of HOSTILE) {
  test(`a hostile name is shown as text: ${kind}`, async ({ page }) => {
    await typeSticking(page, 'R L');
    await keepAs(page, name);
    await page.goto('/shelf');
    await expect(page.locator('ls-strip .title')).toHaveText(name.slice(0, 200).trim());
    expect(await page.locator('ls-strip').evaluate((e) => e.getBoundingClientRect().height)).toBeLessThan(75);
    await page.locator('ls-strip .name').click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText(name.slice(0, 20).trim());
    await page.goto('/drill');
    expect(await page.title()).toContain('Loop Shelf');
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
  });
}

const phrase = {
  id: 'p',
  name: 'x',
  family: 'fill',
  recipe: { source: { kind: 'typed', text: 'R', meter: '4/4', grid: 1260 }, moves: [] },
  tempo: 90,
  goal: 100,
  note: '',
  created: 0,
  changed: 0,
};
const shelf = (change: object): string =>
  JSON.stringify({ format: 'loop-shelf', version: 1, phrases: [phrase], attempts: [], drills: [], ...change });
const FILES = [
  ['cut off', shelf({}).slice(0, -40), 'This file is cut off'],
  ['newer', shelf({ version: 9 }), 'saved by a newer Loop Shelf (version 9'],
  ['wrong types', shelf({ phrases: [{ ...phrase, tempo: 'fast' }] }), 'In phrase 1, tempo: must be number'],
  ['not JSON', 'RIFF....WAVE', 'cannot be read as JSON'],
  [
    'a million phrases',
    `{"format":"loop-shelf","version":1,"phrases":[${'0,'.repeat(999_999)}0],"attempts":[],"drills":[]}`,
    'holds 1000000 phrases; a shelf holds at most 10000',
  ],
] as const;
test('bad shelf files get a sentence, and the shelf stays as it was', async ({ page }) => {
  await typeSticking(page, 'R L');
  await keepAs(page, 'Mine');
  await page.goto('/kit?part=data');
  for (const [name, text, words] of FILES) {
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: `${name}.json`, mimeType: 'application/json', buffer: Buffer.from(text) });
    await expect(page.getByRole('alert')).toContainText(words);
    await expect(page.getByRole('alert')).toContainText('Your shelf is unchanged.');
  }
  await page.goto('/shelf');
  await expect(page.locator('ls-strip')).toHaveCount(1);
});

test('a recipe from a file that makes no sense opens on the Bench with its findings', async ({ page }) => {
  const odd = {
    ...phrase,
    name: 'Odd',
    recipe: {
      source: { kind: 'rudiment', id: 'none', meter: '99/7', grid: 105 },
      moves: [{ id: 'a', on: true, move: 'shift', params: { slots: 3, mode: 'wrap' } }],
    },
  };
  await page.goto('/kit?part=data');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'odd.json', mimeType: 'application/json', buffer: Buffer.from(shelf({ phrases: [odd] })) });
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.goto('/shelf');
  await page.getByRole('link', { name: /Odd/ }).first().click();
  await expect(page.locator('.source')).toContainText('is not a meter');
});
