// Writes what is derived from the sources: the published JSON Schema, validators compiled ahead of time (the page's
// policy forbids eval), the style sheet of the library's components, and the demo shelf.
import Ajv from 'ajv';
import standaloneCode from 'ajv/dist/standalone/index.js';
import { build } from 'esbuild';
import { copyFile, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { floorsPicture } from './floors.mjs';
import { guideModule, readGuide } from './guide.mjs';
import { importedParts, librarySheet } from './library-styles.mjs';

const root = new URL('..', import.meta.url);
const path = (name) => fileURLToPath(new URL(name, root));

/** A TypeScript module of this repository, bundled and run. */
async function load(file) {
  const bundled = await build({
    entryPoints: [path(file)],
    bundle: true,
    write: false,
    format: 'esm',
    platform: 'node',
    tsconfig: path('tsconfig.server.json'),
  });
  return import(`data:text/javascript;base64,${Buffer.from(bundled.outputFiles[0].contents).toString('base64')}`);
}

/** Writes a committed file that is derived; on CI it must be there already, to the letter. */
async function writeDerived(file, text) {
  if ((await readFile(path(file), 'utf8').catch(() => '')) === text) return;
  if (process.env.CI) throw new Error(`${file} is not up to date: run npm run gen and commit it`);
  await writeFile(path(file), text);
}

const { VALIDATED, PUBLISHED, PARTS } = await load('core/formats/shelf-file/schema.ts');
// Plain JSON: TypeBox keeps symbols on its schemas. `plain` says everything in place; `named` refers to the other named
// schemas instead.
const plain = Object.fromEntries(
  Object.entries({ ...PUBLISHED, ...VALIDATED, ...PARTS }).map(([name, schema]) => [
    name,
    { ...JSON.parse(JSON.stringify(schema)), $id: undefined },
  ]),
);
const nameOf = new Map(Object.entries(plain).map(([name, schema]) => [JSON.stringify(schema), name]));
const referring = (value) => {
  if (Array.isArray(value)) return value.map(referring);
  if (typeof value !== 'object' || value === null) return value;
  const name = nameOf.get(JSON.stringify({ ...value, $id: undefined }));
  return name ? { $ref: name } : inside(value);
};
const inside = (schema) => Object.fromEntries(Object.entries(schema).map(([key, value]) => [key, referring(value)]));
const named = Object.fromEntries(
  Object.entries(plain).map(([name, schema]) => [name, { ...inside(schema), $id: name }]),
);

const withDefinitions = (value) =>
  JSON.parse(JSON.stringify(value).replace(/"\$ref":"(\w+)"/g, '"$ref":"#/definitions/$1"'));
const nameless = Object.fromEntries(
  Object.entries(named).map(([name, schema]) => [name, { ...schema, $id: undefined }]),
);
/** The named schemas that one refers to, and those that these refer to. */
const referredBy = (name, found = new Set()) => {
  for (const [, other] of JSON.stringify(nameless[name]).matchAll(/"\$ref":"(\w+)"/g))
    if (!found.has(other)) referredBy(other, found.add(other));
  return found;
};
for (const [name, file] of [
  ['ShelfFile', 'shelf-file'],
  ['Lesson', 'lesson'],
  ['Report', 'report'],
]) {
  const { [name]: own, ...parts } = nameless;
  // The whole shelf tells of all that a browser keeps, the others of what is in them.
  const refers = name === 'ShelfFile' ? Object.keys(parts) : [...referredBy(name)].sort();
  const published = {
    $schema: 'http://json-schema.org/draft-07/schema#',
    $id: `${file}.schema.json`,
    ...withDefinitions(own),
    definitions: withDefinitions(Object.fromEntries(refers.map((n) => [n, parts[n]]))),
  };
  await writeDerived(
    `schema/${file}.schema.json`,
    `${JSON.stringify({ ...published, $id: `${file}.schema.json` }, null, 2)}\n`,
  );
}

const names = Object.keys(VALIDATED);
const ajv = new Ajv.default({
  schemas: Object.entries(named).flatMap(([name, schema]) => (name in PUBLISHED ? [] : [schema])),
  discriminator: true,
  allErrors: false,
  inlineRefs: false,
  code: { source: true, esm: true },
});
// Of an error we say where it is and what must be; the rest would be a third of the code.
const checks = standaloneCode
  .default(ajv, Object.fromEntries(names.map((n) => [`validate${n}`, n])))
  .replace(/,schemaPath:"(?:[^"\\]|\\.)*"/g, '')
  .replace(/,params:\{(?:[^{}"]|"(?:[^"\\]|\\.)*")*\}/g, '');
const out = path('core/formats/shelf-file/generated/');
await mkdir(out, { recursive: true });
await build({
  stdin: {
    contents: "export * from 'virtual:ajv';",
    resolveDir: path('.'),
  },
  plugins: [
    {
      name: 'ajv-virtual',
      setup(b) {
        b.onResolve({ filter: /^virtual:ajv$/ }, () => ({ path: 'ajv.mjs', namespace: 'ajv' }));
        b.onLoad({ filter: /.*/, namespace: 'ajv' }, () => ({ contents: checks, loader: 'js', resolveDir: path('.') }));
      },
    },
  ],
  bundle: true,
  format: 'esm',
  platform: 'neutral',
  mainFields: ['main'],
  target: 'es2022',
  legalComments: 'none',
  minify: true,
  banner: { js: '/* generated by tools/generate.mjs - do not edit */\n/* eslint-disable */' },
  outfile: `${out}validators.js`,
});
const types = {
  ...Object.fromEntries(['TabDraft', 'Unkept', 'Settings', 'RoomHabits', 'Backup'].map((n) => [n, '../schema'])),
  ...Object.fromEntries(['KeptState', 'Removal', 'Board', 'Named'].map((n) => [n, '../../../shelf'])),
  TriesPage: '../../../drill',
  Loudness: '../../../playback',
  Kits: '../../../kit',
  Profile: '../../../reach',
  ...Object.fromEntries(['Lesson', 'Report', 'KeptLesson'].map((n) => [n, '../../../lesson'])),
  Phrase: '../../../recipe',
  Attempt: '../../../drill',
  DrillState: '../../../drill',
  Take: '../../../take',
};
// A take is called a kept take where it is used, apart from one that is being played.
const typeOf = (name) => (name === 'Take' ? 'KeptTake as Take' : name);
/** Those that have no name of their own in the sources. */
const given = {
  MidiMap: 'Readonly<Record<string, Voice>>',
  MicLevels: '{ readonly threshold: number; readonly loudest: number }',
  Latency: 'Readonly<Record<string, number>>',
  LatencyAt: 'Readonly<Record<string, number>>',
};
await writeFile(
  `${out}validators.d.ts`,
  `/* generated by tools/generate.mjs - do not edit */
import type { Voice } from '../../../stroke';
${names
  .filter((n) => types[n])
  .map((n) => `import type { ${typeOf(n)} } from '${types[n]}';`)
  .join('\n')}
export interface ValidationError { instancePath: string; keyword: string; message?: string }
export interface Validator<T> { (data: unknown): data is T; errors?: ValidationError[] | null }
${names.map((n) => `export declare const validate${n}: Validator<${given[n] ?? n}>;`).join('\n')}
`,
);
const code = await readFile(`${out}validators.js`, 'utf8');
if (/new Function|\beval\(/.test(code) || /^\s*import /m.test(code))
  throw new Error('validators are not self-contained');
console.log(`validators: ${Math.round(code.length / 1024)} kB`);

const { THEME } = await load('app/start/preset.ts');
await mkdir(path('app/start/generated'), { recursive: true });
const sheet = await librarySheet(THEME, importedParts(path('app')));
await writeFile(
  path('app/start/generated/library.css'),
  `/* generated by tools/generate.mjs - do not edit */\n${sheet}`,
);
console.log(`style sheet of the library: ${Math.round(sheet.length / 1024)} kB`);

const { saltLantern } = await load('demo/salt-lantern.ts');
await writeDerived('demo/salt-lantern.json', saltLantern());

const { movesPage } = await load('core/recipe/moves-page.ts');
await writeDerived('docs/moves.md', movesPage());

const { wordsPage } = await load('core/language/replies/page.ts');
await writeDerived('docs/guide/what-you-can-say.md', wordsPage());

const guide = readGuide();
await mkdir(path('app/guide/generated'), { recursive: true });
await writeFile(path('app/guide/generated/book.ts'), guideModule(guide));
await rm(path('public/guide'), { recursive: true, force: true });
await mkdir(path('public/guide'), { recursive: true });
for (const name of guide.pictures) await copyFile(path(`docs/screenshots/${name}`), path(`public/guide/${name}`));

await writeDerived('docs/floors.svg', floorsPicture());

// The audio worklet is a file of its own: the application's bundler makes workers, not worklets.
await build({
  entryPoints: [path('app/hits/onset.worklet.ts')],
  outfile: path('public/worklets/onset.js'),
  bundle: true,
  format: 'esm',
  target: 'es2022',
  minify: true,
  legalComments: 'none',
  tsconfig: path('tsconfig.worklet.json'),
});
