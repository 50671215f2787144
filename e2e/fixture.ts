import { test as base, expect, type Page } from '@playwright/test';

/** Every test fails on a request outside the page's origin, on a violation of the page's policy, and on any error in the console. */
export const test = base.extend<{ guard: { violations: string[]; foreign: string[]; errors: string[] } }>({
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
      await use(g);
      expect(g.foreign, 'requests off the origin').toEqual([]);
      expect(g.violations, 'violations of the policy').toEqual([]);
      expect(g.errors, 'errors').toEqual([]);
    },
    { auto: true },
  ],
});
export { expect };

/** The demo shelf, filled. */
export async function openDemo(page: Page, path = '/shelf'): Promise<void> {
  await page.goto('/?shelf=demo');
  await expect(page.getByText('Glass over five')).toBeVisible();
  if (path !== '/shelf') await page.goto(path);
}

/** A typed sticking put on the Bench of the user's own shelf. */
export async function typeSticking(page: Page, text: string, meter = '4/4'): Promise<void> {
  await page.goto('/bench?fresh=1');
  await page.getByLabel('Meter').selectOption(meter);
  await page.getByRole('textbox', { name: 'Sticking' }).fill(text);
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
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
  if (goal !== undefined) await dialog.getByLabel('Goal tempo').fill(goal);
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toBeHidden();
}
