// A shelf of full size in the browser: how long each thing takes that a player waits for, and the longest task of the
// main thread in it. Beside each line stands what a plain page takes for a plain piece of work at the same moment: where
// the machine is busy both take longer, and a bound holds if it holds by that ratio. The shelf is made by a seeded
// script. Needs a build. `SHELF_SIZE=1000,20000,500,20` makes a smaller one, `BUSY=2` keeps two processors busy beside.
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureChromium, startServer } from './shared.mjs';

await build({
  entryPoints: ['demo/thousands.ts'],
  outfile: 'dist/bench/thousands.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  tsconfig: 'tsconfig.server.json',
});
const { thousands, FULL_SIZE } = await import('../dist/bench/thousands.mjs');
const [phrases, tries, ofOne, lessons = 0] = (process.env.SHELF_SIZE ?? '').split(',').map(Number);
const size = phrases ? { phrases, tries, ofOne, lessons } : FULL_SIZE;
const folder = mkdtempSync(join(tmpdir(), 'shelf-'));
const file = join(folder, 'shelf.json');
writeFileSync(file, [...thousands(size)].join(''));

const port = 4393;
const base = `http://127.0.0.1:${port}`;
const server = await startServer(port);
const context = await chromium.launchPersistentContext(join(folder, 'profile'), {
  executablePath: ensureChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--enable-precise-memory-info'],
  viewport: { width: 1280, height: 800 },
  serviceWorkers: 'block',
});
const page = context.pages()[0] ?? (await context.newPage());
const busy = Array.from({ length: Number(process.env.BUSY ?? 0) }, () =>
  spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' }),
);
const other = await context.newPage();
await other.goto(`${base}/healthz`);
await page.bringToFront();
await page.addInitScript(() => {
  window.longest = 0;
  new PerformanceObserver((list) => {
    for (const e of list.getEntries()) window.longest = Math.max(window.longest, e.duration);
  }).observe({ type: 'longtask', buffered: true });
  // The first strips of this page, painted: asking from outside takes time of its own.
  const seen = new MutationObserver(() => {
    if (!document.querySelector('ls-strip')) return;
    seen.disconnect();
    requestAnimationFrame(() => setTimeout(() => (window.firstStrips = performance.now())));
  });
  seen.observe(document, { subtree: true, childList: true });
});
/** What the plain page takes on this machine when nothing else runs, in ms. */
const QUIET = 40;
/** A plain page, and plain work: text is read, sorted, and becomes two thousand lines that are laid out. In ms. */
function plain() {
  return other.evaluate(() => {
    const began = performance.now();
    const rows = JSON.parse(JSON.stringify(Array.from({ length: 20_000 }, (_, i) => ({ i, name: `row ${i % 977}` }))));
    rows.sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.i - b.i));
    const box = document.createElement('div');
    for (const { name } of rows.slice(0, 2000)) box.appendChild(document.createElement('p')).textContent = name;
    document.body.appendChild(box);
    const height = box.offsetHeight;
    box.remove();
    return height > 0 ? performance.now() - began : 0;
  });
}
/** The middle of three. */
async function plainNow() {
  const all = [await plain(), await plain(), await plain()];
  return all.sort((a, b) => a - b)[1];
}
const rows = [];
/** One line: how long `work` takes, and the longest task of the main thread meanwhile, in ms. */
async function line(name, most, work) {
  const before = await plainNow();
  await page.evaluate(() => (window.longest = 0)).catch(() => undefined);
  const began = performance.now();
  const took = (await work()) ?? performance.now() - began;
  await page.waitForTimeout(150);
  const longest = await page.evaluate(() => window.longest);
  // A quick machine is no reason to ask for more than a player can feel.
  const slow = Math.max(1, (before + (await plainNow())) / 2 / QUIET);
  rows.push({ name, ratio: took / most / slow, longest: longest / slow });
  const bound = `${(took / slow / QUIET).toFixed(2)} × plain work, at most ${(most / QUIET).toFixed(2)}`;
  console.log(`${name}: ${Math.round(took)} ms (${bound}), longest task ${Math.round(longest)} ms`);
}
/** From a press to what it leads to, clocked in the page itself: asking it from outside takes time of its own. */
const pressed = (what, leadsTo) =>
  page.evaluate(
    ([what, leadsTo]) =>
      new Promise((done) => {
        const began = performance.now();
        const look = () => {
          if (!document.querySelector(leadsTo)) return;
          seen.disconnect();
          requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)));
        };
        const seen = new MutationObserver(look);
        seen.observe(document, { subtree: true, childList: true });
        what.click();
      }),
    [what, leadsTo],
  );
