// The page that walks a newcomer through adding things names files. They exist, and they are all there are: a thing of
// each kind is looked for in the sources, and every file that knows it must stand on the page.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const root = join(__dirname, '..');
const read = (file: string): string => readFileSync(join(root, file), 'utf8');

/** The files named under each heading of the page. */
const sections = new Map(
  read('docs/adding.md')
    .split(/^## /m)
    .slice(1)
    .map((part): [string, string[]] => [
      part.slice(0, part.indexOf('\n')),
      [...part.matchAll(/`([\w./-]+\/[\w./-]+\.\w+|\.dependency-cruiser\.cjs)`/g)].map((m) => m[1] ?? ''),
    ]),
);

const sources = ['app', 'core', 'tools', 'server', 'schema']
  .flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' }).map((f) => `${folder}/${f}`),
  )
  .concat('.dependency-cruiser.cjs')
  .filter((f) => /\.(ts|mjs|cjs|html)$/.test(f) && !/\.spec\.ts$|generated|testing\/(?!arbitraries)/.test(f));

/** Code without its comments. */
const code = (file: string): string =>
  read(file)
    .replace(/\/\*[\s\S]*?\*\//g, '')
    .replace(/^\s*\/\/.*$/gm, '');

/** Files whose code speaks of a thing, but for those that use it as anyone may. */
function knowing(pattern: RegExp, using: RegExp = /^$/): string[] {
  return sources.filter((f) => {
    const lines = code(f)
      .split('\n')
      .filter((line) => pattern.test(line) && !using.test(line));
    return lines.length > 0;
  });
}

describe('the page of adding', () => {
  it('has the kinds', () =>
    expect([...sections.keys()]).toEqual([
      'A voice',
      'A move',
      'A place',
      'A page of the guide',
      'A word of ours',
      'A folder of `app`',
      'A file format',
    ]));
  it.each([...sections])('%s: every file it names is there', (_, files) => {
    expect(files.length).toBeGreaterThan(1);
    expect(files.filter((f) => !existsSync(join(root, f)))).toEqual([]);
  });
  // A sample of each kind that is rarely used by name, and what it looks like where it is only used.
  it.each([
    ['A voice', /['"]cross-stick['"]/, /^$/],
    [
      'A move',
      /\bmirror\b(?!\()|MirrorEditor/,
      /mirror\(|of another or a mirror|a turn or a mirror|offerOf\('mirror'.*words|take\(offerOf|yield |kits|mirror\(\): void|const mirror = |\$\{mirror\}/,
    ],
    ['A place', /['"]\/?log['"]|[/]log\.component'/, /routerLink|routes|navigate|templateUrl|styleUrl|class="log"/],
    ['A page of the guide', /['"]files-and-devices['"]/, /ls-guide-link/],
    ['A word of ours', /\btrail: \{$/, /^$/],
    ['A file format', /shelf-file['/.]/, /from '@core|import\('@core|generated\/validators/],
  ] as const)('%s: it names every file that knows one', (kind, sample, using) => {
    const named = sections.get(kind) ?? [];
    expect(knowing(sample, using).filter((f) => !named.includes(f))).toEqual([]);
  });
});
