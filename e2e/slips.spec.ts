import type { BrowserContext, Page } from '@playwright/test';
import type { Attempt, TriesPage } from '../core/drill';
import { setUp } from './clock';
import {
  addMove,
  address,
  asNewer,
  expect,
  fromMenu,
  goWithin,
  keepAs,
  openDemo,
  strips,
  tab,
  test,
  typeSticking,
  written,
} from './fixture';

// Nothing that was played or made slips away: each of these lost something once, or said what was not so.

/** Every try that is logged, as the browser's database holds them, those that are out of the log too. */
function tries(page: Page): Promise<readonly Attempt[]> {
  return page.evaluate(
    () =>
      new Promise<Attempt[]>((resolve) => {
        const open = indexedDB.open('loop-shelf');
        open.onsuccess = () => {
          const get = open.result.transaction('tries').objectStore('tries').getAll();
          get.onsuccess = () => {
            open.result.close();
            resolve((get.result as TriesPage[]).flatMap((p) => p.tries).sort((a, b) => a.at - b.at));
          };
        };
      }),
  );
}
const standing = async (page: Page): Promise<readonly Attempt[]> => (await tries(page)).filter((t) => !t.off);

/** A phrase in its room, the ladder started at a tempo that goes by quickly. */
async function drilling(page: Page): Promise<void> {
  await typeSticking(page, 'R L R L');
  await keepAs(page, 'Rope', '300');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await setUp(page, { 'Start tempo': 280 });
  await page.getByRole('button', { name: /^Start/ }).click();
}

/** One messy try, and the next begun. */
async function messy(page: Page): Promise<void> {
  await page.bringToFront();
  const before = (await tries(page)).length;
  await expect(page.locator('.loops')).toContainText('loop', { timeout: 15_000 });
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await tries(page)).length).toBe(before + 1);
}

/** In the Log of another tab: something done to the newest try. */
async function toNewest(context: BrowserContext, what: string): Promise<Page> {
  const log = await tab(context, '/log');
  await log
    .getByRole('button', { name: /^More for the try/ })
    .first()
    .click();
  await log.getByRole('menuitem', { name: what }).click();
  return log;
}

test('a try is taken out in the Log and another corrected while the room waits: going on overwrites neither', async ({
  page,
  context,
}) => {
  test.slow();
  await drilling(page);
  for (let i = 0; i < 3; i++) await messy(page);
  await page.keyboard.press('ArrowLeft');
  const log = await toNewest(context, 'Mark it clean');
  await expect.poll(async () => (await standing(page)).at(-1)?.verdict).toBe('clean');
  await log
    .getByRole('button', { name: /^More for the try/ })
    .nth(1)
    .click();
  await log.getByRole('menuitem', { name: 'Remove from the Log' }).click();
  await expect.poll(async () => (await standing(page)).length).toBe(2);
  const before = await standing(page);
  await page.bringToFront();
  await page.getByRole('button', { name: 'Continue Space' }).click();
  await messy(page);
  const after = await standing(page);
  expect(after.slice(0, 2)).toEqual(before);
  expect(after.map((t) => t.verdict)).toEqual(['messy', 'clean', 'messy']);
  expect(new Set((await tries(page)).map((t) => t.id)).size).toBe(4);
});

test('two tabs in one drill: every try of both is in the log', async ({ page, context }) => {
  test.slow();
  await drilling(page);
  await messy(page);
  await page.keyboard.press('ArrowLeft');
  await written(page);
  const other = await tab(context, address(page));
  await other.getByRole('button', { name: 'Continue Space' }).click();
  await messy(other);
  await page.bringToFront();
  await page.getByRole('button', { name: 'Continue Space' }).click();
  await messy(page);
  await messy(other);
  expect(await standing(page)).toHaveLength(4);
  expect(new Set((await tries(page)).map((t) => t.id)).size).toBe(4);
  // What is said of the other tab can be closed, and covers nothing.
  const note = page.getByText('Also running in another tab');
  await page.bringToFront();
  await expect(note).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(note).toHaveCount(0);
});