/** What is typed into the box: enough keys for one of twenty to be more than the slowest of all; null empties it. */
const QUESTIONS = ['half bar 16ths no toms gull', 'groove goal over 120 kelp', '2 bars with flams lantern'];
const strips = () => page.locator('ls-strip').first().waitFor();
const drawn = () => page.locator('ls-strip ls-ribbon svg').first().waitFor();

try {
  await page.goto(`${base}/kit?part=data`);
  await page.getByRole('heading', { name: 'My data' }).waitFor();
  await line('file read and put on the shelf', 6000, async () => {
    const began = performance.now();
    await page.locator('input[type=file]').setInputFiles(file);
    await page.getByRole('button', { name: 'Put it on the shelf' }).waitFor({ timeout: 120_000 });
    const read = performance.now() - began;
    const again = performance.now();
    await page.getByRole('button', { name: 'Put it on the shelf' }).click();
    await page.getByText('from the file are on the shelf').waitFor({ timeout: 120_000 });
    return read + performance.now() - again;
  });
  const first = performance.now();
  await page.goto(`${base}/shelf`);
  await strips();
  // All of it is worked out once, beside the page.
  await page.waitForFunction(() => !document.querySelector('ls-strip')?.textContent?.includes('…'), null, {});
  for (let last = ''; ;) {
    const now = await page.evaluate(
      () =>
        new Promise((done) => {
          const open = indexedDB.open('loop-shelf');
          open.onsuccess = () => {
            const all = open.result.transaction('packs').objectStore('packs').getAll();
            all.onsuccess = () => {
              open.result.close();
              const entries = all.result.flatMap((p) => (p.n < 1000 ? JSON.parse(p.json) : []));
              done(`${entries.length} ${entries.filter((e) => e.facts && e.ceiling).length}`);
            };
          };
        }),
    );
    if (now === `${size.phrases} ${size.phrases}` && now === last) break;
    last = now;
    await page.waitForTimeout(1000);
  }
  console.log(`everything worked out once: ${Math.round(performance.now() - first)} ms, beside the page`);
  await page.waitForTimeout(2500);
  await line('reload to first strips', 600, async () => {
    await page.reload({ waitUntil: 'commit' });
    await strips();
    await page.waitForFunction(() => window.firstStrips > 0);
    return page.evaluate(() => window.firstStrips);
  });
  await drawn();
  await page.locator('ls-strip .name').first().click();
  await page.getByRole('heading', { name: 'The sums' }).waitFor();
  await page.waitForTimeout(800);
  await line('back to the shelf from the Bench', 200, async () => {
    const began = performance.now();
    await page.keyboard.press('4');
    await strips();
    return performance.now() - began;
  });
  await page.waitForTimeout(500);
  const box = page.getByRole('searchbox', { name: 'Ask the shelf' });
  await box.focus();
  const keys = [];
  await line('key to painted result in the box, p95', 50, async () => {
    for (const key of QUESTIONS.flatMap((words) => [...words, null])) {
      keys.push(
        await page.evaluate(
          (key) =>
            new Promise((done) => {
              const box = document.querySelector('#shelf-search');
              const list = document.querySelector('ls-shelf .shelf');
              const began = performance.now();
              const over = () => requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)));
              const seen = new MutationObserver((all) => {
                // Ribbons are drawn once the question is still.
                const drawn = (m) => m.target.nodeType === 1 && m.target.closest('ls-ribbon, .drawing');
                if (all.every(drawn)) return;
                seen.disconnect();
                over();
              });
              seen.observe(list, { subtree: true, childList: true, characterData: true });
              // A key that changes nothing on the page is answered when a frame has passed.
              setTimeout(() => (seen.disconnect(), over()), 400);
              box.value = key === null ? '' : box.value + key;
              box.dispatchEvent(new Event('input', { bubbles: true }));
            }),
          key,
        ),
      );
      await page.waitForTimeout(60);
    }
    const answered = keys.filter((k) => k < 400).sort((a, b) => a - b);
    return answered[Math.floor(answered.length * 0.95)] ?? 400;
  });
  await page.goto(`${base}/log`);
  await page.getByRole('heading', { name: /tr(y|ies)$/ }).waitFor();
  await page.waitForTimeout(1500);
  await page.goto(`${base}/shelf`);
  await strips();
  await page.waitForTimeout(800);
  await line(`Log of the phrase with ${size.ofOne} tries`, 400, async () => {
    const began = performance.now();
    await page.evaluate(() => {
      history.pushState({}, '', '/log?phrase=p0');
      dispatchEvent(new PopStateEvent('popstate', { state: {} }));
    });
    await page.getByRole('heading', { name: `${size.ofOne} tries` }).waitFor();
    return performance.now() - began;
  });
  await line(`a chart of all ${size.tries} tries`, 150, async () => {
    const chip = page.getByRole('button', { name: 'What did I practise?' });
    return pressed(
      await chip.elementHandle(),
      'ls-chart svg[aria-label*="seven days"], ls-chart svg[aria-label*=" min"]',
    );
  });
  await page.getByRole('button', { name: 'Am I getting there?' }).click();
  await page.locator('ls-tries-table tbody tr').first().waitFor();
  // Three seconds of scrolling, a line or so in each frame: the worst frame stands for 60 frames a second.
  await line('95 of 100 frames while the table of tries scrolls', 17.5, async () =>
    page.evaluate(async () => {
      const box = document.querySelector('ls-tries-table .p-virtualscroller');
      const frames = [];
      let before = 0;
      await new Promise((done) => {
        const step = (now) => {
          if (before) frames.push(now - before);
          before = now;
          box.scrollTop += 50;
          if (frames.length < 180) requestAnimationFrame(step);
          else done();
        };
        requestAnimationFrame(step);
      });
      return frames.sort((a, b) => a - b)[Math.floor(frames.length * 0.95)];
    }),
  );
  await page.goto(`${base}/shelf`);
  await strips();
  await page.waitForTimeout(800);
  await line('drill set-up', 400, async () => {
    return pressed(await page.locator('ls-strip .drill').first().elementHandle(), 'ls-drill-setup');
  });
  await page.goto(`${base}/shelf`);
  await strips();
  await page.waitForTimeout(800);
  await line('open a phrase', 200, async () => {
    return pressed(await page.locator('ls-strip .name').nth(2).elementHandle(), 'ls-findings h2');
  });
  await page.waitForTimeout(800);
  await page.keyboard.press('ArrowUp');
  await line('keep a phrase', 200, async () => {
    await page.keyboard.press('k');
    const dialog = page.getByRole('dialog', { name: 'Keep it' });
    await dialog.waitFor();
    // The dialog comes in over some frames; what is measured begins with the key that keeps.
    await page.waitForTimeout(400);
    const began = performance.now();
    await page.keyboard.press('Enter');
    await page.getByText('is on the shelf').waitFor();
    return performance.now() - began;
  });
  await page.goto(`${base}/kit?part=data`);
  await page.getByRole('heading', { name: 'My data' }).waitFor();
  await line('export', 3000, async () => {
    const began = performance.now();
    const saved = page.waitForEvent('download', { timeout: 60_000 });
    await page.getByRole('button', { name: 'Export the shelf' }).click();
    await saved;
    return performance.now() - began;
  });
  await page.goto(`${base}/lessons`);
  await page.getByRole('heading', { name: 'To give' }).waitFor();
  await line('the place of the lessons', 400, async () => {
    await page.goto(`${base}/shelf`);
    await strips();
    await page.waitForTimeout(1500);
    const began = performance.now();
    await page.keyboard.press('0');
    await page.getByRole('heading', { name: 'To give' }).waitFor();
    return performance.now() - began;
  });
  await line(`${size.lessons} reports beside each other`, 600, async () =>
    pressed(await page.locator('a[href$="give=l0"]').elementHandle(), 'ls-beside tbody tr'),
  );
  // The folder is one of the browser's own; what is written and read is the same.
  await page.addInitScript(() => {
    window.showDirectoryPicker = async () =>
      (await navigator.storage.getDirectory()).getDirectoryHandle('Harbour', { create: true });
    FileSystemDirectoryHandle.prototype.queryPermission = async () => 'granted';
  });
  await page.goto(`${base}/kit?part=data`);
  await line('a folder is chosen and written', 8000, async () => {
    await page.getByRole('button', { name: 'Choose a folder' }).last().click();
    const began = performance.now();
    await page.getByRole('button', { name: 'Use this folder' }).click();
    await page
      .getByText(/days beside it\. Written/)
      .first()
      .waitFor({ timeout: 60_000 });
    return performance.now() - began;
  });
  // Another tab of the same browser changes something and writes it, while this one is drilled: what is written is
  // made beside either page, and this one's frames are counted for as long as that takes.
  const second = await context.newPage();
  await second.goto(`${base}/kit?part=data`);
  await second.getByRole('button', { name: 'Write it now' }).waitFor();
  await page.bringToFront();
  await page.goto(`${base}/drill/p1`);
  await page.getByRole('button', { name: /^Start/ }).click();
  await page.waitForTimeout(3000);
  await line('95 of 100 frames of a drill while the folder is written', 20, async () => {
    const at = () => page.evaluate(() => localStorage.getItem('loop-shelf-folder loop-shelf'));
    const before = await at();
    await page.evaluate(() => {
      window.frames = [];
      let last = performance.now();
      const step = (now) => {
        window.frames.push(now - last);
        last = now;
        window.counting = requestAnimationFrame(step);
      };
      window.counting = requestAnimationFrame(step);
    });
    await second.evaluate(() => {
      const named = (words) => [...document.querySelectorAll('button')].find((b) => b.textContent.trim() === words);
      named('1 trip let').click();
      setTimeout(() => named('Write it now').click(), 300);
    });
    const until = performance.now() + 60_000;
    while ((await at()) === before && performance.now() < until) await page.waitForTimeout(250);
    const frames = await page.evaluate(() => {
      cancelAnimationFrame(window.counting);
      return window.frames.sort((a, b) => a - b);
    });
    const wrote = (await at()) !== before;
    console.log(`  written: ${wrote}; ${frames.length} frames, the longest ${Math.round(frames.at(-1))} ms`);
    // Where nothing was written nothing was measured.
    return wrote ? frames[Math.floor(frames.length * 0.95)] : Infinity;
  });
  await second.close();
  await page.goto(`${base}/shelf`);
  await strips();
  await page.waitForTimeout(4000);
  const client = await context.newCDPSession(page);
  await client.send('HeapProfiler.collectGarbage');
  const { usedSize } = await client.send('Runtime.getHeapUsage');
  console.log(`heap of the page: ${Math.round(usedSize / 1024 / 1024)} MB (at most 120)`);
  const over = rows.filter((r) => r.ratio > 1 || r.longest > 50);
  console.log(over.length === 0 ? 'every line holds' : `over: ${over.map((r) => r.name).join('; ')}`);
} finally {
  for (const one of busy) one.kill();
  await context.close();
  server.kill();
  rmSync(folder, { recursive: true, force: true });
}
