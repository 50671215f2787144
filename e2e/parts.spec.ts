import type { Page } from '@playwright/test';
import { addMove, expect, test, typeSticking, written, draftOn } from './fixture';

// A part taken out of a phrase and linked to it, hands round a line, versions by their letters.

interface Draft {
  readonly recipe: { readonly moves: readonly { readonly move: string; readonly params: object }[] } | null;
}
async function movesOf(page: Page): Promise<readonly string[]> {
  await written(page);
  const { recipe } = await draftOn<Draft>(page, 'loop-shelf');
  return recipe?.moves.map((m) => m.move) ?? [];
}
const card = (page: Page, words: RegExp) => page.getByRole('article', { name: words });
async function take(page: Page, words: string): Promise<void> {
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Type a change' }).fill(words);
  await expect(page.getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'Type a change' })).toHaveValue('');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
}
async function keepAs(page: Page, name: string, how: 'Keep it' | 'Keep as new'): Promise<void> {
  await page.getByRole('button', { name: how, exact: true }).click();
  await page.getByLabel('Name').fill(name);
  await page.getByRole('dialog').getByRole('button', { name: how, exact: true }).click();
  await expect(page.getByRole('heading', { name, exact: true })).toBeVisible();
}
const letters = (page: Page) => page.locator('ls-ribbon-editor .letter').allTextContents();

test('a part is taken out as a phrase: each knows the other, and a change of the first is taken over', async ({
  page,
}) => {
  await typeSticking(page, 'R l l R L r r L');
  await keepAs(page, 'Long net', 'Keep it');
  await take(page, 'the second half as a phrase');
  await expect(card(page, /Only the second half/)).toBeVisible();
  await keepAs(page, 'Short net', 'Keep as new');
  const line = page.locator('ls-kin-line');
  await expect(line.getByRole('link', { name: 'Long net' })).toBeVisible();
  await expect(line).toContainText('Only the second half');
  await expect(line.getByRole('button', { name: 'Take the change over' })).toHaveCount(0);
  // The way there, a change, and back by the way that is there now.
  await line.getByRole('link', { name: 'Long net' }).click();
  await expect(page.getByRole('heading', { name: 'Long net', exact: true })).toBeVisible();
  await expect(line.getByRole('link', { name: 'Short net' })).toBeVisible();
  await take(page, 'play it backwards');
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Keep it', exact: true }).click();
  await line.getByRole('link', { name: 'Short net' }).click();
  await expect(page.getByRole('heading', { name: 'Short net', exact: true })).toBeVisible();
  expect((await letters(page)).join('').trim()).toMatch(/^L\s*R\s*R\s*L$/i);
  await line.getByRole('button', { name: 'Take the change over' }).hover();
  await expect(page.getByText('Preview: with the change')).toBeVisible();
  await line.getByRole('button', { name: 'Take the change over' }).click();
  await expect.poll(async () => (await letters(page)).join('')).toMatch(/^\s*R\s*L\s*L\s*R\s*$/i);
  expect(await movesOf(page)).toEqual(['reverse', 'only']);
  await expect(line.getByRole('button', { name: 'Take the change over' })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect.poll(() => movesOf(page)).toEqual(['only']);
});

test('hands round the kick: by the menu, the fastest first, and by words', async ({ page }) => {
  await typeSticking(page, 'K - - K - - K -');
  await addMove(page, 'Hands round a line');
  await expect(card(page, /Hands round kicks: R L/)).toBeVisible();
  const ways = page.getByRole('group', { name: 'Stickings round it, the fastest first' }).getByRole('button');
  const tempos = (await ways.allTextContents()).map((t) => Number(/up to (\d+)/.exec(t)?.[1] ?? Infinity));
  expect(tempos.length).toBeGreaterThan(3);
  expect(tempos).toEqual([...tempos].sort((a, b) => b - a));
  await ways.filter({ hasText: /^\s*R R L\s+(?:up|no)/ }).click();
  await expect(card(page, /Hands round kicks: R R L/)).toBeVisible();
  expect((await letters(page)).join('').replace(/\s/g, '')).toBe('RRLRR');
  await page.getByLabel('From the start again after each').check();
  expect((await letters(page)).join('').replace(/\s/g, '')).toBe('RRRRR');
  const undo = page.getByRole('button', { name: 'Undo', exact: true });
  while ((await movesOf(page)).length > 0) await undo.click();
  await take(page, 'R L L round the kick');
  await expect.poll(async () => (await letters(page)).join('').replace(/\s/g, '')).toBe('RLLRL');
});

test('orchestrations have letters: the next is proposed, and they are joined in any order by them', async ({
  page,
}) => {
  await typeSticking(page, '(R l)x8');
  await keepAs(page, 'Rope', 'Keep it');
  await take(page, 'rights to the high tom');
  await page.getByRole('button', { name: 'Keep as new', exact: true }).click();
  await expect(page.getByLabel('Name')).toHaveValue('Rope B');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep as new', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Rope B', exact: true })).toBeVisible();
  await take(page, 'rights to the floor tom');
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Type a change' }).fill('keep it as C');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Rope C', exact: true })).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Type a change' }).fill('B then A then C');
  await expect(page.getByRole('option', { name: /in place of this/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(card(page, /“Rope B” in place of this/)).toBeVisible();
  await expect(card(page, /Join “Rope”/)).toBeVisible();
  await expect(card(page, /Join “Rope C”/)).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Type a change' }).fill('A then E');
  await expect(page.getByText(/There is no version E on the shelf/)).toBeVisible();
});

test('an ending is kept whole by its box and by words, and the sum says so', async ({ page }) => {
  await typeSticking(page, 'R L L R K');
  await take(page, 'fill 1 bar, close with R L R L');
  await expect(page.getByText(/so 3 of your ending are cut\. All 4 fit/)).toBeVisible();
  await card(page, /Fill 1 bar, close with R L R L/)
    .locator('.sentence')
    .click();
  await page.getByLabel('Keep all of the ending').check();
  await expect(card(page, /close with R L R L, all of it/)).toBeVisible();
  await expect(page.locator('ls-fit-editor .sum')).toHaveText('16 = 2 × 5 + 2 + 4');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(card(page, /Fill 1 bar/)).toHaveCount(0);
  await take(page, 'fill 1 bar and close with R L R L, keep all of it');
  await expect(card(page, /close with R L R L, all of it/)).toBeVisible();
});

test('a beat on another subdivision keeps its time: each way is offered and drawn, and set on its card', async ({
  page,
}) => {
  await typeSticking(page, '(R L R R L R L L)x2');
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Type a change' }).fill('beat 3 as 32nds');
  await expect(page.getByRole('option')).toHaveCount(3);
  await page.getByRole('option', { name: /in the same time, in order/ }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  const made = card(page, /Put beat 3 on 32nds in the same time, in order/);
  await expect(made).toBeVisible();
  await expect(page.getByText(/1 bar of 4\/4/)).toBeVisible();
  expect((await letters(page)).join('').replace(/\s/g, '')).toBe('RLRRLRLLRLRRRLRRLRLL');
  if (!(await page.getByLabel('What it is filled with').isVisible())) await made.locator('.sentence').click();
  await page.getByRole('button', { name: 'each in its place' }).click();
  await expect.poll(async () => (await letters(page)).join('').replace(/\s/g, '')).toBe('RLRRLRLLRRLLRRRRLRLL');
  await page.keyboard.press('Control+z');
  await expect(card(page, /in the same time, in order/)).toBeVisible();
});
