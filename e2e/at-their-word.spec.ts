import { AxeBuilder } from '@axe-core/playwright';
import { build, type Recipe } from '../core/recipe';
import { DEMO_PHRASES } from '../demo/phrases';
import { draftOn, expect, fromMenu, openDemo, test, typeSticking } from './fixture';

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
  await expect(titles.filter({ hasText: 'the & of 2 in bar 1, right hand, accent' })).toHaveCount(1);
  // The next bar is as it was.
  await expect(titles.filter({ hasText: 'the & of 2 in bar 2, kick foot' })).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.locator('h1').click();
  await say(page, 'start again from bar 2: 3');
  await say(page, 'the right hand follows the kick');
  await say(page, 'the first four as 32nds on 2:4');
  await expect(page.getByRole('article', { name: /Put slots 1 to 4 on 32nds, from 2:4 on/ })).toContainText(
    'take 2 sixteenths',
  );
  const recipe = (await draftOn<Draft>(page, 'loop-shelf')).recipe;
  expect(recipe?.moves.map((m) => m.move)).toEqual(['restart', 'restart', 'follow', 'grid']);
});

test('a groove is typed a line to a piece; somebody counts aloud, and it can be silenced', async ({ page }) => {
  await page.goto('/bench?fresh=1');
  await page.getByRole('textbox', { name: 'Sticking' }).fill('hat: 1 & 2 & 3 & 4 &; snare: 2! 4!; kick: 1 3&');
  await page.getByRole('button', { name: 'Put it on the Bench' }).click();
  const titles = page.locator('ls-ribbon-editor title');
  await expect(titles.filter({ hasText: 'closed hi-hat' })).toHaveCount(8);
  await expect(titles.filter({ hasText: 'left hand, accent, snare' })).toHaveCount(2);
  await page.getByRole('button', { name: /^Mix:/ }).click();
  const aloud = page.getByRole('group', { name: 'Who counts along' }).getByRole('button', { name: 'Spoken count' });
  await aloud.click();
  await expect(aloud).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('slider', { name: 'Loudness: counting' })).toBeVisible();
  await aloud.click();
  await expect(aloud).toHaveAttribute('aria-pressed', 'false');
});

test('a pick-up stands before the 1: said in words, drawn, counted, on the staff, and heard once before the loop', async ({
  page,
}) => {
  await typeSticking(page, '(R! l K l)x4');
  await say(page, 'pick-up R L K');
  await expect(page.getByRole('article', { name: 'Pick-up before the 1: R L K' })).toContainText(
    '3 strokes lead in, from the e of 4 before the 1, once',
  );
  const titles = page.locator('ls-ribbon-editor title');
  await expect(titles.filter({ hasText: /^the e of 4 before the 1, right hand/ })).toHaveCount(1);
  await expect(titles.filter({ hasText: 'before the 1, kick foot' })).toHaveCount(1);
  await expect(page.locator('ls-ribbon-editor .group').filter({ hasText: 'pick-up' })).toHaveCount(1);
  await expect(page.locator('ls-staff').first()).toHaveAttribute('data-drawn', '19');
  // The playhead goes through it, left of the first bar line, and is never there again.
  await page.keyboard.press('Escape');
  // Where it was in each frame is written down by the page itself: whoever asks from outside comes too late.
  await page.evaluate(() => {
    const seen: number[] = [];
    const look = (): void => {
      const head = document.querySelector('ls-ribbon-editor .playhead')?.getBoundingClientRect();
      const one = document.querySelector('ls-ribbon-editor line.bar')?.getBoundingClientRect();
      if (head && one && head.x > 0 && seen.at(-1) !== head.x - one.x) seen.push(head.x - one.x);
      requestAnimationFrame(look);
    };
    look();
    Object.assign(window, { seen });
  });
  const seen = (): Promise<number[]> => page.evaluate(() => (window as unknown as { seen: number[] }).seen);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  // Round twice: it falls back as often as the loop begins anew.
  const begins = async (): Promise<number> =>
    (await seen()).filter((x, i, all) => i > 0 && x < (all[i - 1] ?? x)).length;
  await expect.poll(begins, { timeout: 30_000 }).toBeGreaterThan(1);
  const [first, ...rest] = await seen();
  expect(first).toBeLessThan(0);
  const afterOne = rest.slice(rest.findIndex((x) => x >= 0));
  expect(Math.max(...afterOne)).toBeGreaterThan(200);
  expect(Math.min(...afterOne)).toBeGreaterThan(-2);
  await page.keyboard.press('Control+z');
  await expect(titles.filter({ hasText: 'before the 1' })).toHaveCount(0);
});