test('unkept work is there after its tab was closed, another began, N was pressed and that one was closed too', async ({
  page,
  context,
}) => {
  const first = await context.newPage();
  await typeSticking(first, 'R l l K');
  await written(first);
  await first.close();
  const second = await tab(context, '/shelf');
  await expect(second.getByRole('region', { name: 'Not kept yet' })).toContainText('R l l K');
  await second.keyboard.press('n');
  await expect(second.getByRole('heading', { name: 'Not kept yet' })).toBeVisible();
  await written(second);
  await second.close();
  await page.goto('/shelf');
  const line = page.getByRole('region', { name: 'Not kept yet' });
  await line.getByRole('link', { name: 'Continue with R l l K' }).click();
  await expect(page.locator('.source')).toContainText('R l l K');
  await keepAs(page, 'Found again');
  await goWithin(page, '/shelf');
  await expect(strips(page)).toHaveText(['Found again']);
  await expect(line).toHaveCount(0);
});

test('changes of one phrase wait beside it while another is opened and changed, over a reload, and at 22 letters', async ({
  page,
}) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Anchor');
  await typeSticking(page, 'R K R K');
  await keepAs(page, 'Buoy');
  await goWithin(page, '/shelf');
  await page.locator('ls-strip', { hasText: 'Anchor' }).locator('.name').click();
  await addMove(page, 'Swap the hands');
  await written(page);
  await goWithin(page, '/shelf');
  await page.locator('ls-strip', { hasText: 'Buoy' }).locator('.name').click();
  await expect(page.getByRole('heading', { name: 'Buoy', level: 1 })).toBeVisible();
  await addMove(page, 'Displace it');
  await page.keyboard.press('Escape');
  await page.locator('h1').click();
  for (let i = 0; i < 125; i++) await page.keyboard.press('ArrowUp');
  await page.reload();
  await page.goto('/shelf');
  await expect(page.locator('ls-strip', { hasText: 'Anchor' })).toContainText('unkept changes of');
  await expect(page.locator('ls-strip', { hasText: 'Buoy' })).toContainText('unkept changes of');
  await page.locator('ls-strip', { hasText: 'Anchor' }).locator('.name').click();
  await expect(page.locator('.move')).toHaveCount(0);
  await page.locator('ls-unkept-bar').getByRole('button', { name: 'Continue' }).click();
  await expect(page.locator('.move')).toHaveCount(1);
  await keepAs(page, 'Anchor');
  await goWithin(page, '/shelf');
  await expect(page.locator('ls-strip', { hasText: 'Anchor' }).locator('.unkept')).toHaveCount(0);
});

