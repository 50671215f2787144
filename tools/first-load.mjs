// Script that the first load fetches before any place, gzipped: what index.html names and what those chunks import at
// once.
import { gzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { importedAtOnce } from './shared.mjs';

// 350 are allowed, and it is about 200: a barrel that lists names has brought all of core along before, and nothing told.
const MOST_KB = 240;
const root = 'dist/web/browser';
const html = readFileSync(`${root}/index.html`, 'utf8');
const files = importedAtOnce(
  root,
  [...html.matchAll(/(?:src|href)="([^"]+\.js)"/g)].map((m) => m[1]),
);
const sizes = files.map((file) => gzipSync(readFileSync(`${root}/${file}`), { level: 9 }).length);
const kb = sizes.reduce((a, b) => a + b, 0) / 1024;
console.log(`first load: ${kb.toFixed(1)} kB of script gzipped in ${files.length} files (at most ${MOST_KB})`);
// The shell and what it is built on are among them, or nothing was measured.
if (files.length < 3 || kb < 50 || kb > MOST_KB) process.exit(1);
