import type { Page } from '@playwright/test';
import { expect, openDemo, test, typeSticking } from './fixture';

/** Each dialog of the application: how the keys open it, and what it is called. */
const DIALOGS: readonly {
  readonly name: string;
  readonly path: string;
  readonly open: (page: Page) => Promise<void>;
}[] = [
  {
    name: 'Keep it',
    path: '/bench/salt-1',
    open: async (page) => {
      await page.getByRole('button', { name: 'Keep it' }).focus();
      await page.keyboard.press('Enter');
    },
  },
  { name: 'A page for the music stand', path: '/bench/salt-1', open: (page) => page.keyboard.press('p') },
  {
    name: 'Share or export',
    path: '/bench/salt-1',
    open: async (page) => {
      await page.getByRole('button', { name: 'Share or export' }).focus();
      await page.keyboard.press('Enter');
    },
  },
  {
    name: 'Bring in',
    path: '/shelf',
    open: async (page) => {
      await page.locator('ls-strip').first().waitFor();
      await page.getByRole('button', { name: 'Bring in' }).focus();
      await page.keyboard.press('Enter');
    },
  },
  {
    name: 'Start from another sticking',
    path: '/bench/salt-5',
    open: async (page) => {
      await typeSticking(page, 'R l l R K');
      await page.getByRole('button', { name: /^Typed: R l l R K/ }).focus();
      await page.keyboard.press('Enter');
    },
  },
];

for (const { name, path, open } of DIALOGS) {
  test(`the dialog “${name}” at ${path} by keyboard: its name, the keys stay in it, Esc gives them back`, async ({
    page,
  }) => {
    await openDemo(page, path);
    await open(page);
    const dialog = page.getByRole('dialog', { name });
    await expect(dialog).toBeVisible();
    await expect(dialog).toHaveAttribute('aria-modal', 'true');
    await expect(page.locator('.p-dialog-enter-active')).toHaveCount(0);
    const inside = () => dialog.evaluate((d) => d.contains(document.activeElement));
    await expect.poll(inside).toBe(true);
    const stops = new Set<string>();
    for (let i = 0; i < 24; i++) {
      await page.keyboard.press(i < 12 ? 'Tab' : 'Shift+Tab');
      expect(await inside(), `after ${i + 1} steps`).toBe(true);
      stops.add(await page.evaluate(() => document.activeElement?.outerHTML.slice(0, 200) ?? ''));
    }
    expect(stops.size).toBeGreaterThan(1);
    await page.keyboard.press('Escape');
    await expect(dialog).toBeHidden();
    // The place has the keys again: its first digit leads away.
    const away = path === '/shelf' ? { digit: '6', to: /\/log/ } : { digit: '4', to: /\/shelf/ };
    await page.keyboard.press(away.digit);
    await expect(page).toHaveURL(away.to);
  });
}
