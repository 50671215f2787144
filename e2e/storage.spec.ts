import { expect, keepAs, openDemo, test, typeSticking } from './fixture';

test('what was not kept is still on the Bench after a reload', async ({ page }) => {
  await typeSticking(page, 'R! l l K');
  await page.reload();
  await expect(page.locator('.source')).toContainText('R! l l K');
  await expect(page.getByText('not kept yet')).toBeVisible();
});

test('two tabs agree: kept in one, seen in the other; taken off, put back', async ({ page, context }) => {
  const other = await context.newPage();
  await other.goto('/shelf');
  await expect(other.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  await typeSticking(page, 'R L K');
  await keepAs(page, 'From the first tab');
  // A tab behind another draws nothing; what matters is what it shows when it is looked at, without being loaded again.
  await other.bringToFront();
  await expect(other.getByText('From the first tab')).toBeVisible();
  await other.getByRole('button', { name: 'More for From the first tab' }).click();
  await other.getByRole('menuitem', { name: 'Take off the shelf' }).click();
  await page.bringToFront();
  await page.goto('/shelf');
  await expect(page.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  await other.bringToFront();
  await other.getByRole('button', { name: 'Put back on the shelf' }).click();
  await page.bringToFront();
  await expect(page.getByText('From the first tab')).toBeVisible();
});

test('the demo shelf and mine never touch', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: /Back to mine/ }).click();
  await expect(page.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  await page.getByRole('button', { name: 'Look at the demo first' }).click();
  await expect(page.getByText('Glass over five')).toBeVisible();
});

test('where the browser keeps nothing, it says so and goes on', async ({ page, guard }) => {
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException('no storage here', 'SecurityError');
    };
  });
  await page.goto('/bench');
  await expect(page.getByRole('alert')).toContainText('Nothing can be kept in this window');
  await page.getByRole('textbox', { name: 'Sticking' }).fill('R L');
  await page.getByRole('button', { name: 'Put it on the Bench' }).click();
  await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
  guard.errors.length = 0;
});

test('a full disk is said in words, and the write can be tried again', async ({ page }) => {
  await typeSticking(page, 'R L K');
  await page.evaluate(() => {
    const real = IDBObjectStore.prototype.put;
    let full = true;
    IDBObjectStore.prototype.put = function (...args: Parameters<typeof real>) {
      if (full) throw new DOMException('full', 'QuotaExceededError');
      return real.apply(this, args);
    };
    Object.assign(window, { freeDisk: () => (full = false) });
  });
  await keepAs(page, 'Kept at last');
  await expect(page.getByRole('alert')).toContainText('Storage is full');
  await page.evaluate(() => (window as unknown as { freeDisk: () => void }).freeDisk());
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.goto('/shelf');
  await expect(page.getByText('Kept at last')).toBeVisible();
});
