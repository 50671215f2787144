// Script that the first load fetches before any place, gzipped: what index.html names and what those chunks import at
// once. At most 350 kB.
import { gzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';

const MOST_KB = 350;
const root = 'dist/web/browser/';
const html = readFileSync(`${root}index.html`, 'utf8');
const queue = [...html.matchAll(/(?:src|href)="([^"]+\.js)"/g)].map((m) => m[1]);
const seen = new Map();
while (queue.length > 0) {
  const file = queue.pop().replace(/^\.?\//, '');
  if (seen.has(file)) continue;
  const code = readFileSync(root + file, 'utf8');
  seen.set(file, gzipSync(code, { level: 9 }).length);
  for (const m of code.matchAll(/(?:^|[;}\s])(?:import|export)(?:[^'"()]*?from)?\s*["']\.\/([^"']+\.js)["']/g))
    queue.push(m[1]);
}
const kb = [...seen.values()].reduce((a, b) => a + b, 0) / 1024;
console.log(`first load: ${kb.toFixed(1)} kB of script gzipped in ${seen.size} files (at most ${MOST_KB})`);
if (seen.size < 2 || kb > MOST_KB) process.exit(1);
