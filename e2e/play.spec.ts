import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { NET, OWN, play, ROPE, sitting, standInPad } from './stand-in-pad';
import { handedOver, turn } from './clock';
import { choose, expect, keepAs, openDemo, test, typeSticking } from './fixture';

async function twoPhrases(page: Page): Promise<void> {
  await typeSticking(page, NET);
  await keepAs(page, 'Net');
  await typeSticking(page, ROPE);
  await keepAs(page, 'Rope');
}

test('two minutes without a click: what came is listed with bar and count, what is not on the shelf too', async ({
  page,
}) => {
  await standInPad(page);
  await twoPhrases(page);
  await page.goto('/play');
  await choose(page, 'Over', 'nothing');
  await choose(page, 'What listens', 'MIDI pad or kit');
  await page.getByRole('button', { name: /^Begin/ }).click();
  await expect(page.getByText('Your tempo is found when you stop.')).toBeVisible();
  await play(
    page,
    sitting(48, 96, {
      5: [NET, 0],
      9: [ROPE, 0],
      13: [NET, 4],
      17: [OWN, 0],
      22: [NET, 0],
      27: [OWN, 0],
      33: [ROPE.split(' ').slice(0, 14).join(' '), 0],
      38: [OWN, 0],
    }),
  );
  await page.getByRole('button', { name: /^Stop/ }).click();
  const came = page.getByRole('list', { name: 'What came' }).locator('li');
  await expect(came).toHaveCount(5);
  await expect(page.locator('.told')).toHaveText('Net came 3 times and Rope twice.');
  await expect(page.getByText('The tempo was found under your playing.')).toBeVisible();
  await expect(page.locator('#sitting-title')).toHaveText(/4\/4 at (95\.[89]|96(\.[012])?)$/);
  const lines = [
    /^bar 5, 1\s*Net\s*clean(\s*most likely)?\s*$/,
    /^bar 9, 1\s*Rope\s*clean\s*$/,
    /^bar 13, 2\s*Net\s*clean(\s*most likely)?\s*A beat later than it is written\s*$/,
    /^bar 22, 1\s*Net\s*clean(\s*most likely)?\s*$/,
    /^bar 33, 1\s*Rope.*Ended 2 sixteenths early\s*$/,
  ];
  for (const [i, line] of lines.entries()) await expect(came.nth(i).locator('p')).toHaveText(line);
  await expect(came.first().locator('ls-ribbon svg')).toBeVisible();
  const others = page.getByRole('list', { name: 'Not on the shelf yet' }).locator('li');
  await expect(others).toHaveCount(1);
  await expect(others.first()).toContainText('3 times');
  expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([]);

  // It is kept: heard, read again with a larger shelf, dropped and taken back.
  await page.reload();
  await page.locator('.to-sitting').first().click();
  await expect(came).toHaveCount(5);
  await page.getByRole('button', { name: 'Hear it' }).click();
  await page.locator('ls-sitting').getByRole('button', { name: 'Stop' }).click();
  await page.getByRole('list', { name: 'Not on the shelf yet' }).getByRole('button', { name: 'To the Bench' }).click();
  await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
  await keepAs(page, 'Mine');
  await page.goto('/play');
  await page.locator('.to-sitting').first().click();
  await page.getByRole('button', { name: 'Read again' }).click();
  await expect(page.locator('.told')).toHaveText('Net came 3 times, Mine 3 times and Rope twice.');
  await expect(others).toHaveCount(0);
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText('None yet.')).toBeVisible();
  await page.locator('ls-notices').getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.to-sitting')).toHaveCount(1);

  // The Log answers from it.
  await page.goto('/log?ask=used');
  await expect(page.locator('#chart-title')).toHaveText(
    'Net came most: 3 times, at 96, from the 1 and 2. 2 other phrases came too.',
  );
  await page.getByRole('button', { name: 'What do I never use?' }).click();
  await expect(page.locator('#chart-title')).toHaveText('Every phrase that you can play clean came in free play.');
  await page.getByRole('button', { name: 'What is not on the shelf?' }).click();
  await expect(page.locator('#chart-title')).toHaveText('Nothing came three times that is not on the shelf.');
});

