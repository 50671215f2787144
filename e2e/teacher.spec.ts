import type { Page } from '@playwright/test';
import { addMove, expect, test, typeSticking, written, draftOn } from './fixture';

// What a drummer did by hand until now, by the menu and by words; and the advice at a ceiling.

interface Draft {
  readonly recipe: { readonly moves: readonly { readonly move: string; readonly params: object }[] } | null;
}
async function movesOf(page: Page): Promise<readonly (readonly [string, object])[]> {
  await written(page);
  const { recipe } = await draftOn<Draft>(page, 'loop-shelf');
  return recipe?.moves.map((m) => [m.move, m.params] as const) ?? [];
}
const card = (page: Page, words: RegExp) => page.getByRole('article', { name: words });
async function say(page: Page, words: string): Promise<void> {
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Type a change' }).fill(words);
  await expect(page.getByRole('option').first()).toBeVisible();
}

test('by the menu: backwards, linear, a drag by the same hand, an ending kept whole', async ({ page }) => {
  await typeSticking(page, 'R+K l R L K');
  await addMove(page, 'Play it backwards');
  await expect(card(page, /Play it backwards/)).toBeVisible();
  await page.getByLabel('Every group by itself').check();
  await expect(card(page, /Play every group backwards/)).toBeVisible();
  await addMove(page, 'Make it linear');
  await page.getByRole('button', { name: 'the foot comes later' }).click();
  await expect(card(page, /Make it linear: a foot under a hand goes to the next free slot/)).toBeVisible();
  await expect(page.getByText('Linear: one limb at a time.')).toBeVisible();
  await addMove(page, 'Flams and drags');
  await page.getByRole('button', { name: 'drag', exact: true }).click();
  await page.getByLabel('By the same hand').check();
  await expect(card(page, /A drag on .+, by the same hand/)).toBeVisible();
  expect((await movesOf(page)).map(([m]) => m)).toEqual(['reverse', 'linear', 'ornament']);
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
});

test('by words: backwards or the hands is asked, linear is three ways, the same time on another grid', async ({
  page,
}) => {
  await typeSticking(page, 'R+K l R L');
  await say(page, 'reverse it');
  await expect(page.getByRole('option')).toHaveCount(2);
  await page.getByRole('option', { name: /Play it backwards/ }).click();
  await say(page, 'make it linear');
  await expect(page.getByRole('option').first()).toContainText('Make it linear');
  await page.getByRole('option').first().click();
  await say(page, 'in triplets over the same bars');
  await page.keyboard.press('Enter');
  await say(page, 'a drag on the first right by the same hand');
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => (await movesOf(page)).map(([m]) => m))
    .toEqual(['reverse', 'linear', 'grid', 'ornament']);
  expect((await movesOf(page))[2]?.[1]).toEqual({ grid: 1680, fill: true });
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await movesOf(page)).length).toBe(2);
});

test('what raises a ceiling is looked at and heard before it is taken, and says what it costs', async ({ page }) => {
  await typeSticking(page, 'R! l l R K K R L');
  const raise = page.locator('ls-speed .raise').first();
  await expect(raise).toContainText('Leave out the kick');
  await expect(raise).toContainText('1 kick less');
  const kicks = page.locator('ls-ribbon-editor .block.foot');
  const before = await kicks.count();
  await raise.getByRole('button', { name: /^Leave out/ }).hover();
  await expect(page.getByText('Preview: Leave out the kick')).toBeVisible();
  await expect.poll(() => kicks.count()).toBe(before - 1);
  await page.mouse.move(5, 5);
  await expect.poll(() => kicks.count()).toBe(before);
  await raise.getByRole('button', { name: /^Hear: / }).click();
  await expect(raise.getByRole('button', { name: /^Stop: / })).toBeVisible();
  await raise.getByRole('button', { name: /^Stop: / }).click();
  expect(await movesOf(page)).toEqual([]);
});

test('a piece is muted in Mix and by words, the phrase untouched; a flam stays where its hand is', async ({ page }) => {
  await typeSticking(page, 'fR[ride]+K L R[ride] L');
  await expect(page.getByText('left hand, snare twice, beat 1', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: /^Mix/ }).click();
  await page.getByRole('button', { name: 'By piece' }).click();
  await page.getByRole('group', { name: 'Pieces that are heard' }).getByRole('button', { name: 'ride' }).click();
  await expect(page.getByRole('button', { name: 'Mix: changed' })).toBeVisible();
  await page.getByRole('group', { name: 'Pieces that are heard' }).getByRole('button', { name: 'ride' }).click();
  await expect(page.getByRole('button', { name: 'Mix: all' })).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Type a change' }).fill('mute the snare');
  await expect(page.getByText('Mute the snare')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Mix: changed' })).toBeVisible();
  expect(await movesOf(page)).toEqual([]);
});

test('a groove typed by its counts opens again as its lines', async ({ page }) => {
  await typeSticking(page, 'hat: 1 & 2 & 3 & 4 &; snare: 2! 4!; kick: 1 3');
  await expect(page.getByText('Typed: closed hi-hat: 1 & 2 &')).toBeVisible();
  await page.getByRole('button', { name: /^Typed: / }).click();
  const field = page.getByRole('textbox', { name: 'Sticking' });
  await expect(field).toHaveValue('closed hi-hat: 1 & 2 & 3 & 4 &\nsnare: 2! 4!\nkick: 1 3');
  await field.fill('closed hi-hat: 1 & 2 & 3 & 4 &\nsnare: 2! 4!\nkick: 1 3 4&');
  await field.press('Enter');
  await expect(page.getByText(/kick: 1 3 4&/)).toBeVisible();
});