test('a phrase is said before it is played: turn by turn, by ear, though something listens', async ({ page }) => {
  await openDemo(page);
  await page.goto('/drill/salt-27');
  await fromMenu(page, 'Add a stage', 'Say it first');
  await expect(page.getByRole('list', { name: 'Stages' }).getByRole('listitem').first()).toContainText('Say it first');
  await page.getByRole('button', { name: /^Start/ }).click();
  await expect(page.getByText('Listen: it is counted and played.')).toBeVisible();
  await expect(page.getByText('Your turn: say it aloud.')).toBeVisible({ timeout: 15_000 });
  await expect(page.getByText('Listen: it is counted and played.')).toBeVisible({ timeout: 15_000 });
  await page.getByRole('button', { name: /^Clean/ }).click();
  await expect(page.getByText(/was clean/)).toBeVisible({ timeout: 30_000 });
  // One rung is enough for what is only said.
  await expect(page.getByRole('button', { name: /Say it first ?, played through/ })).toBeVisible();
});

/** Phrases of the demo from an empty bench: what is typed, then lines of words. */
const BY_WORDS: readonly (readonly [name: string, typed: string, ...lines: string[]])[] = [
  ['Gutting knife', 'R! l R R L! r L L', 'fill a bar', 'right accents to the high tom, left accents to the mid tom'],
  [
    'Anchor chain',
    'R L R L',
    'add a kick at the end',
    'fill a bar, close with R',
    'accent the first of every repeat',
    'rights to the floor tom',
  ],
  [
    'Cold rope',
    'R! l l K',
    'fill a bar from the & of 2, rest for whatever is left',
    'accents to the mid tom and the floor tom in turn',
  ],
  ['Bilge pump', 'R L K R K L! R K', 'fill a bar', 'rights to the hi-hat'],
  [
    'Harbour steps',
    'R L L R L L R L',
    'fill a bar from 3',
    'snare, high tom, floor tom in 3, 3 and 2',
    'land on 1 with crash and kick',
  ],
];

test('five phrases of the demo are built from an empty bench by words alone', async ({ page }) => {
  for (const [name, typed, ...lines] of BY_WORDS) {
    await typeSticking(page, typed);
    for (const line of lines) {
      await say(page, line);
      await expect(page.getByRole('combobox', { name: 'Type a change' })).toHaveValue('');
    }
    const { recipe } = await draftOn<{ recipe: Recipe }>(page, 'loop-shelf');
    const wanted = DEMO_PHRASES.find((p) => p.name === name);
    expect(wanted).toBeDefined();
    const shown = (r: Recipe) => {
      const { start, length, strokes } = build(r).pattern;
      return [start, length, strokes.map((s) => `${s.at} ${s.limb} ${s.voice} ${s.level} ${s.ornament ?? ''}`)];
    };
    expect([name, shown(recipe)]).toEqual([
      name,
      shown({ source: wanted?.source as Recipe['source'], moves: [...(wanted?.moves ?? [])] }),
    ]);
  }
});

