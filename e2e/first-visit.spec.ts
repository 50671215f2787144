import type { Page } from '@playwright/test';
import { expect, test } from './fixture';

// As a player meets it: with the worker that keeps everything for use without a network.
test.use({ serviceWorkers: 'allow' });

/** Everything that is said on the page, frame by frame, from the first. */
async function listenToAll(page: Page): Promise<() => Promise<string>> {
  await page.addInitScript(() => {
    const said = new Set<string>();
    Object.assign(window, { said });
    const look = (): void => {
      for (const el of document.querySelectorAll('h2, p, [role=alert], .trouble'))
        if (el.checkVisibility({ visibilityProperty: true })) said.add(el.textContent.trim());
      requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
  return () => page.evaluate(() => [...(window as unknown as { said: Set<string> }).said].join('\n'));
}

const FALSE_WHILE_FILLED = /Nothing (here|on the shelf|played|drilled)|No phrase|does not answer|\b0 phrases/;

for (const [place, stands] of [
  ['today', 'The blocks of the day'],
  ['shelf', 'Glass over five'],
  ['log', 'best clean of the day'],
] as const)
  test(`the demo's first visit of ${place}: what is said while it is filled is never false`, async ({ page }) => {
    const said = await listenToAll(page);
    // On a slow line the demo takes longer than a storage may that does not answer.
    await page.route('**/demo/salt-lantern.json', async (route) => {
      await new Promise((r) => setTimeout(r, 3500));
      await route.continue();
    });
    await page.goto(`/${place}?shelf=demo`);
    await expect(page.getByText(stands).first()).toBeVisible();
    if (place === 'today') await expect(page.getByText('Warm-up').first()).toBeVisible();
    expect(await said()).not.toMatch(FALSE_WHILE_FILLED);
    expect(await said()).toMatch(/(Reading|Planning)/);
  });

test('what is kept for use without a network is fetched after the shelf stands, and then all of it', async ({
  page,
  context,
}) => {
  await page.goto('/shelf?shelf=demo');
  await expect(page.getByText('Glass over five')).toBeVisible();
  expect(context.serviceWorkers()).toEqual([]);
  await expect(page.locator('ls-shell')).toHaveAttribute('data-offline', 'yes', { timeout: 60_000 });
  expect(context.serviceWorkers()).toHaveLength(1);
});

test('all that a place is made of is asked for at once, none of it only when another came', async ({
  page,
  request,
}) => {
  const html = await (await request.get('/bench')).text();
  const list = /id="parts">([^<]*)</.exec(html)?.[1] ?? '{}';
  const { names, places } = JSON.parse(list) as { names: string[]; places: Record<string, number[]> };
  const parts = (places['bench'] ?? []).map((n) => names[n] ?? '');
  expect(parts.length).toBeGreaterThan(5);
  expect(parts.length).toBeLessThan(20);
  const missing = new Set(parts);
  const held: (() => void)[] = [];
  await page.route(/\/chunk-[^/]*\.js$/, async (route) => {
    const name = new URL(route.request().url()).pathname.slice(1);
    if (!parts.includes(name)) return route.continue();
    missing.delete(name);
    // Nothing is answered before everything was asked for.
    if (missing.size > 0) await new Promise<void>((resolve) => held.push(resolve));
    else for (const go of held.splice(0)) go();
    return route.continue();
  });
  await page.goto('/bench');
  await expect(page.getByRole('textbox', { name: 'Sticking' })).toBeVisible();
  expect([...missing]).toEqual([]);
});
