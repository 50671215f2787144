import type { Page } from '@playwright/test';
import { draftOn, expect, test, typeSticking } from './fixture';

interface Draft {
  readonly recipe: {
    readonly moves: readonly {
      readonly id: string;
      readonly move: string;
      readonly on: boolean;
      readonly params: Record<string, unknown>;
    }[];
  } | null;
}
const recipe = async (page: Page) => (await draftOn<Draft>(page, 'loop-shelf')).recipe;
const box = (page: Page) => page.getByRole('combobox', { name: 'Type a change' });
const write = async (page: Page, words: string): Promise<void> => {
  await page.keyboard.press('/');
  await box(page).fill(words);
};
/** What stands on the ribbon, slot by slot, as its titles say it. */
const strokesOf = (page: Page) => page.locator('ls-ribbon-editor title');
const offered = (page: Page) => page.getByRole('listbox').getByRole('option');

test('sentences in any order mean what a drummer means by them, each with its picture', async ({ page }) => {
  await typeSticking(page, '(R! l R l R l R l)x2');
  const said: readonly (readonly [words: string, card: string])[] = [
    ['floor tom gets the last right', 'Send the last right to the floor tom'],
    ['I would like the lefts on the high tom, please', 'Send lefts to the high tom'],
    ['open hi-hat on the & of 2 and 4', 'Send all strokes on the & of 2 and 4 to the open hi-hat'],
    ['accent the ands of 1 and 3', 'Accent all strokes on the & of 1 and 3'],
    ['put a little flam on 3', 'A flam on all strokes on 3'],
    ['tone down the rights in beat 2', 'Ghost rights in beat 2'],
    ['unghosted rights to the bell', 'Send right taps and accents to the ride bell'],
    ['really dig into the last left of beat 3', 'Accent the last left'],
    ['get rid of the first left', 'Remove the first left'],
    ['accents in a 3-3-2', 'Accent all strokes on 1, 3'],
  ];
  for (const [words, card] of said) {
    await write(page, words);
    await expect(offered(page)).toHaveCount(1);
    await expect(offered(page).first()).toContainText(card);
    await expect(offered(page).first().locator('svg')).toBeVisible();
    await page.keyboard.press('Escape');
  }
  expect((await recipe(page))?.moves).toEqual([]);
});

test('what is not said again is carried on, notes are read, and each line is one undo', async ({ page }) => {
  await typeSticking(page, 'R L R L R L R L');
  const said: readonly (readonly [words: string, cards: readonly RegExp[]])[] = [
    ['rights to the ride, the last left as well', [/Send rights to the ride/, /Send the last left to the ride/]],
    [
      'the last two to the floor tom, accented',
      [/Accent the last 2 strokes/, /Send the last 2 strokes to the floor tom/],
    ],
    ['lefts: hat. rights: ride', [/Send lefts to the closed hi-hat/, /Send rights to the ride/]],
    ['beat 1 goes high, mid, floor, floor', [/Send all strokes in beat 1 to the high tom, the mid tom/]],
    [
      'put the first half on the ride and the second on the floor tom',
      [/in the first half of the phrase to the ride/, /in the second half of the phrase to the floor tom/],
    ],
  ];
  for (const [words, cards] of said) {
    await write(page, words);
    await expect(offered(page)).toHaveCount(1);
    await page.keyboard.press('Enter');
    await expect(page.locator('.move')).toHaveCount(cards.length);
    for (const [i, card] of cards.entries()) await expect(page.locator('.move').nth(i)).toContainText(card);
    await page.keyboard.press('Control+z');
    await expect(page.locator('.move')).toHaveCount(0);
  }
});

test('what is asked back is chosen, and undone at once by Ctrl+Z', async ({ page }) => {
  await typeSticking(page, 'R L R L R L R L');
  await write(page, 'delete the last note');
  await expect(offered(page)).toHaveCount(2);
  await page.keyboard.press('Enter');
  expect((await recipe(page))?.moves).toEqual([]);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: /Cut the last stroke out, the rest moves up/ })).toBeVisible();
  await expect(strokesOf(page)).toHaveCount(7);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('article', { name: /Cut the last stroke/ })).toHaveCount(0);
  await expect(strokesOf(page)).toHaveCount(8);
});

test('a line that is refused names what stands in its way; the second of those near it is taken', async ({ page }) => {
  await typeSticking(page, 'R! l l R L! r r L');
  await write(page, 'flibber the rights');
  await expect(page.getByText('“flibber” is not known here.')).toBeVisible();
  await expect(page.getByRole('listbox', { name: 'Lines near these words' })).toBeVisible();
  await expect(offered(page)).toHaveCount(3);
  await expect(offered(page).nth(1).locator('svg')).toBeVisible();
  // Nothing is taken by itself.
  await page.keyboard.press('Enter');
  expect((await recipe(page))?.moves).toEqual([]);
  const second = (await offered(page).nth(1).locator('span').first().textContent())?.trim();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(box(page)).toHaveValue('');
  await expect.poll(async () => (await recipe(page))?.moves.length).toBe(1);
  // The line that was taken is the one that comes back, not the one that was typed.
  await page.keyboard.press('/');
  await page.keyboard.press('ArrowUp');
  await expect(box(page)).toHaveValue(second ?? '');
});

test('a correction takes back one part of a line', async ({ page }) => {
  await typeSticking(page, 'R l R l R l R l');
  await write(page, 'rights to the ride, no, the lefts');
  await expect(offered(page)).toHaveCount(1);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: /Send lefts to the ride/ })).toBeVisible();
});

test('an exception survives when the card before it is switched off, and the page is loaded again', async ({
  page,
}) => {
  await typeSticking(page, '(R l)x8');
  await write(page, 'accent 2');
  await page.keyboard.press('Enter');
  await write(page, 'rights to the hat except 2');
  await page.keyboard.press('Enter');
  const card = page.getByRole('article', { name: /Send rights except on 2 to the closed hi-hat/ });
  await expect(card).toBeVisible();
  const onSnare = strokesOf(page).filter({ hasText: /beat 2.*right hand.*snare/ });
  await expect(onSnare).toHaveCount(1);
  await page.getByRole('switch', { name: /Accent all strokes on 2/ }).click();
  await expect.poll(async () => (await recipe(page))?.moves.map((m) => m.on)).toEqual([false, true]);
  await expect(onSnare).toHaveCount(1);
  await expect(strokesOf(page).filter({ hasText: 'closed hi-hat' })).toHaveCount(7);
  expect((await recipe(page))?.moves[1]?.params['select']).toMatchObject({ is: 'but' });
  await page.reload();
  await expect(card).toBeVisible();
  await expect(onSnare).toHaveCount(1);
});

test('strokes pressed one by one are described in words, and hand edits by their places', async ({ page }) => {
  await typeSticking(page, 'R l R l R l R l');
  await page.keyboard.press('e');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('k');
  await expect(page.getByRole('article', { name: /1e to the kick/ })).toBeVisible();
  await expect(page.getByText(/Edited by hand/)).toHaveCount(0);
});
