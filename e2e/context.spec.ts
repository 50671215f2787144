import type { Page } from '@playwright/test';
import { handedOver, roomOf, setUp, turn } from './clock';
import { addMove, choose, expect, fromMenu, openDemo, test, typeSticking } from './fixture';
import type { Handed } from './page-audio';

/** Whether a thing of the page is wholly in sight: on the page, and in no part that would have to be scrolled. */
function inSight(page: Page, selector: string): Promise<boolean> {
  return page.locator(selector).evaluate((e) => {
    const box = e.getBoundingClientRect();
    let [top, bottom] = [0, innerHeight];
    for (let p = e.parentElement; p; p = p.parentElement) {
      if (getComputedStyle(p).overflowY === 'visible') continue;
      const own = p.getBoundingClientRect();
      [top, bottom] = [Math.max(top, own.top), Math.min(bottom, own.bottom)];
    }
    return box.height > 0 && box.top >= top - 1 && box.bottom <= bottom + 1;
  });
}

/** A fill with a landing in the room, three bars of time before it, by ear, at 120: a bar of 4/4 takes two seconds. */
async function fillInTime(page: Page, text: string, meter: string): Promise<void> {
  await roomOf(page, text, meter, () => addMove(page, 'Land it'));
  await setUp(page, { 'Start tempo': 120, 'Goal tempo': 140, Step: 20, 'Loops a rung': 2 });
  await fromMenu(page, 'Add a stage', 'Three bars of groove, then the fill');
  await page.getByRole('button', { name: /^Remove: The whole/ }).click();
  await page.locator('h1').click();
}

for (const [width, height] of [
  [1280, 800],
  [820, 1180],
] as const) {
  for (const [meter, text, bar] of [
    ['4/4', '(R! l l R K R! l l)x2', 2],
    ['7/8', '(R! l l R K R! l)x2', 1.75],
  ] as const) {
    test(`in context at ${width}×${height}, ${meter}: the bar that sounds and the next are in sight, drawing and staff`, async ({
      page,
    }) => {
      await page.setViewportSize({ width, height });
      await page.clock.install();
      await fillInTime(page, text, meter);
      await page.keyboard.press('Space');
      await expect(page.locator('.loops')).toContainText('count-in');
      // The count-in, then into the middle of the first beat.
      await turn(page, bar + 0.25);
      const names = page.locator('ls-follow .bar-name');
      for (const n of [0, 1, 2, 3, 4, 5]) {
        await expect(names).toHaveText([`bar ${(n % 4) + 1}`, `bar ${((n + 1) % 4) + 1}`]);
        const drawing = n % 2 === 0 ? 'ls-follow ls-ribbon svg' : 'ls-follow ls-staff:last-of-type svg';
        await expect(page.locator(drawing)).toBeVisible();
        await expect.poll(() => inSight(page, drawing), { message: `${drawing} of bar ${n + 1}` }).toBe(true);
        const line = n % 2 === 0 ? 'ls-follow .playhead' : 'ls-follow ls-staff .play';
        await expect(page.locator(line)).toHaveCount(1);
        await expect.poll(() => inSight(page, line), { message: `the line in bar ${n + 1}` }).toBe(true);
        await page.keyboard.press('n');
        await turn(page, bar);
      }
      await page.keyboard.press('Escape');
    });
  }
}

/** Moments of what was handed over between two times: the sounds that begin together. */
function moments(handed: readonly Handed[], from: number, until: number): readonly (readonly number[])[] {
  const all: { when: number; sounds: number[] }[] = [];
  for (const { when, sound } of handed.filter((h) => h.when >= from - 0.01 && h.when < until - 0.01)) {
    const last = all.at(-1);
    if (last && when - last.when < 0.004) last.sounds.push(sound);
    else all.push({ when, sounds: [sound] });
  }
  return all.map((m) => m.sounds);
}

test('in context the landing is the 1 of the next time: no silent bar, no second crash, loop after loop', async ({
  page,
}) => {
  await page.clock.install();
  await fillInTime(page, '(R! l l R K R! l l)x2', '4/4');
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toContainText('count-in');
  await turn(page, 2 + 16);
  const handed = await handedOver(page);
  const begin = handed[0]!.when + 2;
  const bars = Array.from({ length: 8 }, (_, n) => moments(handed, begin + n * 2, begin + (n + 1) * 2));
  // Three bars of time in eighths and the fill in sixteenths, twice, with the click in every bar.
  expect(bars.map((b) => b.length)).toEqual([8, 8, 8, 16, 8, 8, 8, 16]);
  // The 1 after the fill has each of its sounds once, and more of them than the 1 of a bar of time: the landing's.
  const [landed, plain] = [bars[4]![0]!, bars[5]![0]!];
  expect(new Set(landed).size).toBe(landed.length);
  expect(landed).not.toEqual(plain);
  // The time after it is the same as in the bar before but for its 1.
  expect(bars[4]!.slice(1)).toEqual(bars[5]!.slice(1));
});