test('one act, one phrase: kept, undone and drilled; drilled by two clicks; kept as new by two', async ({ page }) => {
  await typeSticking(page, 'R l l K');
  await addMove(page, 'Swap the hands');
  await page.keyboard.press('Escape');
  await keepAs(page, 'Rope');
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(page.getByRole('heading', { name: 'Rope', level: 1 })).toBeVisible();
  await expect(page.locator('.facts').first()).toContainText('not kept yet');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.waitForURL(/\/drill\//);
  await goWithin(page, '/shelf');
  await expect(strips(page)).toHaveText(['Rope']);
  await typeSticking(page, 'K K L L');
  await page.getByRole('button', { name: 'Drill it' }).dblclick();
  await page.waitForURL(/\/drill\//);
  await goWithin(page, '/shelf');
  await expect(strips(page)).toHaveCount(2);
  await page.locator('ls-strip', { hasText: 'Rope' }).locator('.name').click();
  await page.getByRole('button', { name: 'Keep as new' }).first().click();
  await page.getByRole('dialog', { name: 'Keep as new' }).getByRole('button', { name: 'Keep as new' }).dblclick();
  await expect(page.getByRole('heading', { name: 'Rope 2', level: 1 })).toBeVisible();
  await goWithin(page, '/shelf');
  await expect(strips(page)).toHaveCount(3);
});

test('a phrase from a link or a text that is taken by two clicks is one', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await page.getByRole('button', { name: 'Share or export' }).click();
  const field = page.getByLabel('The link', { exact: true });
  await expect(field).toHaveValue(/visit#p=/);
  const link = await field.inputValue();
  await page.goto('/shelf?shelf=mine');
  await page.goto(link);
  await page.getByRole('button', { name: 'Keep it' }).dblclick();
  await page.waitForURL(/\/shelf/);
  await expect(strips(page)).toHaveCount(1);
  await page.goto(link);
  await page.getByRole('button', { name: 'Open on my Bench' }).dblclick();
  await page.waitForURL(/\/bench\//);
  await page.goto('/shelf');
  // Loaded anew it is another act.
  await expect(strips(page)).toHaveCount(2);
  await page.getByRole('button', { name: 'Bring in' }).click();
  const dialog = page.getByRole('dialog', { name: 'Bring in' });
  await dialog.getByRole('textbox').first().fill(link);
  await dialog.getByRole('button', { name: 'Open it' }).click();
  await dialog.getByRole('button', { name: 'Keep it' }).dblclick();
  await dialog.getByRole('button', { name: 'Open on the Bench' }).click();
  await page.waitForURL(/\/bench\//);
  await goWithin(page, '/shelf');
  await expect(strips(page)).toHaveCount(3);
});

test('a goal that is set on the Shelf is no version of another tab; taken back, the Bench stays', async ({ page }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope', '120');
  await addMove(page, 'Swap the hands');
  await page.keyboard.press('Escape');
  await written(page);
  await page.locator('h1').click();
  await page.keyboard.press('4');
  await fromMenu(page, 'More for Rope', 'Goal and date …');
  await page.getByRole('dialog').getByLabel('Goal').first().fill('133');
  await page.getByRole('dialog').getByLabel('Goal').first().press('Tab');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^(Set|Keep|Say)/ })
    .first()
    .click();
  await expect(page.locator('ls-strip')).toContainText('goal 133');
  await page.keyboard.press('3');
  await expect(page.locator('.move')).toHaveCount(1);
  await expect(page.locator('ls-elsewhere')).toHaveCount(0);
  // The notice of the goal has an Undo too: the one that is meant is the next.
  await expect(page.getByRole('alert')).toHaveCount(0);
  await keepAs(page, 'Rope');
  await page.getByRole('alert').last().getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('What is on the Bench stays.')).toBeVisible();
  await expect(page.locator('.move')).toHaveCount(1);
  await expect(page.locator('.facts').first()).toContainText('not kept yet');
  await goWithin(page, '/shelf');
  await expect(page.locator('ls-strip')).toContainText('goal 133');
});

test('taken off elsewhere and unchanged here it is put on again before it is drilled', async ({ page, context }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  const other = await tab(context, '/shelf');
  await fromMenu(other, 'More for Rope', 'Take off the shelf');
  await page.bringToFront();
  await expect(page.getByRole('alert').filter({ hasText: 'taken off the shelf' })).toBeVisible();
  await page.getByRole('button', { name: 'Drill it' }).click();
  await expect(page.getByRole('button', { name: /^Start/ })).toBeVisible();
  await expect(page.getByText('no longer on the shelf')).toHaveCount(0);
  await goWithin(page, '/shelf');
  await expect(strips(page)).toHaveText(['Rope']);
});

test('Escape gives the keyboard back to the Bench, and it is never nobody’s', async ({ page }) => {
  await typeSticking(page, 'R l l K');
  const focus = () => page.evaluate(() => document.activeElement !== document.body);
  expect(await focus()).toBe(true);
  await page.keyboard.press('e');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Escape');
  await expect.poll(focus).toBe(true);
  await page.keyboard.press('k');
  await expect(page.getByRole('dialog', { name: 'Keep it' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('.touch, .move')).toHaveCount(0);
  await goWithin(page, '/shelf');
  await expect(page.getByRole('region', { name: 'Not kept yet' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'Type a sticking' })).toBeVisible();
  await expect.poll(focus).toBe(true);
});

/** Holds the shelf for writing, as a tab does that is in the middle of something, until it is let go. */
async function hold(page: Page): Promise<() => Promise<void>> {
  await page.evaluate(
    () =>
      new Promise<void>((holds) => {
        const open = indexedDB.open('loop-shelf');
        open.onsuccess = () => {
          const db = open.result;
          const store = db.transaction([...db.objectStoreNames], 'readwrite').objectStore('phrases');
          let free = false;
          Object.assign(window, { letGo: () => (free = true) });
          const spin = (): void => {
            if (!free) store.count().onsuccess = spin;
            else db.close();
          };
          spin();
          holds();
        };
      }),
  );
  return () => page.evaluate(() => (window as unknown as { letGo: () => void }).letGo());
}

test('another tab holds the shelf: it is said, and when it lets go all of it is kept, once', async ({
  page,
  context,
}) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await written(page);
  const other = await tab(context, '/shelf');
  const letGo = await hold(other);
  await page.bringToFront();
  await addMove(page, 'Swap the hands');
  await page.keyboard.press('Escape');
  await keepAs(page, 'Rope');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'The shelf is busy' })).toBeVisible({ timeout: 8000 });
  const third = await context.newPage();
  await third.goto('/shelf');
  await expect(third.getByRole('status').filter({ hasText: 'The shelf is busy' })).toBeVisible({ timeout: 8000 });
  await letGo();
  await expect(strips(third)).toHaveText(['Rope']);
  await expect(third.getByText('The shelf is busy')).toHaveCount(0);
  await page.bringToFront();
  await page.waitForURL(/\/drill\//);
  await expect(page.getByText('Nothing was replaced')).toHaveCount(0);
  await page.getByRole('link', { name: 'Open on the Bench' }).click();
  await expect(page.locator('.move')).toHaveCount(1);
  await expect(page.locator('.facts').first()).not.toContainText('not kept yet');
});

