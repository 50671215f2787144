import { draftOn, expect, test, typeSticking } from './fixture';

interface Draft {
  readonly recipe: {
    readonly moves: readonly { readonly move: string; readonly params: Record<string, unknown> }[];
  } | null;
}

async function say(page: Parameters<typeof typeSticking>[0], words: string): Promise<void> {
  await page.keyboard.press('/');
  await page.keyboard.type(words);
  await page.keyboard.press('Enter');
}

test('the beat starts again at a count by a button and by words; a limb plays along; a few slots as 32nds from a count', async ({
  page,
}) => {
  await typeSticking(page, '(R! l K l)x8');
  const titles = page.locator('ls-ribbon-editor title');
  await page.keyboard.press('e');
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Start again from here' }).click();
  await expect(page.getByRole('article', { name: /Start again from 1:2&, to the end of that bar/ })).toBeVisible();
  await expect(page.locator('ls-stroke-bar .wrong')).toHaveCount(0);
  await expect(titles.filter({ hasText: 'bar 1, the & of 2, right hand, accent' })).toHaveCount(1);
  // The next bar is as it was.
  await expect(titles.filter({ hasText: 'bar 2, the & of 2, kick foot' })).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.locator('h1').click();
  await say(page, 'start again from bar 2: 3');
  await say(page, 'the right hand follows the kick');
  await say(page, 'the first four as 32nds on 2:4');
  await expect(page.getByRole('article', { name: /Put slots 1 to 4 on 32nds, from 2:4 on/ })).toContainText(
    'take 2 16ths',
  );
  const recipe = (await draftOn<Draft>(page, 'loop-shelf')).recipe;
  expect(recipe?.moves.map((m) => m.move)).toEqual(['restart', 'restart', 'follow', 'grid']);
});

test('a groove is typed a line to a piece; somebody counts aloud, and it can be silenced', async ({ page }) => {
  await page.goto('/bench?fresh=1');
  await page.getByRole('textbox', { name: 'Sticking' }).fill('hat: 1 & 2 & 3 & 4 &; snare: 2! 4!; kick: 1 3&');
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  const titles = page.locator('ls-ribbon-editor title');
  await expect(titles.filter({ hasText: 'closed hi-hat' })).toHaveCount(8);
  await expect(titles.filter({ hasText: 'left hand, accent, snare' })).toHaveCount(2);
  await page.getByRole('button', { name: /^Hear:/ }).click();
  const aloud = page.getByRole('group', { name: 'Who counts along' }).getByRole('button', { name: 'Count aloud' });
  await aloud.click();
  await expect(aloud).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('slider', { name: 'Loudness: counting' })).toBeVisible();
  await aloud.click();
  await expect(aloud).toHaveAttribute('aria-pressed', 'false');
});