test('on a fake clock: a phrase is named within a beat; a pad that goes is said, and what was played stays', async ({
  page,
}) => {
  await page.clock.install();
  await standInPad(page);
  await twoPhrases(page);
  await page.goto('/play');
  await page.getByLabel('Tempo in bpm').fill('120');
  await page.getByLabel('Tempo in bpm').press('Enter');
  await choose(page, 'What listens', 'MIDI pad or kit');
  await page.locator('h1').click();
  await handedOver(page);
  await page.keyboard.press('Space');
  await turn(page, 1.5);
  const clicks: number[] = [];
  for (let i = 0; i < 8 && clicks.length < 5; i++) {
    await turn(page, 0.5);
    clicks.push(...(await handedOver(page)).map((h) => h.when));
  }
  // Four beats are counted in: the fifth click is the first bar line.
  const zero = clicks[4] ?? NaN;
  await play(page, sitting(6, 120, { 4: [ROPE, 0] }), zero);
  const name = page.locator('.stage .name');
  await expect(name).toHaveText('');
  // The phrase ends with the fourth bar, eight seconds in.
  const now = () => page.evaluate(() => performance.now() / 1000);
  while ((await now()) < zero + 8.05) await turn(page, 0.05, 0.05);
  for (let i = 0; i < 9 && (await name.textContent()) !== 'Rope'; i++) await turn(page, 0.05, 0.05);
  await expect(name).toHaveText('Rope');
  expect(await now()).toBeLessThan(zero + 8.55);
  await page.evaluate(() => (window as unknown as { unplug(): void }).unplug());
  await expect(page.getByRole('alert')).toContainText('was unplugged');
  await page.keyboard.press('Space');
  await turn(page, 1);
  await expect(page.locator('.told')).toHaveText('Rope came once.');
  await expect(page.getByRole('list', { name: 'What came' }).locator('p')).toHaveText(/^bar 4, 1\s*Rope\s*clean\s*$/);
});

test('on a fake clock: phrases are called by name and number, and said by ear what came', async ({ page }) => {
  await page.clock.install();
  await twoPhrases(page);
  await page.goto('/play?mode=calls');
  await page.getByLabel('Tempo in bpm').fill('120');
  await page.getByLabel('Tempo in bpm').press('Enter');
  await choose(page, 'Kind', 'fills and licks');
  await expect(page.getByText('Nobody listens: you say what came.')).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await turn(page, 4);
  await expect(page.locator('.call .name')).toHaveText(/^\s*[12]\s*(Net|Rope)\s*$/);
  const asks = page.locator('.asks');
  const names: string[] = [];
  for (const key of ['Enter', 'x', 'l']) {
    for (let i = 0; i < 24 && !(await asks.isVisible()); i++) await turn(page, 0.5);
    names.push((await asks.locator('strong').textContent()) ?? '');
    await page.keyboard.press(key);
    await expect(asks).toBeHidden();
  }
  expect(new Set(names.slice(0, 2)).size).toBe(2);
  await page.keyboard.press('Space');
  await turn(page, 2);
  await expect(page.locator('.told')).toHaveText(
    /^1 of 3 came at once, 1 late\. Clean: 1 of 1\. (Net|Rope) did not come\.$/,
  );
  await expect(page.getByRole('list', { name: 'Calls' }).locator('li')).toHaveCount(3);
});

test('trading with the stand-in: it plays, listens, and says what came back', async ({ page }) => {
  await page.clock.install();
  await openDemo(page, '/play?mode=trading');
  await page.getByLabel('Tempo in bpm').fill('180');
  await page.getByLabel('Tempo in bpm').press('Enter');
  await choose(page, 'What listens', 'Simulated player');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  const name = page.locator('.stage .name');
  for (let i = 0; i < 24 && (await name.textContent()) !== 'Listen'; i++) await turn(page, 0.25);
  for (let i = 0; i < 24 && (await name.textContent()) !== 'Your turn'; i++) await turn(page, 0.25);
  await expect(name).toHaveText('Your turn');
  for (let i = 0; i < 24 && (await name.textContent()) !== 'Listen'; i++) await turn(page, 0.25);
  await turn(page, 0.5);
  await expect(page.locator('.stage .hint')).toHaveText(/^(The same came back\.|Nearly the same)/);
  await page.keyboard.press('Escape');
  await turn(page, 2);
  await expect(page.getByText('Not played on a drum: it counts for nothing of yours.')).toBeVisible();
});

test('nobody listens, nothing is struck, nothing can be called: each is said, and nothing breaks', async ({ page }) => {
  await page.goto('/play');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('ls-notices')).toContainText('Choose what listens first');
  await page.getByRole('button', { name: 'Calls', exact: true }).click();
  await page.keyboard.press('Space');
  await expect(page.locator('ls-notices')).toContainText('No phrase of the shelf can be called in this meter.');
  await page.getByRole('button', { name: 'Trading', exact: true }).click();
  await choose(page, 'What listens', 'Simulated player');
  await page.getByRole('button', { name: /^Begin/ }).click();
  await expect(page.locator('ls-notices')).toContainText('No fill or lick of the shelf goes into so many bars');
});

test('free play is reached from the day and from Drill; the day brings in what is clean and does not come', async ({
  page,
}) => {
  await openDemo(page, '/today');
  const block = page.locator('ls-block-row').filter({ hasText: 'Free play' });
  await expect(block).toContainText(/go clean and have not come by themselves yet: bring them in\./);
  await block.getByRole('link', { name: 'Let it be heard' }).click();
  await expect(page.getByRole('heading', { name: 'Play', exact: true })).toBeVisible();
  await expect(page.locator('.to-sitting')).toHaveCount(2);
  await page.goto('/drill');
  await page.getByRole('link', { name: 'Play freely' }).click();
  await expect(page.getByRole('heading', { name: 'Play', exact: true })).toBeVisible();
});
