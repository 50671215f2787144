import type { Page } from '@playwright/test';
import { expect, inLight, openDemo, settled, test } from './fixture';

const PLACES = [
  '/today',
  '/listen',
  '/shelf',
  '/bench/salt-1',
  '/drill/salt-3',
  '/log',
  '/kit',
  '/kit?part=data',
  '/shows',
  '/play',
  '/lessons?give=lantern-lesson',
];
const SIZES = [
  [1280, 800],
  [820, 1180],
  [844, 390],
  [390, 844],
] as const;

/**
 * What of all that can be pressed lies under something else once it is scrolled to, or is smaller than 24 dots. Words
 * of a sentence may be as high as their line; a list is opened by all of it, its arrow is part of that.
 */
function wrongOnes(page: Page): Promise<readonly string[]> {
  return page.evaluate(() => {
    const all = 'button, a[href], input:not([type=file]), select, textarea, [role=tab], [role=slider], summary';
    const nameOf = (e: Element): string =>
      (e.getAttribute('aria-label') ?? e.textContent ?? e.className).trim().replace(/\s+/g, ' ').slice(0, 40);
    /** Scrolls as a person does: only what shows that it scrolls. */
    const show = (e: Element): void => {
      for (let box = e.parentElement; box; box = box.parentElement) {
        const how = getComputedStyle(box);
        const [own, of] = [e.getBoundingClientRect(), box.getBoundingClientRect()];
        if (/auto|scroll/.test(how.overflowY)) box.scrollTop += (own.top + own.bottom - of.top - of.bottom) / 2;
        if (/auto|scroll/.test(how.overflowX)) box.scrollLeft += (own.left + own.right - of.left - of.right) / 2;
      }
    };
    const wrong: string[] = [];
    for (const e of document.querySelectorAll<HTMLElement>(all)) {
      if (e.closest('[inert], .visually-hidden, [aria-hidden=true], ls-term, .p-select-dropdown')) continue;
      if (!e.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
      show(e);
      const box = e.getBoundingClientRect();
      if (box.width === 0 || box.height === 0) continue;
      const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
      const top = document.elementFromPoint(x, y);
      const label = e.closest('label');
      const isReached = top !== null && (e.contains(top) || top.contains(e) || (label?.contains(top) ?? false));
      if (!isReached) wrong.push(`${nameOf(e)}: under ${top ? `${top.tagName} ${nameOf(top)}` : 'the edge'}`);
      const own = label && e.matches('[type=checkbox], [type=radio]') ? label.getBoundingClientRect() : box;
      const isWord = e.tagName === 'A' && getComputedStyle(e).display === 'inline';
      if (!isWord && (own.width < 23.5 || own.height < 23.5))
        wrong.push(`${nameOf(e)}: ${Math.round(own.width)} × ${Math.round(own.height)}`);
    }
    return [...new Set(wrong)];
  });
}

/** A place is opened once and seen at every size in both lights: loading it anew is not what is tried here. */
for (const some of [PLACES.slice(0, 5), PLACES.slice(5)])
  test(`nothing that can be pressed is covered or smaller than 24 dots, at four sizes, two lights, ${some.join(', ')}`, async ({
    page,
  }) => {
    test.slow();
    for (const path of some) {
      await openDemo(page, path);
      await expect(page.locator('#place h1').first()).toBeVisible();
      for (const [width, height] of SIZES) {
        await page.setViewportSize({ width, height });
        for (const light of ['light', 'dark'] as const) {
          await inLight(page, light);
          await settled(page);
          expect.soft(await wrongOnes(page), `${width} × ${height} ${path} ${light}`).toEqual([]);
        }
      }
    }
  });

test('what is used while playing is at least 44 dots high and covered by nothing, at four sizes', async ({ page }) => {
  await openDemo(page, '/drill/salt-3');
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height });
    await page.goto('/drill/salt-3');
    await page.getByRole('button', { name: /^Start/ }).click();
    for (const name of [/^Clean/, /^Messy/, /^Stay/, /^One rung down/, /^Pause/, /^Stop here/]) {
      const button = page.getByRole('button', { name }).first();
      await button.scrollIntoViewIfNeeded();
      expect((await button.boundingBox())!.height, `${width} × ${height} ${String(name)}`).toBeGreaterThanOrEqual(44);
      await button.click({ trial: true });
    }
    await page
      .getByRole('button', { name: /^Stop here/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'New ladder' }).first().click();
  }
});
