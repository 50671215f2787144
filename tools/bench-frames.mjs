// Frames while a phrase of 16 bars of 32nds is edited on the Bench, as ratios to an empty page in the same browser.
// Needs a build.
import { chromium } from '@playwright/test';
import { ensureChromium, startServer } from './shared.mjs';

const port = 4392;
const base = `http://127.0.0.1:${port}`;
const server = await startServer(port);
const browser = await chromium.launch({ executablePath: ensureChromium(), args: ['--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });

/** Counts frames for as long as `work` goes on; the middle and the longest distance between two, in ms. */
async function frames(work) {
  await page.evaluate(() => {
    window.frameTimes = [];
    // A name of its own, as the loop of the stage before may still be at its last frame.
    const own = {};
    window.counting = own;
    let last = performance.now();
    const tick = (now) => {
      if (window.counting !== own) return;
      window.frameTimes.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await work();
  const times = await page.evaluate(() => {
    window.counting = null;
    return window.frameTimes.slice(3);
  });
  times.sort((a, b) => a - b);
  return {
    median: times[times.length >> 1],
    worst: times.at(-1),
    p95: times[Math.floor(times.length * 0.95)],
    many: times.length,
  };
}

try {
  await page.goto(`${base}/healthz`);
  // The browser settles first: its own start is no part of the baseline.
  await page.waitForTimeout(3000);
  const empty = await frames(() => page.waitForTimeout(4000));
  await page.goto(`${base}/bench?fresh=1`);
  await page.getByRole('textbox', { name: 'Sticking' }).fill('(R! L r L R l R L)x4');
  await page.getByRole('combobox', { name: 'On', exact: true }).click();
  await page.getByRole('option', { name: '32nds', exact: true }).click();
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.getByRole('heading', { name: 'The sums' }).waitFor();
  await page.keyboard.press('/');
  await page.keyboard.type('fill 16 bars');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.locator('ls-staff[data-drawn]').waitFor();
  await page.waitForTimeout(2000);
  /** One edit after another: letters, a step on, a level up. */
  const edit = (pause) => async () => {
    await page.locator('h1').click();
    await page.keyboard.press('e');
    for (let i = 0; i < 40; i++) {
      await page.keyboard.press(i % 4 === 3 ? 'ArrowUp' : ['R', 'l', 'ArrowRight'][i % 3]);
      await page.waitForTimeout(pause);
    }
  };
  // As the Bench opens, with the staff: written fast, and with a look after each stroke, so that all that follows is
  // worked out and engraved between the edits.
  const fast = await frames(edit(90));
  const slow = await frames(edit(500));
  await page.getByRole('tab', { name: 'Staff N' }).click();
  const closed = await frames(edit(90));
  const say = (name, f) =>
    console.log(
      `${name}: median ${f.median.toFixed(1)} ms, 95 % ${f.p95.toFixed(1)} ms, worst ${f.worst.toFixed(1)} ms over ${f.many} frames`,
    );
  console.log('\nframes of 16 bars of 32nds, 512 strokes (baseline: an empty page in the same browser)');
  say('empty page', empty);
  for (const [name, f] of [
    ['editing, an edit every 0.1 s', fast],
    ['editing, an edit every 0.5 s', slow],
    ['editing with the staff closed, an edit every 0.1 s', closed],
  ]) {
    say(name, f);
    console.log(
      `  ratio: median ${(f.median / empty.median).toFixed(2)} ×, worst ${(f.worst / empty.worst).toFixed(2)} ×`,
    );
  }
} finally {
  await browser.close();
  server.kill();
}
