// How far ahead of their time sounds are handed to the audio clock while the page's main thread is kept busy, against a
// page left in peace in the same run. Needs a build.
import { chromium } from '@playwright/test';
import { ensureChromium, startServer } from './shared.mjs';

const port = 4394;
const base = `http://127.0.0.1:${port}`;
const SECONDS = 30;
const server = await startServer(port);
const browser = await chromium.launch({
  executablePath: ensureChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
});

/** Plays for half a minute with so many ms of every second taken from the main thread. */
async function played(page, busy) {
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Stop' }).waitFor();
  await page.evaluate(
    async ([busy, seconds]) => {
      for (let second = 0; second < seconds; second++) {
        const until = performance.now() + busy;
        while (performance.now() < until);
        await new Promise((r) => setTimeout(r, 1000 - busy));
      }
    },
    [busy, SECONDS],
  );
  const bar = page.locator('ls-play-bar');
  const read = async (name) => Number(await bar.getAttribute(`data-${name}`));
  const found = { sounds: await read('sounds'), late: await read('late'), nearest: await read('nearest') };
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
  return found;
}

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
  await page.goto(`${base}/bench/salt-1?shelf=demo`);
  await page.locator('ls-ribbon-editor .stem').first().waitFor();
  await page.locator('h1').click();
  console.log('\nsounds handed to the audio clock (baseline: a page left in peace, same run)');
  const calm = await played(page, 0);
  for (const [name, f] of [
    ['in peace', calm],
    ['200 ms of every second taken', await played(page, 200)],
    ['500 ms of every second taken', await played(page, 500)],
  ])
    console.log(
      `${name}: ${f.sounds} sounds in ${SECONDS} s, ${f.late} late, the nearest ${(1000 * f.nearest).toFixed(0)} ms ahead = ${(f.nearest / calm.nearest).toFixed(2)} × baseline`,
    );
} finally {
  await browser.close();
  server.kill();
}
