import { spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { expect, test } from '@playwright/test';

/** A server of the test's own on a copy of the built application, so that a newer one can be put in its place. */
async function serve(port: number, webRoot: string): Promise<ChildProcess> {
  const server = spawn('node', ['dist/server/main.mjs'], {
    env: { ...process.env, PORT: String(port), WEB_ROOT: webRoot },
  });
  await expect
    .poll(
      () =>
        fetch(`http://127.0.0.1:${port}/healthz`).then(
          (r) => r.ok,
          () => false,
        ),
      { timeout: 20_000 },
    )
    .toBe(true);
  return server;
}

/** Another page in the same files: what a build of a newer version would bring. */
function renew(webRoot: string): void {
  const [page, list] = [join(webRoot, 'index.html'), join(webRoot, 'ngsw.json')];
  const put = (file: string, text: string): void => {
    writeFileSync(file, text);
    // What is kept compressed beside it is what is sent.
    if (existsSync(`${file}.br`)) writeFileSync(`${file}.br`, brotliCompressSync(text));
    if (existsSync(`${file}.gz`)) writeFileSync(`${file}.gz`, gzipSync(text));
  };
  const html = readFileSync(page, 'utf8').replace('<html', '<html data-newer="yes"');
  put(page, html);
  const manifest = JSON.parse(readFileSync(list, 'utf8')) as { timestamp: number; hashTable: Record<string, string> };
  manifest.timestamp += 1000;
  manifest.hashTable['/index.html'] = createHash('sha1').update(html).digest('hex');
  put(list, JSON.stringify(manifest));
}

test('a newer version is said in the tab that is open, waits for the player, and nothing in hand is lost by it', async ({
  browser,
}) => {
  const port = 4378;
  const base = `http://127.0.0.1:${port}`;
  const webRoot = mkdtempSync(join(tmpdir(), 'loop-shelf-newer-'));
  cpSync('dist/web/browser', webRoot, { recursive: true });
  const server = await serve(port, webRoot);
  const context = await browser.newContext({ serviceWorkers: 'allow', viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const newer = page.getByText('A new version is ready.');
  try {
    await page.goto(`${base}/bench?fresh=1`);
    await expect(page.locator('ls-shell')).toHaveAttribute('data-offline', 'yes', { timeout: 60_000 });
    await page.reload();
    await page.getByRole('textbox', { name: 'Sticking' }).fill('R l K R l K');
    await page.getByRole('button', { name: 'Put it on the Bench' }).click();
    await expect(page.locator('ls-shell')).toHaveAttribute('data-writing', 'no');
    expect(await newer.count()).toBe(0);
    renew(webRoot);
    // Another tab is opened later and finds it; the one that is open is told.
    const other = await context.newPage();
    await other.goto(`${base}/shelf`);
    await expect(newer).toBeVisible({ timeout: 60_000 });
    // It can wait: what is done meanwhile is done with the version that is there.
    await page.getByRole('button', { name: 'Later', exact: true }).click();
    await expect(newer).toHaveCount(0);
    expect(await page.locator('html').getAttribute('data-newer')).toBeNull();
    await page.keyboard.press('/');
    await page.keyboard.type('accent the rights');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('article', { name: 'Accent rights' })).toBeVisible();
    await expect(page.locator('ls-shell')).toHaveAttribute('data-writing', 'no');
    await other.close();
    await page.reload();
    await expect(page.locator('html')).toHaveAttribute('data-newer', 'yes');
    await expect(page.getByRole('article', { name: 'Accent rights' })).toBeVisible();
  } finally {
    await context.close();
    server.kill('SIGKILL');
    rmSync(webRoot, { recursive: true, force: true });
  }
});
