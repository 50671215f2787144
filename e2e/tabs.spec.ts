import type { Page } from '@playwright/test';
import {
  addMove,
  address,
  asNewer,
  expect,
  goWithin,
  keepAs,
  strips,
  tab,
  test,
  typeSticking,
  written,
} from './fixture';

test('a phrase kept in another tab is seen where it lies unchanged', async ({ page, context }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await page.waitForURL(/\/bench\/[\w-]{36}/);
  const other = await tab(context, address(page));
  await expect(other.getByRole('heading', { name: 'Rope', level: 1 })).toBeVisible();
  await page.bringToFront();
  await addMove(page, 'Swap the hands');
  await keepAs(page, 'Rope');
  await other.bringToFront();
  await expect(other.locator('.move')).toHaveCount(1);
  await expect(other.getByText('not kept yet')).toHaveCount(0);
});

test('changed in two tabs, it is told; seen, kept as new, taken over; never written over in silence', async ({
  page,
  context,
}) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await page.waitForURL(/\/bench\/[\w-]{36}/);
  const other = await tab(context, address(page));
  await expect(other.getByRole('heading', { name: 'Rope', level: 1 })).toBeVisible();
  await addMove(other, 'Swap the hands');
  await written(other);
  await page.bringToFront();
  await addMove(page, 'Displace it');
  await keepAs(page, 'Rope');
  await other.bringToFront();
  const told = other.getByRole('alert').filter({ hasText: 'another tab kept a newer version' });
  await expect(told).toBeVisible();
  // Keeping now writes nothing over.
  await keepAs(other, 'Rope');
  await expect(other.getByText('Nothing was replaced')).toBeVisible();
  await told.getByRole('button', { name: 'See theirs' }).click();
  await expect(other.locator('ls-compare-panel')).toBeVisible();
  await told.getByRole('button', { name: 'Keep mine as new' }).click();
  const dialog = other.getByRole('dialog', { name: 'Keep as new' });
  await expect(dialog.getByLabel('Name')).toHaveValue('Rope 2');
  await dialog.getByRole('button', { name: 'Keep as new' }).click();
  await expect(told).toHaveCount(0);
  await goWithin(other, '/shelf');
  await expect(strips(other)).toHaveText(['Rope', 'Rope 2']);
});

test('what was kept elsewhere is taken over, and what lay here is one undo away', async ({ page, context }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await page.waitForURL(/\/bench\/[\w-]{36}/);
  const other = await tab(context, address(page));
  await expect(other.getByRole('heading', { name: 'Rope', level: 1 })).toBeVisible();
  await addMove(other, 'Swap the hands');
  await page.bringToFront();
  await addMove(page, 'Displace it');
  await addMove(page, 'Land it');
  await keepAs(page, 'Rope');
  await other.bringToFront();
  await other.getByRole('button', { name: 'Use theirs' }).click();
  await expect(other.locator('.move')).toHaveCount(2);
  await other.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(other.locator('.move')).toHaveCount(1);
});

test('taken off elsewhere, it is told on the Bench and can be kept again', async ({ page, context }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  const other = await tab(context, '/shelf');
  await other.getByRole('button', { name: 'More for Rope' }).click();
  await other.getByRole('menuitem', { name: 'Take off the shelf' }).click();
  await page.bringToFront();
  await expect(page.getByRole('alert').filter({ hasText: 'taken off the shelf' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep it again' }).click();
  await page.getByRole('dialog', { name: 'Keep it' }).getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'taken off the shelf' })).toHaveCount(0);
  await other.bringToFront();
  await expect(strips(other)).toHaveText(['Rope']);
});

test('each tab has a Bench of its own, also after a reload', async ({ page, context }) => {
  await typeSticking(page, 'R l l K');
  const other = await context.newPage();
  await typeSticking(other, 'L r r K K');
  await written(other);
  await page.bringToFront();
  await page.reload();
  await expect(page.locator('.source')).toContainText('R l l K');
  await other.bringToFront();
  await other.reload();
  await expect(other.locator('.source')).toContainText('L r r K K');
  // A tab made new begins empty while the others live.
  const third = await tab(context, '/bench');
  await expect(third.getByRole('heading', { name: 'Type a sticking' })).toBeVisible();
});

