// Points a checker of sentences to the project's reader: bundles `core/language` and answers { offers, blame }.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { build } from 'esbuild';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

/** What a line of exports gives, bundled from the sources. */
export async function bundled(contents) {
  const outfile = join(mkdtempSync(join(tmpdir(), 'words-')), 'words.mjs');
  await build({
    stdin: { contents, resolveDir: root, loader: 'ts' },
    bundle: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    outfile,
    logLevel: 'error',
  });
  return import(pathToFileURL(outfile));
}

const { readLine } = await bundled(`export { readLine } from './core/language';`);

/** One function that reads a sentence for a phrase as it stands. */
export default function adapter() {
  return (sentence, built) => {
    const reading = readLine(sentence, built);
    switch (reading.kind) {
      case 'meant':
        return { offers: reading.all.map(({ words, moves }) => ({ words, moves })), blame: null };
      case 'playing':
        return { offers: [], blame: reading.words };
      default:
        return { offers: [], blame: reading.diagnostics.map((b) => b.words).join(' ') };
    }
  };
}
