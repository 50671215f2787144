import AxeBuilder from '@axe-core/playwright';
import { turn } from './clock';
import { pagesOf } from './pdf';
import { choose, expect, keepAs, openDemo, test, typeSticking } from './fixture';

test.describe('a show of the demo', () => {
  test.beforeEach(async ({ page }) => {
    await openDemo(page, '/shows');
    await expect(page.locator('ls-ready-chart svg')).toBeVisible();
  });

  test('is filled, held by hand, undone, and keeps what was chosen over a reload', async ({ page }) => {
    const spots = page.locator('ls-cue-row .spot');
    await expect(page.locator('ls-cue-row')).toHaveCount(9);
    await expect(page.locator('ls-cue-row .spot.open')).toHaveCount(13);
    await page.getByRole('button', { name: 'Fill the show' }).click();
    await expect(page.locator('ls-notices')).toContainText(/1\d of 16 spots filled/);
    await expect.poll(() => page.locator('ls-cue-row .spot.open').count()).toBeLessThan(5);
    // What was settled before stays.
    await expect(spots.nth(2)).toContainText('Cold rope');
    // Neighbours are unlike each other.
    const names = await page.locator('ls-cue-row .spot .what').allTextContents();
    names.forEach((n, i) => expect(n === 'open' || n !== names[i + 1]).toBe(true));
    await spots.nth(3).click();
    await page.getByRole('button', { name: 'Another one' }).click();
    await expect(page.getByRole('button', { name: 'Keep here' })).toHaveAttribute('aria-pressed', 'true');
    const chosen = (await page.locator('ls-spot-panel .own h3').textContent()) ?? '';
    await page.getByRole('button', { name: 'Fill the show' }).click();
    await expect(spots.nth(3)).toContainText(chosen);
    await page.reload();
    await expect(spots.nth(3)).toContainText(chosen);
    await spots.nth(3).click();
    await page.getByRole('button', { name: 'Leave open' }).click();
    await expect(spots.nth(3)).toHaveClass(/open/);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(spots.nth(3)).toContainText(chosen);
  });

  test('a spot nothing fits asks the Bench for a phrase, and what is kept there fits it', async ({ page }) => {
    await page.locator('ls-cue-row .spot').nth(0).click();
    await page.getByRole('button', { name: 'Ask for a phrase' }).click();
    const sheet = page.locator('ls-compose-sheet');
    await expect(sheet).toBeVisible();
    await expect(page).toHaveURL(/\/bench/);
    // A bar of 6/8 at 96: what is found there and kept stands in the spot.
    await sheet.getByRole('button', { name: 'Find phrases' }).click();
    await sheet.getByRole('button', { name: 'Keep answer 1', exact: true }).click();
    await expect(page.locator('ls-notices')).toContainText('is on the shelf');
    await page.goto('/shows');
    await page.locator('ls-cue-row .spot').nth(0).click();
    await expect(page.locator('ls-spot-panel .pick')).toHaveCount(2);
    await page.locator('ls-spot-panel .pick').filter({ hasText: 'never played' }).click();
    await expect(page.locator('ls-cue-row .spot').nth(0)).not.toHaveClass(/open/);
  });

  test('the shelf and Today have the goals of the show', async ({ page }) => {
    await page.getByRole('button', { name: 'Fill the show' }).click();
    const name = 'Harbour steps';
    await expect(page.locator('ls-cue-row').nth(2).locator('.spot').nth(1).locator('.what')).toHaveText(name);
    await page.goto('/shelf');
    // By itself it has a goal and no day.
    await page.locator('ls-ask-box input').fill('for the show, Harbour steps');
    await expect(page.locator('ls-strip .title')).toHaveText([name]);
    await expect(page.locator('ls-strip').first()).toContainText('goal 112');
  });

  test('has no fault that axe finds, in the place, on paper and in the run-through', async ({ page }) => {
    const faults = async () => (await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id);
    expect(await faults()).toEqual([]);
    await page.keyboard.press('p');
    await expect(page.locator('.sheet table tbody tr')).toHaveCount(9);
    expect(await faults()).toEqual([]);
    await page.getByRole('button', { name: 'a page a cue' }).click();
    await expect(page.locator('.sheet .page')).toHaveCount(9);
    await expect(page.locator('.sheet .drawn ls-ribbon svg').first()).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    // The keyboard is on no button of the place, which Space would press.
    await page.locator('h1').click();
    await page.keyboard.press('Space');
    await expect(page.locator('ls-run .cue')).toHaveText('Fog Horn Waltz');
    expect(await faults()).toEqual([]);
    await page.goBack();
    await expect(page.locator('ls-run')).toHaveCount(0);
  });
});

for (const [format, width, height] of [
  ['A4', 595, 842],
  ['Letter', 612, 792],
] as const) {
  test(`on ${format} the show is one page of lines, or a page for each cue`, async ({ page }) => {
    await openDemo(page, '/shows');
    await expect(page.locator('ls-ready-chart svg')).toBeVisible();
    await page.keyboard.press('p');
    await expect(page.locator('.sheet table tbody tr')).toHaveCount(9);
    const [one, ...more] = pagesOf(await page.pdf({ format }));
    expect(more).toEqual([]);
    expect([Math.abs(one!.width - width) < 2, Math.abs(one!.height - height) < 2]).toEqual([true, true]);
    expect(one!.ink.right).toBeLessThan(width - 10);
    await page.getByRole('button', { name: 'a page a cue' }).click();
    await page.getByRole('button', { name: 'staff' }).click();
    await expect(page.locator('.sheet .drawn ls-staff svg')).toHaveCount(3);
    const pages = pagesOf(await page.pdf({ format }));
    expect(pages).toHaveLength(9);
    for (const p of pages) expect(p.ink.right).toBeLessThan(width - 10);
  });
}

