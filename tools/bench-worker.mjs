// Stickings in the browser's own worker, as the Bench finds them, as ratios to the same search on the page's main
// thread in the same run.
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { ensureChromium, startServer } from './shared.mjs';

const port = 4393;
const base = `http://127.0.0.1:${port}`;

/** A file as the browser takes it. */
async function bundled(input) {
  const { outputFiles } = await build({
    ...input,
    bundle: true,
    write: false,
    minify: true,
    format: 'esm',
    target: 'es2022',
    tsconfig: 'tsconfig.server.json',
  });
  return outputFiles[0].text;
}

const page = `
  import { proxy, wrap } from 'comlink';
  import { limbed, stickings } from '@core/sticking';
  import { rhythm, wish } from './bench/rhythm';
  const timed = async (work) => { const from = performance.now(); await work(); return performance.now() - from; };
  const middle = (times) => times.sort((a, b) => a - b)[times.length >> 1];
  const find = async (remote, pattern) => {
    const { found } = await remote.find(pattern, wish, proxy(() => undefined));
    return found.map((s) => limbed(pattern, s.limbs));
  };
  window.measure = async (strokes) => {
    const pattern = rhythm(strokes);
    // The first search of a worker, its start included.
    const first = [];
    for (let i = 0; i < 7; i++) {
      let worker;
      first.push(await timed(() => { worker = new Worker('/bench-worker.js', { type: 'module' }); return find(wrap(worker), pattern); }));
      worker.terminate();
    }
    // The first search of a worker that stood ready, as the Bench has one from the moment a phrase lies on it.
    const ready = [];
    for (let i = 0; i < 7; i++) {
      const worker = new Worker('/bench-worker.js', { type: 'module' });
      await new Promise((done) => setTimeout(done, 2000));
      const remote = wrap(worker);
      ready.push(await timed(() => find(remote, pattern)));
      worker.terminate();
    }
    const worker = new Worker('/bench-worker.js', { type: 'module' });
    // One remote for the worker's life: one that is thrown away takes the worker's ear with it.
    const remote = wrap(worker);
    for (let i = 0; i < 3; i++) await find(remote, pattern);
    const warm = [];
    for (let i = 0; i < 9; i++) warm.push(await timed(() => find(remote, pattern)));
    worker.terminate();
    const here = [];
    for (let i = 0; i < 12; i++) here.push(await timed(() => stickings(pattern, wish)));
    return { first: middle(first), ready: middle(ready), warm: middle(warm), here: middle(here.slice(3)) };
  };`;

const files = {
  '/bench-page.js': await bundled({ stdin: { contents: page, resolveDir: process.cwd(), loader: 'ts' } }),
  '/bench-worker.js': await bundled({ entryPoints: ['app/places/bench/sheets/stickings/sticking.worker.ts'] }),
};
const server = await startServer(port);
const browser = await chromium.launch({ executablePath: ensureChromium(), args: ['--no-sandbox', '--disable-gpu'] });
try {
  const tab = await browser.newPage({ serviceWorkers: 'block' });
  for (const [path, body] of Object.entries(files))
    await tab.context().route(`${base}${path}`, (route) =>
      route.fulfill({
        body,
        contentType: 'text/javascript',
        headers: { 'Cross-Origin-Embedder-Policy': 'require-corp' },
      }),
    );
  await tab.goto(`${base}/healthz`);
  await tab.addScriptTag({ url: '/bench-page.js', type: 'module' });
  await tab.waitForFunction(() => 'measure' in window);
  console.log(
    '\nstickings in the worker: 20 best of all four schools (baseline: the same on the main thread, warm, same run)',
  );
  for (const strokes of [32, 128]) {
    const { first, ready, warm, here } = await tab.evaluate((n) => window.measure(n), strokes);
    console.log(
      `${strokes} strokes: main thread ${here.toFixed(0)} ms; in the worker ${warm.toFixed(0)} ms = ${(warm / here).toFixed(2)} ×; the first search of a worker that stood ready ${ready.toFixed(0)} ms = ${(ready / here).toFixed(2)} ×; of one that did not, its start included, ${first.toFixed(0)} ms = ${(first / here).toFixed(2)} ×`,
    );
  }
} finally {
  await browser.close();
  server.kill();
}
