import { test as base, expect, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { audioOnThePagesClock, watchTheAudio } from './page-audio';

/**
 * Waits until the page has nothing left to write: three frames after each other in which the shell says so, as what was
 * just pressed may begin to write a frame later. A page that was never opened has nothing to wait for.
 */
export async function written(page: Page): Promise<void> {
  if (!page.url().startsWith('http')) return;
  await page.waitForFunction(
    (still: { frames: number }) => {
      still.frames = document.querySelector('ls-shell')?.getAttribute('data-writing') === 'no' ? still.frames + 1 : 0;
      return still.frames >= 3;
    },
    { frames: 0 },
  );
}

/** Waits until nothing moves: three frames after each other without an animation that comes to an end. */
export async function settled(page: Page): Promise<void> {
  await page.waitForFunction(
    (still: { frames: number }) => {
      const moving = document
        .getAnimations()
        .some((a) => a.playState === 'running' && a.effect?.getComputedTiming().iterations !== Infinity);
      still.frames = moving ? 0 : still.frames + 1;
      return still.frames >= 3;
    },
    { frames: 0 },
  );
}

/** Lets the page play or record for so many seconds of its own clock, where the time itself is what is tried. */
export async function goneOn(page: Page, seconds: number): Promise<void> {
  const until = (await page.evaluate(() => performance.now())) + seconds * 1000;
  await page.waitForFunction((end) => performance.now() >= end, until);
}

/**
 * As a person does, a page of a test is left only when it has kept what was done. Whoever leaves earlier is asked by
 * the browser; a test would just leave.
 */
function leaveWhenKept(page: Page): void {
  const goto = page.goto.bind(page);
  const reload = page.reload.bind(page);
  page.goto = async (...where) => {
    await written(page);
    return goto(...where);
  };
  page.reload = async (...how) => {
    await written(page);
    return reload(...how);
  };
}

/** So many times slower than it is the machine runs the page: what hurries past the page on it is found. */
const SLOWER = Number(process.env['E2E_SLOWER'] ?? 1);

/**
 * Every test fails on a request outside the page's origin, on a violation of the page's policy, and on any error in the
 * console.
 */
export const test = base.extend<{
  /** Whose clock sounds are laid on: the page's, or that of the browser's own audio where it is what is tried. */
  audio: 'page' | 'browser';
  guard: { violations: string[]; foreign: string[]; errors: string[] };
}>({
  audio: ['page', { option: true }],
  context: async ({ context, audio }, use) => {
    await (audio === 'page' ? audioOnThePagesClock : watchTheAudio)(context);
    await use(context);
  },
  guard: [
    async ({ context, baseURL }, use) => {
      const g = { violations: [] as string[], foreign: [] as string[], errors: [] as string[] };
      const origin = new URL(baseURL ?? '').origin;
      context.on('request', (r) => {
        const u = r.url();
        if (!u.startsWith(origin) && !u.startsWith('data:') && !u.startsWith('blob:')) g.foreign.push(u);
      });
      await context.addInitScript(() => {
        document.addEventListener('securitypolicyviolation', (e) =>
          console.error(`CSP ${e.violatedDirective} ${e.blockedURI} ${e.sourceFile}`),
        );
      });
      context.on('console', (m) => {
        if (m.text().includes('CSP ') || /Content Security Policy/i.test(m.text())) g.violations.push(m.text());
        else if (m.type() === 'error') g.errors.push(m.text());
      });
      context.on('weberror', (e) => g.errors.push(String(e.error())));
      if (SLOWER > 1)
        context.on('page', (page) => {
          void context.newCDPSession(page).then((cdp) => cdp.send('Emulation.setCPUThrottlingRate', { rate: SLOWER }));
        });
      await use(g);
      expect(g.foreign, 'requests off the origin').toEqual([]);
      expect(g.violations, 'violations of the policy').toEqual([]);
      expect(g.errors, 'errors').toEqual([]);
    },
    { auto: true },
  ],
  page: async ({ page }, use) => {
    leaveWhenKept(page);
    await use(page);
  },
});
export { expect };

/** The page in another light, as the shell shows it: without a choice that is kept. */
export function inLight(page: Page, light: 'light' | 'dark'): Promise<void> {
  return page.evaluate((dark) => void document.documentElement.classList.toggle('dark', dark), light === 'dark');
}

/** Goes to another place of the application as a link in it does: nothing is loaded anew, if it is open already. */
export async function goWithin(page: Page, path: string): Promise<void> {
  const open = page.url().startsWith('http') && (await page.locator('ls-shell').count()) > 0;
  if (!open) {
    await page.goto(path);
    return;
  }
  await written(page);
  await page.evaluate((to) => {
    const url = new URL(to, location.href);
    const shelf = new URLSearchParams(location.search).get('shelf');
    if (shelf && !url.searchParams.has('shelf')) url.searchParams.set('shelf', shelf);
    history.pushState({}, '', url);
    dispatchEvent(new PopStateEvent('popstate', { state: {} }));
  }, path);
}

/** Whether the page shows that shelf, alive: then a place of it is gone to, and nothing needs to be loaded. */
async function shows(page: Page, shelf: 'mine' | 'demo'): Promise<boolean> {
  if (!page.url().startsWith('http')) return false;
  return page.evaluate(
    (shelf) =>
      document.querySelector('ls-shell') !== null && (sessionStorage.getItem('loop-shelf.which') ?? 'mine') === shelf,
    shelf,
  );
}

/** The demo shelf, filled, at one of its places. */
export async function openDemo(page: Page, path = '/shelf'): Promise<void> {
  if (await shows(page, 'demo')) await goWithin(page, path);
  else await page.goto(`${path}${path.includes('?') ? '&' : '?'}shelf=demo`);
  await written(page);
  // A phrase that is drawn, or a shelf with its strips, came from what is kept.
  if (path.startsWith('/bench/')) await expect(page.locator('ls-ribbon-editor .stem').first()).toBeVisible();
  if (path === '/shelf') await expect(page.getByText('Glass over five')).toBeVisible();
}

/** Another tab of the same browser, at a place. */
export async function tab(context: BrowserContext, path: string): Promise<Page> {
  const page = await context.newPage();
  await page.goto(path);
  return page;
}

/** Where a page is, without what is asked of it. */
export const address = (page: Page): string => new URL(page.url()).pathname;

/** The names of the strips on the Shelf. */
export const strips = (page: Page): Locator => page.locator('ls-strip .title');

/** Opens the shelf as a newer Loop Shelf would, in a tab of its own: the one that has it open is over. */
export async function asNewer(page: Page): Promise<void> {
  await page.goto('/favicon.svg');
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const open = indexedDB.open('loop-shelf', 9999);
        open.onsuccess = () => {
          open.result.close();
          resolve();
        };
      }),
  );
}