test('workers that cannot be fetched are said, and trying again works: shelf, day, log, link, files', async ({
  page,
  guard,
}) => {
  await openDemo(page, '/bench/salt-1');
  await page.getByRole('button', { name: 'Share or export' }).click();
  const field = page.getByLabel('The link', { exact: true });
  await expect(field).toHaveValue(/visit#p=/);
  const link = await field.inputValue();
  await written(page);
  await page.route('**/worker-*.js', (route) => route.abort());
  const said = page.getByRole('alert').filter({ hasText: 'A part of Loop Shelf could not be loaded' });
  for (const path of ['/today', '/log', '/shelf']) {
    await page.goto(path);
    await expect(said).toBeVisible();
  }
  await page.unroute('**/worker-*.js');
  await said.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByText('Glass over five')).toBeVisible();
  await expect(said).toHaveCount(0);
  await page.route('**/worker-*.js', (route) => route.abort());
  await page.goto('about:blank');
  await page.goto(link);
  await expect(page.getByRole('heading', { name: 'The link could not be read yet' })).toBeVisible();
  await expect(said.first()).toBeVisible();
  await page.unroute('**/worker-*.js');
  await page.getByRole('button', { name: 'Try again' }).last().click();
  await expect(page.getByRole('heading', { name: 'Glass over five' })).toBeVisible();
  await goWithin(page, '/kit?part=data');
  await page.route('**/worker-*.js', (route) => route.abort());
  await page.getByRole('button', { name: 'Export the shelf' }).first().click();
  await expect(said.first()).toBeVisible();
  await page.unroute('**/worker-*.js');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export the shelf' }).first().click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/^loop-shelf-.*\.json$/);
  guard.errors.length = 0;
});

test('a microphone that is asked for and not answered is said while the drill goes on by ear', async ({ page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => new Promise<MediaStream>(() => undefined);
  });
  await typeSticking(page, 'R L R L');
  await keepAs(page, 'Rope', '200');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page
    .getByRole('group', { name: 'What listens' })
    .getByRole('button', { name: /microphone/i })
    .click();
  await setUp(page, { 'Start tempo': 200 });
  await page.getByRole('button', { name: /^Start/ }).click();
  await expect(page.getByText('The browser asks for your permission: Microphone.')).toBeVisible();
  await messy(page);
  expect(await standing(page)).toMatchObject([{ verdict: 'messy' }]);
});

test('a tab that is over takes no key; opening the demo in one tab leaves a reload of another what it was', async ({
  page,
  context,
  guard,
}) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  const demo = await context.newPage();
  await openDemo(demo);
  await page.bringToFront();
  await goWithin(page, '/shelf');
  await page.reload();
  await expect(strips(page)).toHaveText(['Rope']);
  await demo.reload();
  await expect(demo.getByText('Glass over five')).toBeVisible();
  await asNewer(demo);
  await page.bringToFront();
  await expect(page.getByRole('alertdialog')).toBeVisible();
  await page.keyboard.press('7');
  await page.keyboard.press('n');
  await expect(page).toHaveURL(/\/shelf/);
  guard.errors.length = 0;
});

