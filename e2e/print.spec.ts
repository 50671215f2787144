import { expect, openDemo, test, typeSticking } from './fixture';
import { pagesOf } from './pdf';

/** What is left free at each edge of the paper at most, in points: three quarters of an inch and a little. */
const EDGE = 60;

for (const [format, width, height] of [
  ['A4', 595, 842],
  ['Letter', 612, 792],
] as const) {
  test(`the printed page is one page of ${format}, drawn over its whole width`, async ({ page }) => {
    await openDemo(page, '/bench/salt-1');
    await page.keyboard.press('p');
    await expect(page.locator('.sheet-dialog ls-staff svg')).toBeVisible();
    const pages = pagesOf(await page.pdf({ format }));
    expect(pages).toHaveLength(1);
    const [one] = pages;
    expect(Math.abs(one!.width - width)).toBeLessThan(2);
    expect(Math.abs(one!.height - height)).toBeLessThan(2);
    // The staff's lines go from edge to edge, and nothing is cut off.
    expect(one!.ink.left).toBeLessThan(EDGE);
    expect(one!.ink.right).toBeGreaterThan(width - EDGE);
    expect(one!.ink.right).toBeLessThan(width - 10);
    expect(one!.ink.bottom).toBeLessThan(height - 10);
    // Ribbon and staff under each other take a good part of the page.
    expect(one!.ink.bottom - one!.ink.top).toBeGreaterThan(200);
  });
}

test('a long phrase is one page too: its staff, smaller', async ({ page }) => {
  await typeSticking(page, '(R l r L R K l r)x16', '7/8');
  await page.keyboard.press('p');
  await expect(page.locator('.sheet-dialog ls-staff svg')).toBeVisible();
  const pages = pagesOf(await page.pdf({ format: 'A4' }));
  expect(pages).toHaveLength(1);
  expect(pages[0]!.ink.right - pages[0]!.ink.left).toBeGreaterThan(595 - 2 * EDGE);
});
