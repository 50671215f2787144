// Speed of the core as ratios to named baselines in the same run.
import { build } from 'esbuild';
import { existsSync, readdirSync } from 'node:fs';
import { run } from './shared.mjs';

/** What the benches share, and no bench by itself. */
const SHARED = ['measure.ts', 'rhythm.ts'];

for (const file of readdirSync('bench').filter((f) => f.endsWith('.ts') && !SHARED.includes(f))) {
  const outfile = `dist/bench/${file.replace('.ts', '.mjs')}`;
  await build({
    entryPoints: [`bench/${file}`],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    tsconfig: 'tsconfig.server.json',
  });
  if (run('node', [outfile]) !== 0) process.exit(1);
}

// The worker, the sound, the frames and the shelf of full size are measured in a browser, on the built application; without a build there is
// nothing to measure.
if (existsSync('dist/web/browser/index.html') && existsSync('dist/server/main.mjs')) {
  run('node', ['tools/bench-worker.mjs']);
  run('node', ['tools/bench-sound.mjs']);
  run('node', ['tools/bench-frames.mjs']);
  run('node', ['tools/bench-shelf.mjs']);
} else console.log('\nworker, sound, frames and shelf: build first (npm run build)');
