// Builds the application: its scripts are merged into fewer, as each one fetched costs time; the page names what the
// shell is made of, so that it is fetched at once; and what is text is kept compressed beside itself, so that the server
// does not compress it for every visit.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { mergeScripts, startsOf } from './merge-scripts.mjs';
import { importedAtOnce, run } from './shared.mjs';

const ROOT = 'dist/web/browser';
/** Less is not worth a file of its own, in bytes. */
const LEAST = 1024;
/** Font families our texts are set in. */
const FAMILIES = 3;

const code = run('npx', ['ng', 'build', '--configuration', 'production']);
if (code !== 0) process.exit(code);
refuseChecksInPlaces();
await mergeScripts(ROOT);

// The first script asks for the shell only when it runs.
const { first, shell, places, checks } = startsOf(ROOT);
const links = importedAtOnce(ROOT, [shell]).map((name) => `<link rel="modulepreload" href="${name}" />`);
// What is written in every place. Where a font is not there yet, the browser stands still while it looks for another
// among the machine's.
const fonts = readdirSync(join(ROOT, 'media')).filter((name) => /-latin-wght-normal-.*\.woff2$/.test(name));
if (fonts.length !== FAMILIES) throw new Error(`there are ${fonts.length} fonts for our texts, not ${FAMILIES}`);
for (const name of fonts)
  links.push(`<link rel="preload" as="font" type="font/woff2" crossorigin href="media/${name}" />`);
// What each place is made of besides, by its path, and the checks of rows, which all of them need: known at once, and
// not found import by import while the page is busy.
const there = new Set(importedAtOnce(ROOT, [first, shell]));
const names = [];
const at = (name) => (names.includes(name) ? names.indexOf(name) : names.push(name) - 1);
const partsOf = (script) => importedAtOnce(ROOT, [script, checks]).filter((name) => !there.has(name));
const table = Object.fromEntries([...places].map(([path, script]) => [path, partsOf(script).map(at)]));
links.push(`<script type="application/json" id="parts">${JSON.stringify({ names, places: table })}</script>`);
const page = readFileSync(join(ROOT, 'index.html'), 'utf8');
const named = page.replace('</head>', `${links.join('')}</head>`);
if (named === page) throw new Error('the page has no head to name the shell in');
writeFileSync(join(ROOT, 'index.html'), named);
// What is kept for use without a network is told by its hash.
if (run('npx', ['ngsw-config', ROOT, 'ngsw-config.json']) !== 0) process.exit(1);

let files = 0;
for (const entry of readdirSync(ROOT, { recursive: true, withFileTypes: true })) {
  if (!entry.isFile() || !/\.(js|css|html|json|svg|webmanifest)$/.test(entry.name)) continue;
  const path = join(entry.parentPath, entry.name);
  const plain = readFileSync(path);
  if (plain.length < LEAST) continue;
  const params = { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: plain.length };
  writeFileSync(`${path}.br`, brotliCompressSync(plain, { params }));
  writeFileSync(`${path}.gz`, gzipSync(plain, { level: 9 }));
  files++;
}
console.log(`${files} files are kept compressed`);

/** No place may wait for the checks of rows. */
function refuseChecksInPlaces() {
  const { first, shell, places, checks } = startsOf(ROOT);
  const there = importedAtOnce(ROOT, [first, shell]);
  const length = (name) => statSync(join(ROOT, name)).size;
  const [longest] = importedAtOnce(ROOT, [checks])
    .filter((name) => !there.includes(name))
    .sort((a, b) => length(b) - length(a));
  for (const [path, script] of places)
    if (importedAtOnce(ROOT, [script]).includes(longest))
      throw new Error(`${path} waits for the checks of rows: import from a folder of core/formats, not from all of it`);
}