test('Drill it on a phrase that is not kept keeps it and goes to the room; typed tempos are the rungs', async ({
  page,
}) => {
  await typeSticking(page, 'R l l R K');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await expect(page).toHaveURL(/\/drill\/[\w-]{32,36}$/);
  await expect(page.getByText('is on the shelf now')).toBeVisible();
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  const tempos = page.getByLabel('Tempos');
  await tempos.fill('60 117 fast');
  await tempos.press('Enter');
  await expect(page.locator('ls-ladder-setup .wrong')).toContainText('fast');
  await tempos.fill('60 117 150 235');
  await tempos.press('Enter');
  await expect(page.locator('ls-ladder-setup .wrong')).toHaveCount(0);
  await expect(page.locator('ls-stairs text')).toHaveText(['60', '117', '150', '235']);
  const offers = page.getByRole('group', { name: 'Ready-made ladders' }).getByRole('button');
  expect(await offers.count()).toBeGreaterThanOrEqual(1);
  expect(await offers.count()).toBeLessThanOrEqual(3);
  await setUp(page, { 'Loops a rung': 1 });
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.huge')).toHaveText('60');
  await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 15_000 });
  await page.keyboard.press('Space');
  await expect(page.locator('.huge')).toHaveText('117');
  await page.keyboard.press('Escape');
  await page.goto('/shelf');
  await expect(page.locator('article, ls-strip').first()).toBeVisible();
});

/** What a ribbon shows, in words that do not depend on its size: its letters in order, and how many stems it has. */
function shownBy(page: Page, ribbon: string) {
  return page.locator(ribbon).evaluate((e) => ({
    letters: [...e.querySelectorAll('.letter')].map((l) => l.textContent?.trim()),
    stems: e.querySelectorAll('.stem').length,
    blocks: e.querySelectorAll('.block').length,
  }));
}

test('the log draws a take on what was played that day: the stage’s limbs, not the phrase’s', async ({ page }) => {
  await roomOf(page, '(R! l K l)x4');
  await setUp(page, { 'Start tempo': 200, 'Goal tempo': 220, Step: 20, 'Loops a rung': 2 });
  await fromMenu(page, 'Add a stage', 'The skeleton');
  await page.getByRole('button', { name: /^Remove: The whole/ }).click();
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.hit').first()).toBeVisible({ timeout: 20_000 });
  const room = await shownBy(page, 'ls-follow ls-ribbon');
  // The accents and the kick; the ghosts between are the phrase’s, not the stage’s.
  expect([room.stems, room.blocks]).toEqual([4, 4]);
  await expect(page.locator('ls-judged')).toBeVisible({ timeout: 30_000 });
  await page.keyboard.press('Escape');
  await page.goto('/log');
  await page
    .getByRole('button', { name: /^Hear the take/ })
    .first()
    .click();
  await expect(page.locator('ls-take-view ls-ribbon .stem').first()).toBeVisible();
  expect(await shownBy(page, 'ls-take-view ls-ribbon')).toEqual(room);
});

for (const [hold, n] of [
  ['minutes', 1],
  ['bars', 32],
  ['clean loops', 30],
] as const) {
  test(`a drill held by ${hold} takes about as many minutes as it says`, async ({ page }) => {
    test.setTimeout(150_000);
    await page.clock.install();
    await roomOf(page, '(R L R R L R L L)x2');
    await setUp(page, { 'Start tempo': 120, 'Goal tempo': 140, Step: 20 });
    await choose(page, 'Counted in', hold);
    await setUp(page, { 'Loops a rung': n });
    // The words follow the numbers a moment later, on the clock that is turned here.
    await turn(page, 0.5);
    const said = Number(/about (\d+) min/.exec(await page.locator('ls-stages-setup').innerText())?.[1]);
    await page.locator('h1').click();
    const begun = await page.evaluate(() => performance.now());
    await page.keyboard.press('Space');
    const header = page.locator('header');
    while (!(await header.innerText()).includes('Goal 140 was clean.')) {
      await turn(page, 1, 0.5);
      if ((await page.locator('.loops').innerText()).includes('How was it?')) await page.keyboard.press('Space');
    }
    const minutes = ((await page.evaluate(() => performance.now())) - begun) / 60_000;
    expect(said).toBe(Math.round(minutes));
    // Far enough from a half that a second more or less is the same number.
    expect(Math.abs(minutes - said)).toBeLessThan(0.1 * minutes);
    expect(minutes).toBeGreaterThan(1.5);
  });
}

test('the demo’s fill in time stands on the tablet with nothing to scroll', async ({ page }) => {
  await page.setViewportSize({ width: 820, height: 1180 });
  await openDemo(page, '/drill/salt-5');
  const fresh = page.getByRole('button', { name: 'New ladder' });
  await expect(fresh.or(page.getByLabel('Add a stage')).first()).toBeVisible();
  if ((await fresh.count()) > 0) await fresh.click();
  await fromMenu(page, 'Add a stage', 'Seven bars of groove, then the fill');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Seven bars of groove, then the fill' }).click();
  await page.keyboard.press('Space');
  await expect(page.locator('ls-follow .bar-name')).toHaveText(['bar 1', 'bar 2']);
  expect(await inSight(page, 'ls-follow ls-ribbon svg')).toBe(true);
});