test('of several meanings one is chosen with a key, what is not understood is underlined, and nothing is half done', async ({
  page,
}) => {
  await typeSticking(page, 'R L R L R L R L');
  const box = page.getByRole('combobox', { name: 'Type a change' });
  await page.keyboard.press('/');
  await page.keyboard.type('lefts to the low tom');
  await expect(page.getByRole('option')).toHaveCount(2);
  await expect(page.getByText('This has 2 meanings.')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(box).toHaveValue('lefts to the low tom');
  await expect(page.locator('.move')).toHaveCount(0);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(box).toHaveAttribute('aria-activedescendant', 'offer-1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: 'Send lefts to the floor tom' })).toBeVisible();
  await page.keyboard.type('accent the rights with feeling and ghost the lefts');
  await expect(page.locator('ls-add-box u')).toHaveText('feeling');
  await page.keyboard.press('Enter');
  await expect(page.locator('.move')).toHaveCount(1);
  const { violations } = await new AxeBuilder({ page }).include('ls-add-box').analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  await page.keyboard.press('Escape');
  // Several parts of one line are one step of undo; earlier lines come back with the arrow up.
  await say(page, 'accent the rights, ghost the lefts');
  await expect(page.locator('.move')).toHaveCount(3);
  await page.keyboard.press('ArrowUp');
  await expect(box).toHaveValue('accent the rights, ghost the lefts');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.move')).toHaveCount(1);
});

test('a phrase is put on a count, with its first stroke or its last, and the player is told what to do', async ({
  page,
}) => {
  await typeSticking(page, 'R! l K R l l R K');
  const titles = page.locator('ls-ribbon-editor title');
  await say(page, 'start on 3');
  await expect(titles.filter({ hasText: /beat 3 in bar 1, right hand, accent/ })).toHaveCount(1);
  await say(page, 'put it so that the last stroke falls on the & of 4');
  await expect(titles.filter({ hasText: /the & of 4 in bar 1, kick foot/ })).toHaveCount(1);
  await page.keyboard.type('slower by 10');
  await expect(page.getByRole('button', { name: /^Play it at/ })).toBeVisible();
  const before = Number(await page.locator('ls-tempo-field input').first().inputValue());
  await page.keyboard.press('Enter');
  await expect(page.locator('ls-tempo-field input').first()).toHaveValue(String(before - 10));
  await page.keyboard.type('keep it as Harbour two');
  await page.keyboard.press('Enter');
  await expect(page.locator('h1')).toHaveText('Harbour two');
});

test('the box from every place: a phrase of the shelf joined, seen beforehand, a part drilled, the shelf asked', async ({
  page,
}) => {
  await openDemo(page, '/kit');
  await page.keyboard.press('/');
  // Nothing lies on the Bench yet, so there is nothing to say something of: a phrase is opened first.
  await page.getByRole('link', { name: 'Shelf' }).click();
  await page.getByRole('searchbox', { name: 'Ask the shelf' }).fill('anchor chain');
  await page.locator('ls-strip .name').first().click();
  await expect(page.getByRole('heading', { name: 'Anchor chain' })).toBeVisible();
  await page.keyboard.press('7');
  await page.getByRole('heading', { name: 'Kit', exact: true }).waitFor();
  await page.keyboard.press('/');
  const box = page.getByRole('combobox', { name: 'Type a change' });
  await expect(box).toBeFocused();
  // The ribbon shows what the line would change, and what is when the box is left.
  const accents = page.locator('ls-ribbon-editor title').filter({ hasText: 'accent' });
  const before = await accents.count();
  await box.pressSequentially('accent everything but the kicks');
  await expect(page.locator('ls-lines-bar')).toContainText('Preview: Accent');
  expect(await accents.count()).toBeGreaterThan(before);
  await page.keyboard.press('Escape');
  await expect(accents).toHaveCount(before);
  // A name of the shelf is written to its end.
  await page.keyboard.press('/');
  await box.pressSequentially('then cold r');
  await page.keyboard.press('Tab');
  await expect(box).toHaveValue('then Cold rope');
  await expect(page.getByRole('option', { name: 'Join “Cold rope”' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: 'Join “Cold rope”' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  // On a phone the recipe lies further down, and the box stays over the ribbon.
  const wide = page.viewportSize();
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(box).toBeInViewport();
  await page.getByRole('heading', { name: 'Checks' }).scrollIntoViewIfNeeded();
  await expect(box).toBeInViewport();
  await box.click();
  await expect(box).toBeFocused();
  await page.keyboard.press('Escape');
  if (wide) await page.setViewportSize(wide);
  // What is no change of the phrase: the shelf is asked, a part is drilled.
  await page.keyboard.press('/');
  await box.pressSequentially('like anchor chain');
  await expect(page.getByRole('button', { name: /^Ask the shelf: like Anchor chain/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('searchbox', { name: 'Ask the shelf' })).toHaveValue('like Anchor chain');
  await expect(page.getByText('like Anchor chain').first()).toBeVisible();
  await page.goBack();
  await page.keyboard.press('/');
  await box.pressSequentially('drill the second half at 70');
  await expect(page.getByRole('button', { name: /^Open in Drill: the second half, from 70/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.locator('ls-drill')).toContainText('The second half');
  // Loaded again the room does not take the part out once more.
  await expect(page).toHaveURL(/\/drill\/[^?]+$/);
});
