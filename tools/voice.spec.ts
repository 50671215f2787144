// Every string a user may read is walked through: what the voice forbids, and how long a button, a hint and a message
// may be. The strings are read from the sources by the compilers themselves (strings.mjs).
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { forbiddenIn, wordsIn, wordsOfButton } from '../core/testing/voice';

interface Said {
  readonly file: string;
  readonly line: number;
  readonly kind: 'button' | 'text' | 'label' | 'script';
  readonly text: string;
}

const root = join(__dirname, '..');
const all = execFileSync('node', ['tools/strings.mjs'], { cwd: root, encoding: 'utf8', maxBuffer: 1 << 26 })
  .split('\n')
  .map((line) => JSON.parse(line) as Said);

/** Health notes keep their wording. */
const isCare = (text: string): boolean => /doctor or physiotherapist|headphones low|if anything hurts/.test(text);
/** What the player may type, and how it is read, is the player's language and not ours. */
const isInput = (file: string): boolean =>
  /^core\/(language\/(rules|lexicon|grammar|frames|replies\/page)|recipe\/examples)/.test(file);
/** Key combinations, codes of browsers, forms of dates: nobody reads them. */
const isCode = (text: string): boolean =>
  /^(Shift|Alt|Ctrl|Control|Arrow|Page)|Error$|HH:mm|^not a whole number of ticks/.test(text);

/** A place to drop a file and a way to choose are pressed as a whole, and say more than their name. */
const isCard = ({ file, text }: Said): boolean =>
  /listen\.component\.html$/.test(file) && /^(Drop a recording|WAV, MP3|too fast at)/.test(text);

const read = all.filter((s) => !isCode(s.text) && !isInput(s.file));
const where = (s: Said): string => `${s.file}:${s.line} ${s.text}`;

/** The guide and the README in lines, without what is typed and what is code. */
function proseLines(): readonly string[] {
  const guide = readdirSync(join(root, 'docs/guide')).map((f) => `docs/guide/${f}`);
  return [...guide, 'README.md'].flatMap((file) =>
    readFileSync(join(root, file), 'utf8')
      .replace(/```[^]*?```/g, '')
      .split('\n')
      .map((line) => line.replace(/`[^`]*`/g, '…')),
  );
}

describe('the guide and the README', () =>
  it('hold nothing that the voice forbids', () =>
    expect(proseLines().flatMap((line) => forbiddenIn(line).map((f) => `${line} ${f}`))).toEqual([])));

describe('every string a user reads', () => {
  it('is found: buttons, texts, labels and what is said from scripts', () => {
    for (const kind of ['button', 'text', 'label', 'script'] as const)
      expect(all.filter((s) => s.kind === kind).length).toBeGreaterThan(100);
    for (const known of ['Keep it', 'Type a sticking', 'Stick height', 'Everything is ….'])
      expect(all.map((s) => s.text)).toContain(known);
  });
  it('holds nothing that the voice forbids', () =>
    expect(read.flatMap((s) => forbiddenIn(s.text).map((f) => `${where(s)} ${f}`))).toEqual([]));
  it('is a button of four words at most', () =>
    expect(read.filter((s) => s.kind === 'button' && !isCard(s) && wordsOfButton(s.text) > 4).map(where)).toEqual([]));
  it('is a message of 25 words at most', () =>
    expect(
      read
        .filter((s) => /\.$/.test(s.text) && !isCare(s.text) && wordsIn(s.text) > 25)
        .map((s) => `${wordsIn(s.text)} ${where(s)}`),
    ).toEqual([]));
  it('is a button that is not a sentence', () => {
    expect(read.filter((s) => s.kind === 'button' && !isCard(s) && /[a-z]\.$/.test(s.text)).map(where)).toEqual([]);
  });
});