test('opened from the shelf it is the shelf’s; unkept changes wait beside it, are gone on with, or put aside', async ({
  page,
}) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await addMove(page, 'Swap the hands');
  await written(page);
  await goWithin(page, '/shelf');
  await expect(page.locator('ls-strip .unkept')).toContainText('unkept changes of');
  await page.locator('ls-strip .name').click();
  await expect(page.locator('.move')).toHaveCount(0);
  await expect(page.getByText('not kept yet')).toHaveCount(0);
  const beside = page.locator('ls-unkept-bar');
  await expect(beside).toContainText(/Unkept changes of \d\d:\d\d\./);
  await beside.getByRole('button', { name: 'See changes' }).click();
  await expect(page.locator('ls-compare-panel')).toBeVisible();
  await beside.getByRole('button', { name: 'Continue' }).click();
  await expect(page.locator('.move')).toHaveCount(1);
  await expect(beside).toHaveCount(0);
  await goWithin(page, '/shelf');
  await page.locator('ls-strip .name').click();
  await beside.getByRole('button', { name: 'Discard' }).click();
  await expect(beside).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect(beside).toBeVisible();
  await beside.getByRole('button', { name: 'Discard' }).click();
  await written(page);
  await goWithin(page, '/shelf');
  await expect(page.locator('ls-strip')).toHaveCount(1);
  await expect(page.locator('ls-strip .unkept')).toHaveCount(0);
});

test('what is drilled and taken off elsewhere goes on, is told, and comes back', async ({ page, context }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByRole('button', { name: /^Start/ }).click();
  const other = await tab(context, '/shelf');
  await other.getByRole('button', { name: 'More for Rope' }).click();
  await other.getByRole('menuitem', { name: 'Take off the shelf' }).click();
  await page.bringToFront();
  await expect(page.getByText('was taken off the shelf in another tab')).toBeVisible();
  await page.getByRole('button', { name: 'Put back on the shelf' }).click();
  await expect(page.getByText('was taken off the shelf in another tab')).toHaveCount(0);
  await other.bringToFront();
  await expect(strips(other)).toHaveText(['Rope']);
});

test('one phrase drilled in two tabs: both are told, and one can go on from the other', async ({ page, context }) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.waitForURL(/\/drill\/[\w-]{36}/);
  const other = await tab(context, address(page));
  await other.getByRole('button', { name: /^Start/ }).click();
  await written(other);
  await page.bringToFront();
  await page.getByRole('button', { name: /^Start/ }).click();
  await written(page);
  await other.bringToFront();
  await expect(other.getByText('Also running in another tab')).toBeVisible();
  await other.getByRole('button', { name: 'Pause' }).click();
  await other.getByRole('button', { name: 'Use that ladder' }).click();
  await expect(other.getByText('Also running in another tab')).toHaveCount(0);
});

test('two tabs that change two settings keep both', async ({ page, context }) => {
  await page.goto('/kit?part=data');
  const other = await tab(context, '/kit?part=data');
  await expect(other.getByRole('button', { name: '1 ta la & ta la' })).toBeVisible();
  await page.bringToFront();
  await page.getByRole('button', { name: '1 & a' }).click();
  await other.bringToFront();
  await other.getByRole('button', { name: '1 ta la & ta la' }).click();
  await written(other);
  await page.bringToFront();
  for (const p of [page, other]) {
    await p.reload();
    await expect(p.getByRole('button', { name: '1 & a' })).toHaveAttribute('aria-pressed', 'true');
    await expect(p.getByRole('button', { name: '1 ta la & ta la' })).toHaveAttribute('aria-pressed', 'true');
  }
});

test('a newer Loop Shelf opens the shelf: the old tab stops and says so', async ({ page, context, guard }) => {
  await typeSticking(page, 'R l l K');
  await written(page);
  await asNewer(await context.newPage());
  await page.bringToFront();
  await expect(page.getByRole('alertdialog')).toContainText('keeps nothing any more');
  await expect(page.locator('#place')).toHaveAttribute('inert', '');
  // The page of the other tab is a drawing; the browser looks for an icon of it.
  guard.errors.length = 0;
});

