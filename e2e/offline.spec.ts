import { spawn, type ChildProcess } from 'node:child_process';
import { expect, test } from '@playwright/test';

/** A server of the test's own, to be stopped in the middle. */
async function serve(port: number): Promise<ChildProcess> {
  const server = spawn('node', ['dist/server/main.mjs'], { env: { ...process.env, PORT: String(port) } });
  for (let i = 0; i < 100; i++) {
    const up = await fetch(`http://127.0.0.1:${port}/healthz`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) return server;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error('the server did not answer');
}

test('once the sign is there all of it works with the server stopped: places, demo, staff, worklet, workers', async ({
  browser,
}) => {
  const port = 4377;
  const base = `http://127.0.0.1:${port}`;
  const server = await serve(port);
  const context = await browser.newContext({ serviceWorkers: 'allow', viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  try {
    await page.goto(`${base}/shelf`);
    await expect(page.locator('ls-shell')).toHaveAttribute('data-offline', 'yes', { timeout: 60_000 });
    await expect(page.getByText('Works offline')).toBeVisible();
    server.kill('SIGKILL');
    await new Promise((r) => server.once('exit', r));
    await expect
      .poll(() =>
        fetch(`${base}/healthz`).then(
          () => 'up',
          () => 'down',
        ),
      )
      .toBe('down');
    // The demo shelf is fetched and filled for the first time now.
    await page.goto(`${base}/shelf?shelf=demo`);
    await expect(page.locator('ls-strip ls-ribbon svg').first()).toBeVisible();
    await page.goto(`${base}/bench/salt-1`);
    await expect(page.locator('ls-staff[data-drawn] svg').first()).toBeVisible();
    const fonts = await page.evaluate(async () => {
      await document.fonts.ready;
      return [...document.fonts].filter((f) => f.status === 'error').map((f) => f.family);
    });
    expect(fonts).toEqual([]);
    expect(await page.evaluate(async () => (await fetch('/worklets/onset.js')).status)).toBe(200);
    await page.keyboard.press('b');
    await expect(page.getByRole('heading', { name: /Find a sticking/ })).toBeVisible();
    await page.goto(`${base}/listen`);
    await page.getByRole('button', { name: 'a groove' }).click();
    await expect(page.getByText('strokes found')).toBeVisible();
    for (const [path, name] of [
      ['/drill/salt-1', 'Glass over five'],
      ['/log', 'Log'],
      ['/kit', 'Kit'],
    ] as const) {
      await page.goto(base + path);
      await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
    }
    // The guide and its pictures are here too.
    await page.keyboard.press('Shift+?');
    const picture = page.getByRole('complementary', { name: 'Guide' }).locator('img').first();
    await expect.poll(() => picture.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(1280);
  } finally {
    await context.close();
    server.kill('SIGKILL');
  }
});
