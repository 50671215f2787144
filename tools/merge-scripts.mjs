// Merges the scripts that the bundler wrote, one for each set of places that share something, into fewer files: each
// file costs a browser time of its own.
import { build } from 'esbuild';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { rolldown } from 'rolldown';
import { importedAtOnce, importsOf } from './shared.mjs';

const GROUPS = 'dist/tools/script-groups.mjs';

/** What of a build others start from: its first script, the shell, the places by their paths, the checks of rows. */
export function startsOf(root) {
  const text = (name) => readFileSync(join(root, name), 'utf8');
  const names = readdirSync(root).filter((name) => name.endsWith('.js'));
  const one = (what, found) => {
    if (found.length !== 1) throw new Error(`${what} is in ${found.length} scripts, not in one`);
    return found[0];
  };
  const first = one(
    'what a page begins with',
    names.filter((name) => name.startsWith('main-')),
  );
  const shell = one(
    'the shell',
    names.filter((name) => /selectors:\[\[["'`]ls-shell["'`]\]\]/.test(text(name))),
  );
  const always = importedAtOnce(root, [first, shell]).map(text);
  const found = (pattern) => always.flatMap((t) => [...t.matchAll(pattern)].map((m) => m.slice(1)));
  const places = found(/path:["'`](\w+)["'`],name:[^{}]*?load:\(\)=>import\(["'`]\.\/([^"'`]+)["'`]\)/g);
  const checks = found(/import\(["'`]\.\/([^"'`]+)["'`]\)(?:\.then\(\w+=>\w+\.\w+\))?\.then\(\(\{RULES:/g);
  if (places.length === 0) throw new Error('no script names the places');
  return { first, shell, places: new Map(places), checks: one('the checks of rows', checks)[0] };
}

/** What the first script asks for besides the places and the shell. */
function frameworkOf(root, { first, shell, places }) {
  const scenes = new Set(places.values());
  const asked = importedAtOnce(root, [first])
    .flatMap((name) => [...readFileSync(join(root, name), 'utf8').matchAll(/import\(["'`]\.\/([^"'`]+)["'`]\)/g)])
    .map((m) => m[1])
    .filter((name) => !scenes.has(name) && !importedAtOnce(root, [name]).includes(shell));
  if (asked.length !== 1) throw new Error(`the framework is in ${asked.length} scripts, not in one`);
  return asked[0];
}

/** Merges the scripts of a build in its folder; its page names what it has become. */
export async function mergeScripts(root) {
  await build({ entryPoints: ['tools/script-groups.ts'], outfile: GROUPS, platform: 'node', format: 'esm' });
  const { scriptGroups } = await import(`../${GROUPS}`);
  const names = readdirSync(root).filter((name) => name.endsWith('.js'));
  const code = new Map(names.map((name) => [name, readFileSync(join(root, name), 'utf8')]));
  const starts = startsOf(root);
  const groups = scriptGroups(
    new Map([...code].map(([name, text]) => [name, { size: text.length, imports: importsOf(text) }])),
    { ...starts, framework: frameworkOf(root, starts), checks: [starts.checks], places: [...starts.places.values()] },
  );

  const merged = new Set();
  const bundle = await rolldown({
    input: starts.first,
    preserveEntrySignatures: 'allow-extension',
    plugins: [
      {
        name: 'built-scripts',
        resolveId: (source) => (code.has(source.replace(/^\.\//, '')) ? source.replace(/^\.\//, '') : false),
        load(name) {
          merged.add(name);
          return { code: code.get(name) };
        },
      },
    ],
  });
  const { output } = await bundle.generate({
    minify: { mangle: false, compress: false },
    entryFileNames: 'main-[hash].js',
    chunkFileNames: 'chunk-[hash].js',
    codeSplitting: { includeDependenciesRecursively: false, groups: [{ name: (name) => groups.get(name) ?? null }] },
  });
  await bundle.close();
  for (const name of merged) rmSync(join(root, name));
  for (const { fileName, code: text } of output) writeFileSync(join(root, fileName), text);
  const page = readFileSync(join(root, 'index.html'), 'utf8');
  const bare = page.replace(/<link rel="modulepreload"[^>]*>/g, '');
  writeFileSync(join(root, 'index.html'), bare.replace(starts.first, output.find((o) => o.isEntry).fileName));
  console.log(`${merged.size} scripts are merged into ${output.length}`);
}