test('from nothing: pasted lines, the wrong ones stay with their reasons, cells are typed over by keys', async ({
  page,
}) => {
  await page.goto('/shows');
  await page.getByRole('button', { name: 'Plan a show' }).click();
  const box = page.locator('ls-lines-box textarea');
  await expect(box).toBeVisible();
  await box.fill('Gull, 96, 4/4, fill 8:3\nBad one, quickly\nWorse, 96, 8 bars, fill 9\nTern, 120, 3/4, fill 4');
  await box.press('Enter');
  await expect(page.locator('ls-cue-row')).toHaveCount(2);
  await expect(page.locator('ls-lines-box .wrong li')).toHaveText([
    /Bad one has no tempo/,
    /ends after the last bar: Worse has 8 bars/,
  ]);
  await expect(box).toHaveValue('Bad one, quickly\nWorse, 96, 8 bars, fill 9');
  // Mended, the rest goes too.
  await box.fill('Worse, 96, 8 bars, fill 8');
  await box.press('Enter');
  await expect(page.locator('ls-cue-row')).toHaveCount(3);
  const tempo = page.locator('ls-cue-row').nth(0).getByLabel('Tempo');
  await tempo.fill('1000');
  await tempo.press('Enter');
  await expect(page.locator('ls-cue-row').nth(0).getByRole('alert')).toContainText('20 to 400');
  await tempo.fill('104');
  await tempo.press('Enter');
  await expect(page.locator('ls-cue-row').nth(1).getByLabel('Tempo')).toBeFocused();
  const bars = page.locator('ls-cue-row').nth(0).getByLabel('Bars');
  await bars.fill('6');
  await bars.press('Tab');
  await expect(page.locator('ls-cue-row').nth(0)).toContainText('A spot is after the last bar');
  const name = page.locator('ls-cue-row').nth(0).getByLabel('Name');
  await name.press('Alt+ArrowDown');
  await expect(page.locator('ls-cue-row').nth(1).getByLabel('Name')).toHaveValue('Gull');
  await page.reload();
  await expect(page.locator('ls-cue-row').nth(1).getByLabel('Tempo')).toHaveValue('104');
  // A show that has passed asks how it went.
  await page.getByLabel('Date').fill('2001-02-03');
  await expect(page.getByText('What was played? 0 of 3 spots are told.')).toBeVisible();
  await page.getByRole('group', { name: 'How it went' }).getByRole('button', { name: 'clean' }).click();
  await expect(page.getByText('What was played? 1 of 3 spots are told.')).toBeVisible();
  // Deleted, it comes back whole.
  await page.getByRole('button', { name: 'More for this show' }).click();
  await page.getByRole('menuitem', { name: 'Delete this show' }).click();
  await expect(page.getByRole('button', { name: 'Plan a show' })).toBeVisible();
  await page.locator('ls-notices').getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('ls-cue-row')).toHaveCount(3);
});

test('on a fake clock: a show is run through, its spots are judged and kept in the Log', async ({ page }) => {
  await page.clock.install();
  await typeSticking(page, 'R L R L R L R L');
  await keepAs(page, 'Rope');
  await page.goto('/shows');
  await page.getByRole('button', { name: 'Plan a show' }).click();
  const box = page.locator('ls-lines-box textarea');
  await box.fill('First, 120, 4/4, 2 bars, fill 2:3\nSecond, 150, 4/4, 1 bar, fill 1:1-2');
  await box.press('Enter');
  await expect(page.locator('ls-cue-row')).toHaveCount(2);
  for (const n of [0, 1]) {
    await page.locator('ls-cue-row .spot').nth(n).click();
    await page.locator('ls-spot-panel .pick').first().click();
    await expect(page.locator('ls-cue-row .spot').nth(n)).toContainText('Rope');
  }
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  const run = page.locator('ls-run');
  await expect(run.locator('.spot')).toContainText('Rope');
  await choose(run, 'What listens', 'Simulated player');
  await choose(run, 'Between cues', 'wait for me');
  await run.getByRole('button', { name: /^Play/ }).focus();
  await page.keyboard.press('Space');
  // A bar of count-in at 120 takes two seconds, the cue four.
  await turn(page, 1.5);
  await expect(run.locator('span.bar')).toHaveText('count-in');
  await turn(page, 1.5);
  await expect(run.locator('span.bar')).toHaveText('bar 1 of 2');
  await turn(page, 3.5);
  const results = run.locator('.results li');
  await expect(results).toHaveCount(1);
  await expect(results.first().locator('.verdict')).toHaveText(/^(clean|messy)$/);
  await expect(run.locator('.cue')).toHaveText('Second');
  // Stopped in the middle it goes on at the cue it is at.
  await page.keyboard.press('Space');
  await turn(page, 1);
  await page.keyboard.press('Space');
  await expect(run.getByRole('button', { name: /^Play/ })).toBeVisible();
  await choose(run, 'What listens', 'my ear');
  await run.getByRole('button', { name: /^Play/ }).focus();
  await page.keyboard.press('Space');
  await turn(page, 4.5);
  await expect(run.getByText('That was the show.')).toBeVisible();
  await results.nth(1).getByRole('button', { name: 'Rope was clean' }).click();
  await expect(results.nth(1).locator('.verdict')).toHaveText('clean');
  await page.keyboard.press('Escape');
  await page.goto('/log');
  await expect(page.getByRole('heading', { name: '2 tries' })).toBeVisible();
});
