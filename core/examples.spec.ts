// Docs run: every `expression // => value` in a docstring of core/ is evaluated, with all public names of core in scope.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as base from './base';
import * as drill from './drill';
import * as csv from './formats/csv';
import * as lessonFile from './formats/lesson';
import * as midi from './formats/midi';
import * as musicxml from './formats/musicxml';
import * as shared from './formats/shared';
import * as shelfFile from './formats/shelf-file';
import * as song from './formats/song';
import * as wav from './formats/wav';
import * as listen from './listen';
import * as lesson from './lesson';
import * as log from './log';
import * as pattern from './pattern';
import * as plan from './plan';
import * as playback from './playback';
import * as player from './player';
import * as rendition from './rendition';
import * as recipe from './recipe';
import * as kit from './kit';
import * as reach from './reach';
import * as selection from './selection';
import * as shelf from './shelf';
import * as sticking from './sticking';
import * as rudiments from './rudiments';
import * as score from './score';
import * as stroke from './stroke';
import * as take from './take';
import * as teaching from './teaching';
import * as time from './time';
import * as compose from './compose';
import * as shelfMap from './map';
import * as show from './show';
import * as usage from './usage';
import * as variants from './variants';
import * as language from './language';

const scope: Record<string, unknown> = {
  ...base,
  ...time,
  ...stroke,
  ...rudiments,
  ...pattern,
  ...selection,
  ...recipe,
  ...drill,
  ...playback,
  ...player,
  ...plan,
  ...log,
  ...lesson,
  ...teaching,
  ...lessonFile,
  ...rendition,
  ...csv,
  ...midi,
  ...musicxml,
  ...shared,
  ...shelfFile,
  ...song,
  ...wav,
  ...compose,
  ...shelfMap,
  ...show,
  ...usage,
  ...variants,
  ...listen,
  ...score,
  ...kit,
  ...reach,
  ...sticking,
  ...take,
  ...shelf,
  ...language,
};

interface Example {
  readonly file: string;
  readonly line: number;
  readonly code: string;
  readonly value: string;
}

function examples(): Example[] {
  return readdirSync(__dirname, { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.ts') && !f.endsWith('.spec.ts') && !f.includes('generated'))
    .flatMap((file) =>
      readFileSync(join(__dirname, file), 'utf8')
        .split('\n')
        .flatMap((text, i) => {
          const found = /^\s*\*\s(.+?) \/\/ => (.+)$/.exec(text);
          return found ? [{ file, line: i + 1, code: found[1] ?? '', value: found[2] ?? '' }] : [];
        }),
    );
}

function evaluate(code: string): unknown {
  // The examples are this repository's own text.
  // eslint-disable-next-line @typescript-eslint/no-implied-eval
  const run = new Function(...Object.keys(scope), `return (${code});`) as (...args: unknown[]) => unknown;
  return run(...Object.values(scope));
}

describe('examples in docstrings', () => {
  const all = examples();
  it('are there', () => expect(all.length).toBeGreaterThan(40));
  it.each(all.map((e) => [`${e.file}:${e.line} ${e.code}`, e] as const))('%s', (_, e) => {
    expect(JSON.parse(JSON.stringify(evaluate(e.code)))).toEqual(JSON.parse(JSON.stringify(evaluate(e.value))));
  });
});