/** Chooses from a list by its name: an option by its words, or by its place. */
export async function choose(scope: Page | Locator, list: string | RegExp, option: string | number): Promise<void> {
  const page = 'goto' in scope ? scope : scope.page();
  await scope.getByRole('combobox', { name: list }).first().click();
  const options = page.getByRole('option');
  await (typeof option === 'number' ? options.nth(option) : options.getByText(option, { exact: true })).click();
  // A list that is still closing is in the way of what comes next.
  await expect(options).toHaveCount(0);
}

/** Does what a menu offers. */
export async function fromMenu(page: Page, menu: string, what: string): Promise<void> {
  await page.getByRole('button', { name: menu }).click();
  await page.getByRole('menuitem', { name: what }).click();
}

/** A typed sticking put on the Bench of the user's own shelf. */
export async function typeSticking(page: Page, text: string, meter = '4/4'): Promise<void> {
  // Where it is already, it would not be gone to.
  if ((await shows(page, 'mine')) && address(page) !== '/bench') await goWithin(page, '/bench?fresh=1');
  else await page.goto('/bench?fresh=1');
  await choose(page, 'Meter', meter);
  await page.getByRole('textbox', { name: 'Sticking' }).fill(text);
  await page.getByRole('button', { name: 'Put it on the Bench' }).click();
  await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
}

/** Adds a move from the menu of the recipe; its card is open after. */
export async function addMove(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: '+ Add a move' }).click();
  await page.getByRole('group', { name: 'Moves' }).getByRole('button', { name: title }).click();
}

/** Keeps what is on the Bench. */
export async function keepAs(page: Page, name: string, goal?: string): Promise<void> {
  await page.getByRole('button', { name: 'Keep it' }).first().click();
  const dialog = page.getByRole('dialog', { name: 'Keep it' });
  await dialog.getByLabel('Name').fill(name);
  if (goal !== undefined) {
    await dialog.getByLabel('Goal tempo').fill(goal);
    await dialog.getByLabel('Goal tempo').press('Tab');
  }
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toBeHidden();
}

/** What the application keeps under a name in the browser's database. */
export function kept<T>(page: Page, key: string, shelf: 'loop-shelf' | 'loop-shelf-demo'): Promise<T> {
  return page.evaluate(
    ([name, key]) =>
      new Promise<T>((resolve, reject) => {
        const open = indexedDB.open(name);
        open.onerror = () => reject(new Error('no database'));
        open.onsuccess = () => {
          const get = open.result.transaction('kept').objectStore('kept').get(key);
          get.onsuccess = () => {
            open.result.close();
            resolve((get.result as { value: T } | undefined)?.value as T);
          };
        };
      }),
    [shelf, key] as const,
  );
}

/** The newest draft of a Bench: what lies on it, with the steps that undo walks. */
export function draftOn<T>(page: Page, shelf: 'loop-shelf' | 'loop-shelf-demo'): Promise<T> {
  return page.evaluate(
    (name) =>
      new Promise<T>((resolve, reject) => {
        const open = indexedDB.open(name);
        open.onerror = () => reject(new Error('no database'));
        open.onsuccess = () => {
          const get = open.result.transaction('drafts').objectStore('drafts').getAll();
          get.onsuccess = () => {
            open.result.close();
            const drafts = get.result as { at: number; draft: T }[];
            resolve(drafts.sort((a, b) => b.at - a.at)[0]?.draft as T);
          };
        };
      }),
    shelf,
  );
}