test('an old tab that blocks: this one goes on by itself when it closes', async ({ page, context, guard }) => {
  const old = await tab(context, '/favicon.svg');
  await old.evaluate(
    () =>
      new Promise<void>((resolve) => {
        // As an older version left it, in a tab that does not let go.
        const open = indexedDB.open('loop-shelf', 20);
        open.onupgradeneeded = () => {
          for (const name of ['phrases', 'attempts', 'drills', 'takes'])
            open.result.createObjectStore(name, { keyPath: 'id' });
          open.result.createObjectStore('kept', { keyPath: 'key' });
          const store = open.transaction?.objectStore('attempts');
          store?.createIndex('phrase', 'phrase');
          open.transaction?.objectStore('drills').createIndex('phrase', 'phrase', { unique: true });
          for (const index of ['phrase', 'at']) open.transaction?.objectStore('takes').createIndex(index, index);
        };
        open.onsuccess = () => resolve();
      }),
  );
  await page.bringToFront();
  await page.goto('/shelf');
  await expect(page.getByRole('alert')).toContainText('Another tab still has the old shelf open');
  await old.close();
  await expect(page.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  guard.errors.length = 0;
});

test('a database that never answers is said after three seconds', async ({ page }) => {
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => new EventTarget() as IDBOpenDBRequest;
  });
  await page.goto('/shelf');
  await expect(page.getByRole('alert')).toContainText('storage does not answer', { timeout: 8000 });
});

test('a place whose code cannot be fetched says so and tries again', async ({ page, guard }) => {
  // The other places are fetched when nothing else is to do: here that never comes, so that none is there already.
  await page.addInitScript(() => {
    window.requestIdleCallback = () => 0;
  });
  await page.goto('/shelf');
  await expect(page.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  await page.route('**/*.js', (route) => route.abort());
  await page.keyboard.press('7');
  await expect(page.getByRole('alert')).toContainText('could not be loaded', { timeout: 8000 });
  await page.unroute('**/*.js');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { name: 'Kit', level: 1 })).toBeVisible();
  guard.errors.length = 0;
});

test('before the application is there it says that it comes, and where it cannot be fetched, that', async ({
  page,
  guard,
}) => {
  // The first script comes, and what it asks for does not, at first not even an answer.
  let refuse = (): void => undefined;
  const refused = new Promise<void>((resolve) => (refuse = resolve));
  await page.route('**/chunk-*.js', async (route) => {
    await refused;
    await route.abort();
  });
  await page.goto('/shelf', { waitUntil: 'commit' });
  await expect(page.getByRole('status')).toHaveText('Loading Loop Shelf …');
  refuse();
  await expect(page.getByRole('status')).toContainText('could not be loaded');
  await page.unroute('**/chunk-*.js');
  await page.evaluate(() => location.reload());
  await expect(page.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  guard.errors.length = 0;
});

test('over plain http to another machine the page works: ids without the browser’s own', async ({ page }) => {
  await page.addInitScript(() => {
    // As a page that came over plain http has it.
    Object.defineProperty(crypto, 'randomUUID', { value: undefined });
    Object.defineProperty(navigator, 'locks', { value: undefined });
    Object.defineProperty(navigator, 'storage', { value: undefined });
    Object.defineProperty(globalThis, 'isSecureContext', { value: false });
  });
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Over http');
  await goWithin(page, '/shelf');
  await expect(strips(page)).toHaveText(['Over http']);
  // What is missing is said before it is tried.
  for (const path of ['/listen', '/play']) {
    await goWithin(page, path);
    await expect(page.locator('ls-withheld')).toContainText('No microphone and no MIDI here');
  }
  await goWithin(page, '/kit?part=data');
  await expect(page.locator('ls-withheld')).toContainText('No folder here');
});

test('work that was not kept in tabs that were closed is found: one at once, the others to take up', async ({
  page,
  context,
}) => {
  const tabs: Page[] = [];
  for (const text of ['R l l K', 'L r r K K']) {
    const other = await context.newPage();
    await typeSticking(other, text);
    await written(other);
    tabs.push(other);
  }
  for (const other of tabs) await other.close();
  await page.goto('/bench');
  await expect(page.locator('.source')).toContainText('L r r K K');
  await page.goto('/bench?fresh=1');
  await expect(page.getByRole('heading', { name: 'Not kept yet' })).toBeVisible();
  // What lay here a moment ago waits as well: it was never kept either.
  await expect(page.getByRole('button', { name: 'Continue with L r r K K' })).toBeVisible();
  await page.getByRole('button', { name: 'Continue with R l l K' }).click();
  await expect(page.locator('.source')).toContainText('R l l K');
});
