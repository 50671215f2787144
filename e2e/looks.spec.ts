import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, goWithin, inLight, kept, openDemo, settled, test, written } from './fixture';

const PLACES = [
  '/today',
  '/listen',
  '/shelf',
  '/bench/salt-1',
  '/drill/salt-1',
  '/drill',
  '/log',
  '/kit',
  '/shows',
  '/play',
  '/lessons',
  '/lessons?give=lantern-lesson',
];
/** A busy machine looks at no more places than this in the time of a test. */
const THIRDS = [PLACES.slice(0, 4), PLACES.slice(4, 8), PLACES.slice(8)];

/** What axe finds in the page as it is, in words; in the other light only what colours can change. */
async function found(page: Page, light: 'light' | 'dark'): Promise<readonly string[]> {
  await inLight(page, light);
  await settled(page);
  const axe = new AxeBuilder({ page });
  const { violations } = await (light === 'dark' ? axe.withRules(['color-contrast']) : axe).analyze();
  return violations.map(
    (v) =>
      `${light} ${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  );
}

test('the theme and the room are as they are chosen, also after a reload', async ({ page }) => {
  await openDemo(page, '/kit?part=data');
  await page.getByRole('button', { name: 'dark', exact: true }).click();
  await expect.poll(() => kept(page, 'settings', 'loop-shelf-demo')).toMatchObject({ theme: 'dark' });
  await page.reload();
  await expect(page.locator('html')).toHaveClass(/dark/);
  await page.getByRole('button', { name: 'light', exact: true }).click();
  await expect(page.locator('html')).not.toHaveClass(/dark/);
  await goWithin(page, '/drill');
  await expect(page.locator('html'), 'the practice room is dark until told otherwise').toHaveClass(/dark/);
  await goWithin(page, '/kit?part=data');
  await page.getByRole('button', { name: 'like the workbench' }).click();
  await goWithin(page, '/drill');
  await expect(page.locator('#place h1').first()).toBeVisible();
  await expect(page.locator('html')).not.toHaveClass(/dark/);
});

for (const some of THIRDS)
  test(`axe finds nothing serious in ${some.join(', ')}, in both lights`, async ({ page }) => {
    for (const path of some) {
      await openDemo(page, path);
      await expect(page.locator('#place h1').first()).toBeVisible();
      if (path === '/bench/salt-1') {
        await page.getByRole('button', { name: /^Fill 2 bars/ }).click();
        await page.getByRole('button', { name: '+ Add a move' }).click();
      }
      expect([...(await found(page, 'light')), ...(await found(page, 'dark'))], path).toEqual([]);
    }
  });

test('the library’s components have all their colours and measures from our own sheet, and write none into the page', async ({
  page,
}) => {
  await openDemo(page, '/bench/salt-1');
  await page.keyboard.press('k');
  await expect(page.getByRole('dialog', { name: 'Keep it' })).toBeVisible();
  const { used, empty, written } = await page.evaluate(() => {
    const text = [...document.styleSheets].flatMap((s) => [...s.cssRules].map((r) => r.cssText)).join('\n');
    const used = [...new Set([...text.matchAll(/var\((--p-[\w-]+)/g)].map((m) => m[1] ?? ''))];
    const looks = getComputedStyle(document.documentElement);
    const empty = used.filter((name) => looks.getPropertyValue(name) === '');
    return { used: used.length, empty, written: document.querySelectorAll('style[data-primeng-style-id]').length };
  });
  expect(used).toBeGreaterThan(500);
  expect({ empty, written }).toEqual({ empty: [], written: 0 });
});

test('axe finds nothing in the empty places, the dialogs and the keys', async ({ page }) => {
  const check = async (): Promise<void> => {
    const { violations } = await new AxeBuilder({ page }).analyze();
    expect(
      violations.map(
        (v) =>
          `${page.url()} ${v.id}: ${v.nodes
            .map((n) => n.target.join(' '))
            .slice(0, 3)
            .join(' | ')}`,
      ),
    ).toEqual([]);
  };
  for (const path of ['/today', '/listen', '/shelf', '/bench', '/drill', '/log']) {
    await page.goto(path);
    await expect(page.locator('#place h1, #place h2').first()).toBeVisible();
    await check();
  }
  await page.goto('/bench');
  await page.getByRole('button', { name: /^Five stroke roll/ }).click();
  await page.keyboard.press('k');
  await expect(page.getByRole('dialog', { name: 'Keep it' })).toBeVisible();
  await settled(page);
  await check();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Shift+?');
  await expect(page.getByRole('complementary', { name: 'Guide' })).toContainText('Play and stop');
  await settled(page);
  await check();
});

test('every place fits 1280, 820 and 390 px wide without scrolling sideways; the Bench needs no scrolling at 1280×800', async ({
  page,
}) => {
  await openDemo(page);
  for (const path of [...PLACES, '/shows?run=1']) {
    await page.goto(path);
    await expect(page.locator('#place h1').first()).toBeVisible();
    for (const [width, height] of [
      [1280, 800],
      [820, 1180],
      [390, 844],
    ] as const) {
      await page.setViewportSize({ width, height });
      await written(page);
      const { wide, high } = await page.evaluate(() => ({
        wide: document.documentElement.scrollWidth,
        high: document.documentElement.scrollHeight,
      }));
      expect(wide, `${path} at ${width}`).toBeLessThanOrEqual(width);
      if (width > 390) expect(high, `${path} at ${width}`).toBeLessThanOrEqual(height);
    }
  }
});

test('a phrase of two bars, its recipe, sums, checks and staff stand on the Bench at 1280×800 without scrolling any column', async ({
  page,
}) => {
  for (const n of [1, 7, 9, 12, 16, 28]) {
    await openDemo(page, `/bench/salt-${n}`);
    await expect(page.locator('ls-staff')).toHaveAttribute('data-drawn', /\d+/);
    await expect(page.locator('ls-speed')).toContainText('ceiling');
    const columns = ['.recipe', '.drawing', 'p-tabpanel.p-tabpanel-active', '.findings'];
    await expect
      .poll(
        () =>
          page.evaluate(
            (all) =>
              all.filter((c) => {
                const box = document.querySelector(c);
                return !box || box.scrollHeight > box.clientHeight + 1 || box.scrollWidth > box.clientWidth + 1;
              }),
            columns,
          ),
        { message: `columns that scroll with phrase ${n}` },
      )
      .toEqual([]);
  }
});

test('digits go from place to place, ? shows the keys, a screen reader hears each stroke', async ({ page }) => {
  await openDemo(page);
  for (const [digit, name] of [
    ['6', 'Log'],
    ['7', 'Kit'],
    ['4', 'Shelf'],
  ] as const) {
    await page.keyboard.press(digit);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
  }
  await page.goto('/bench/salt-1');
  await expect(page.locator('svg title', { hasText: 'beat 1 in bar 1, right hand, accent, right crash' })).toHaveCount(
    1,
  );
});
