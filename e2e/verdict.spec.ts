import type { Page } from '@playwright/test';
import { choose, expect, keepAs, test, typeSticking } from './fixture';

const SINGLES = '(R L R L R L R K)x2';

/** The room with the simulated player, two loops a rung at 120. */
async function room(page: Page, text: string): Promise<void> {
  await typeSticking(page, text);
  await keepAs(page, 'Practice', '300');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  for (const [label, value] of [
    ['Start tempo', 120],
    ['Goal tempo', 130],
    ['Loops a rung', 2],
  ] as const) {
    await page.getByLabel(label).fill(String(value));
    await page.getByLabel(label).press('Enter');
  }
  await page.getByRole('button', { name: 'Simulated player' }).click();
}

/** What the room and then the log say of the first try. */
async function told(
  page: Page,
  look: () => Promise<void> = () => Promise.resolve(),
): Promise<{ readonly room: string; readonly log: string }> {
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  const fix = page.locator('ls-judged .fix');
  await expect(fix).toHaveText(/\w/, { timeout: 40_000 });
  const inRoom = (await fix.textContent()) ?? '';
  await look();
  await page.keyboard.press('Escape');
  await expect(page.locator('header')).toContainText('Stopped at');
  await page.goto('/log');
  await page
    .getByRole('button', { name: /^Hear the take/ })
    .last()
    .click();
  const take = page.locator('ls-take-view');
  await expect(take.locator('.fix')).toHaveText(/\w/);
  return { room: inRoom, log: (await take.locator('.fix').textContent()) ?? '' };
}

for (const [fault, text, words] of [
  ['left hand 25 ms late', SINGLES, /^The left hand is \d+ ms late/],
  ['3% slower than the click', SINGLES, /^Steady, but [23](\.\d)?% slower than the click\.$/],
  ['16ths swung 62%', SINGLES, /^You swing the 16ths \(6\d%\); the phrase is straight\.$/],
  ['misses strokes', SINGLES, /was missed (once|twice|\d+ times)\.$/],
  ['plays only half of the loop', SINGLES, /^You played only the first half of the loop\.$/],
  [
    'no grace strokes',
    'fR L R L fL R L R',
    /^The flam on beat [1-4] came without its grace stroke (once|twice|\d+ times)\.$/,
  ],
] as const)
  test(`a player with one fault is told it, in the room and in the log: ${fault}`, async ({ page }) => {
    await room(page, text);
    await choose(page, 'Fault of the simulated player', fault);
    const said = await told(page);
    expect(said.room.trim()).toMatch(words);
    expect(said.log.trim()).toMatch(words);
  });

for (const [fault, words] of [
  ['left hand 25 ms late', /^The left hand is 2\d ms late/],
  ['plays only half of the loop', /^You played only the first half of the loop\.$/],
] as const)
  test(`a page that is six times slower hears the same: ${fault}`, async ({ page }) => {
    await room(page, SINGLES);
    await choose(page, 'Fault of the simulated player', fault);
    const slow = await page.context().newCDPSession(page);
    await slow.send('Emulation.setCPUThrottlingRate', { rate: 6 });
    const said = await told(page, async () => {
      // Nothing that the page itself was late with is laid at the door of the pad or the player.
      await expect(page.locator('ls-judged')).not.toContainText(/twice|does not know|extra/);
    });
    expect(said.room.trim()).toMatch(words);
    expect(said.log.trim()).toMatch(words);
  });

test('all of it late is a latency to see to, not a fault of a limb', async ({ page }) => {
  await room(page, SINGLES);
  await page.getByLabel('Lateness of the simulated player').fill('70');
  await page.getByLabel('Lateness of the simulated player').press('Enter');
  const said = await told(page);
  expect(said.room.trim()).toMatch(/^Everything is (6|7)\d ms late\.$/);
  expect(said.log.trim()).toBe(said.room.trim());
});
