import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { expect, keepAs, written, test, typeSticking } from './fixture';

/** A browser with a profile on the disk, as a drummer's has: it can be killed and started again. */
async function browser(folder: string, baseURL: string | undefined): Promise<{ context: BrowserContext; page: Page }> {
  const options = test.info().project.use;
  const context = await chromium.launchPersistentContext(folder, {
    ...options.launchOptions,
    baseURL,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  });
  return { context, page: context.pages()[0] ?? (await context.newPage()) };
}

/** One rung of a quick drill is played and judged; what `judge` does is done while the question stands. */
async function playOneRung(page: Page, judge: () => Promise<unknown>): Promise<void> {
  await typeSticking(page, 'R L R L');
  await keepAs(page, 'Short', '300');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  await page.getByLabel('Start tempo').fill('240');
  await page.getByLabel('Start tempo').press('Enter');
  await page.getByLabel('Loops a rung').fill('2');
  await page.getByLabel('Loops a rung').press('Tab');
  await page.getByRole('button', { name: /Start/ }).click();
  await expect(page.locator('.loops')).toContainText('How was it?');
  await judge();
}

let folder = '';
test.beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'loop-shelf-'));
});
test.afterEach(() => rmSync(folder, { recursive: true, force: true }));

test('a drill whose browser was closed stands at its rung, every finished try logged once', async ({ baseURL }) => {
  const first = await browser(folder, baseURL);
  await playOneRung(first.page, () => first.page.keyboard.press('Space'));
  await expect(first.page.locator('header')).toContainText('240 was clean.');
  // Closed in the middle of the next rung, with nothing left to write.
  await written(first.page);
  const rung = (await first.page.locator('.huge').textContent()) ?? '';
  const url = first.page.url();
  await first.context.close();

  const { context, page } = await browser(folder, baseURL);
  await page.goto('/drill');
  await expect(page.getByRole('heading', { name: 'Continue where you stopped' })).toBeVisible();
  await page.getByRole('link', { name: /Short/ }).click();
  await expect(page).toHaveURL(url);
  await expect(page.locator('.huge')).toHaveText(rung);
  await expect(page.locator('header')).toContainText(`You stopped at ${rung}`);
  await page.goto('/log');
  await expect(page.getByRole('heading', { name: '1 try' })).toBeVisible();
  await context.close();
});

test('killed while it writes, the drill and its log still agree', async ({ baseURL }) => {
  const first = await browser(folder, baseURL);
  const kill = await first.context.newCDPSession(first.page);
  await playOneRung(first.page, async () => {
    const crashed = first.page.waitForEvent('crash');
    // The press and the end of the tab follow each other without waiting: the write is under way or has not begun.
    // Neither call comes back.
    void first.page.keyboard.press('Space').catch(() => undefined);
    void kill.send('Page.crash').catch(() => undefined);
    await crashed;
  });
  await first.context.close();

  const { context, page } = await browser(folder, baseURL);
  await page.goto('/log');
  const heading = page.getByRole('heading', { name: /1 try|Nothing played yet/ });
  await expect(heading).toBeVisible();
  const tries = (await heading.textContent())?.includes('1 try') ?? false;
  await page.goto('/drill');
  await page.getByRole('link', { name: /Short/ }).click();
  if (tries) await expect(page.locator('.huge')).not.toHaveText('240');
  else await expect(page.locator('.huge')).toHaveText('240');
  await context.close();
});
