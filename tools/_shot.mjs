import { chromium } from '@playwright/test';
import { ensureChromium, startServer } from './shared.mjs';
const port = 4399,
  base = `http://127.0.0.1:${port}`;
const server = await startServer(port);
const browser = await chromium.launch({
  executablePath: ensureChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
});
const [w, h] = (process.env.SIZE ?? '1280x800').split('x').map(Number);
const page = await browser.newPage({ viewport: { width: w, height: h }, serviceWorkers: 'block' });
page.on('console', (m) => {
  if (m.type() === 'error') console.log('ERR', m.text().slice(0, 300));
});
page.on('pageerror', (e) => console.log('PAGEERR', String(e).slice(0, 400)));
try {
  const steps = (await import(process.argv[2])).default;
  await steps({ page, base, shot: (n) => page.screenshot({ path: `/tmp/shots/${n}.png` }) });
} catch (e) {
  console.log('FAIL', e);
} finally {
  await browser.close();
  server.kill();
  process.exit(0);
}
