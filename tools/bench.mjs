// Speed of the core as ratios to named baselines in the same run.
import { build } from 'esbuild';
import { readdirSync } from 'node:fs';
import { run } from './shared.mjs';

for (const file of readdirSync('bench').filter((f) => f.endsWith('.ts') && f !== 'measure.ts')) {
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