test('over plain http a doubled tab has a draft of its own', async ({ page, context }) => {
  await context.addInitScript(() => {
    Object.defineProperty(navigator, 'locks', { value: undefined });
  });
  await typeSticking(page, 'R l l K');
  await written(page);
  // A tab that is opened from another one begins with what that one remembers.
  const [doubled] = await Promise.all([
    context.waitForEvent('page'),
    page.evaluate(() => void window.open('/bench', '_blank')),
  ]);
  await expect(doubled.getByRole('heading', { name: 'Type a sticking' })).toBeVisible();
  await doubled.getByRole('textbox', { name: 'Sticking' }).fill('K K');
  await doubled.getByRole('button', { name: 'Put it on the Bench' }).click();
  await written(doubled);
  await page.bringToFront();
  await page.reload();
  await expect(page.locator('.source')).toContainText('R l l K');
});

test('what keeps and what judges is in sight at every size and name, and nothing covers it', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  for (const width of [390, 601, 700, 820, 900, 1024, 1100, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    for (const name of ['Rope', 'Twenty-two letters, so', 'W'.repeat(200)]) {
      await page.evaluate((n) => (document.querySelector('ls-bench h1')!.textContent = n), name);
      const keep = await page.getByRole('button', { name: 'Keep it' }).first().boundingBox();
      expect(keep!.x + keep!.width, `${width} ${name.slice(0, 8)}`).toBeLessThanOrEqual(width);
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    }
  }
  for (const [width, height] of [
    [1280, 800],
    [820, 1180],
    [844, 390],
  ] as const) {
    await page.setViewportSize({ width, height });
    await page.goto('/drill/salt-3');
    await page.getByRole('button', { name: /^Start/ }).click();
    await expect(page.getByRole('button', { name: /^Clean/ })).toBeVisible();
    expect(await page.evaluate(() => document.querySelector('ls-drill')!.scrollTop)).toBe(0);
    // The stairs stand at the bottom: nothing is left empty below them.
    const stairs = await page.locator('ls-drill footer').boundingBox();
    expect(stairs!.y + stairs!.height).toBeGreaterThanOrEqual(height - 1);
    for (const name of [/^Sound/, /^Half speed/, /^Pause/, /^Stop here/])
      expect((await page.getByRole('button', { name }).first().boundingBox())!.height).toBeGreaterThanOrEqual(44);
    await page.getByRole('button', { name: /^Sound/ }).click();
    await expect(page.locator('ls-room-sound')).toBeVisible();
    const clean = page.getByRole('button', { name: /^Clean/ });
    await clean.scrollIntoViewIfNeeded();
    // A press that something else would catch is refused by the test.
    await clean.click({ trial: true });
    await page
      .getByRole('button', { name: /^Stop here/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'New ladder' }).first().click();
    await written(page);
  }
});

test('from typing to the log by keys alone', async ({ page }) => {
  test.slow();
  await goWithin(page, '/shelf');
  await expect(page.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  const { keyboard } = page;
  await keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'Type a sticking' })).toBeVisible();
  await keyboard.press('Shift+R');
  await keyboard.type(' l l K');
  await keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
  await keyboard.press('/');
  await keyboard.type('fill 2 bars');
  await keyboard.press('Enter');
  await expect(page.locator('.move')).toHaveCount(1);
  await keyboard.press('Escape');
  // A stroke by hand, and out of the ribbon again.
  await keyboard.press('e');
  await keyboard.press('ArrowRight');
  await keyboard.press('ArrowUp');
  await keyboard.press('Escape');
  await expect(page.locator('.move')).toHaveCount(2);
  await keyboard.press('Space');
  await expect(page.locator('ls-ribbon-editor .playhead')).toHaveCount(1);
  await keyboard.press('Space');
  await keyboard.press('k');
  const dialog = page.getByRole('dialog', { name: 'Keep it' });
  await expect(dialog.getByLabel('Name')).toBeFocused();
  await keyboard.type('By keys');
  await keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'By keys', level: 1 })).toBeVisible();
  // Both at once: the second is for the room that is being opened.
  await keyboard.press('d');
  await page.waitForURL(/\/drill\//);
  await keyboard.press('Space');
  await messy(page);
  await keyboard.press('Escape');
  await expect(page.locator('header')).toContainText('Stopped at');
  await keyboard.press('6');
  await expect(page.locator('ls-tries-table tbody tr .verdict')).toHaveText(['messy']);
  await keyboard.press('4');
  await expect(strips(page)).toHaveText(['By keys']);
});
