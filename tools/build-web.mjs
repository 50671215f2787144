// Builds the application: small chunks are merged, as each one fetched costs time; the page names what the shell is made
// of, so that it is fetched at once; and what is text is kept compressed beside itself, so that the server does not
// compress it for every visit.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { importedAtOnce, run } from './shared.mjs';

const ROOT = 'dist/web/browser';
/** Less is not worth a file of its own, in bytes. */
const LEAST = 1024;
/** Font families our texts are set in. */
const FAMILIES = 3;

const code = run('npx', ['ng', 'build', '--configuration', 'production'], { NG_BUILD_OPTIMIZE_CHUNKS: '1' });
if (code !== 0) process.exit(code);

const text = (name) => readFileSync(join(ROOT, name), 'utf8');
const scripts = readdirSync(ROOT).filter((name) => name.endsWith('.js'));

// The first script asks for the shell only when it runs.
const shell = scripts.filter((name) => /selectors:\[\[["'`]ls-shell["'`]\]\]/.test(text(name)));
if (shell.length !== 1) throw new Error(`the shell is in ${shell.length} scripts, not in one`);
const page = text('index.html');
const links = importedAtOnce(ROOT, shell).map((name) => `<link rel="modulepreload" href="${name}" />`);
// What is written in every place. Where a font is not there yet, the browser stands still while it looks for another
// among the machine's.
const fonts = readdirSync(join(ROOT, 'media')).filter((name) => /-latin-wght-normal-.*\.woff2$/.test(name));
if (fonts.length !== FAMILIES) throw new Error(`there are ${fonts.length} fonts for our texts, not ${FAMILIES}`);
for (const name of fonts)
  links.push(`<link rel="preload" as="font" type="font/woff2" crossorigin href="media/${name}" />`);
// What each place is made of besides, by its path, and the checks of rows, which all of them need: known at once, and
// not found import by import while the page is busy.
const inShell = new Set(importedAtOnce(ROOT, shell));
const first = [...inShell, ...scripts.filter((name) => name.startsWith('main-'))];
const found = (pattern) => first.flatMap((name) => [...text(name).matchAll(pattern)].map((m) => m.slice(1)));
const places = found(/path:["'`](\w+)["'`],name:[^{}]*?load:\(\)=>import\(["'`]\.\/([^"'`]+)["'`]\)/g);
const rules = found(/import\(["'`]\.\/(chunk-[^"'`]+)["'`]\)\.then\(\(\{RULES:/g).flat();
if (places.length === 0 || rules.length === 0) throw new Error('no script names the places, or the checks of rows');
const sized = (name) => text(name).length;
const [checks] = importedAtOnce(ROOT, rules).sort((a, b) => sized(b) - sized(a));
for (const [path, script] of places)
  if (importedAtOnce(ROOT, [script]).includes(checks))
    throw new Error(`${path} waits for the checks of rows: import from a folder of core/formats, not from all of it`);
const names = [];
const at = (name) => (names.includes(name) ? names.indexOf(name) : names.push(name) - 1);
const partsOf = (script) => importedAtOnce(ROOT, [script, ...rules]).filter((name) => !inShell.has(name));
const table = Object.fromEntries(places.map(([path, script]) => [path, partsOf(script).map(at)]));
links.push(`<script type="application/json" id="parts">${JSON.stringify({ names, places: table })}</script>`);
const named = page.replace('</head>', `${links.join('')}</head>`);
if (named === page) throw new Error('the page has no head to name the shell in');
writeFileSync(join(ROOT, 'index.html'), named);
// What is kept for use without a network is told by its hash.
const sha1 = (content) => createHash('sha1').update(content).digest('hex');
const kept = text('ngsw.json');
if (!kept.includes(sha1(page))) throw new Error('the page is not among what is kept for use without a network');
writeFileSync(join(ROOT, 'ngsw.json'), kept.replace(sha1(page), sha1(named)));

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
