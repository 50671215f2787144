import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { anyAttempt, anyDrill, anyPhrase } from '../../testing/arbitraries';
import { EMPTY_SHELF, SHELF_LIMITS, stateOf, type ShelfContents } from '../../shelf';
import { FILE_LISTS, readShelf, RULES, SHELF_VERSION, ShelfLines, shiftedShelf, tooLarge, writeShelf } from '.';

const unique = <T extends { id: string }>(one: fc.Arbitrary<T>, maxLength: number) =>
  fc.uniqueArray(one, { selector: (x) => x.id, maxLength });
const json = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
/** Everything a shelf may hold, drills and tries of phrases that are gone among it. */
const anyShelf: fc.Arbitrary<ShelfContents> = fc
  .record({
    phrases: unique(anyPhrase, 4),
    attempts: unique(anyAttempt, 6),
    drills: unique(anyDrill, 2),
    removed: unique(anyPhrase, 2),
    before: unique(anyPhrase, 3),
    tags: fc.uniqueArray(fc.constantFrom('brushes', 'show', 'a-b'), { maxLength: 3 }),
    others: fc.dictionary(fc.constantFrom('later', 'map', 'x y'), fc.jsonValue({ maxDepth: 2 }), { maxKeys: 2 }),
  })
  .map(({ phrases, attempts, drills, removed, before, tags, others }) =>
    json({
      ...EMPTY_SHELF,
      phrases: phrases.map((p, i) => (i === 0 ? { ...p, tags, mood: 'foggy' } : p)),
      attempts,
      drills,
      takes: attempts
        .slice(0, 1)
        .map((a) => ({ id: a.id, phrase: a.phrase, at: a.at, bpm: a.bpm, stage: null, hits: [] })),
      removals: removed.map((phrase, i) => ({ id: phrase.id, at: phrase.changed, phrase: i === 0 ? phrase : null })),
      states: before.map(stateOf),
      boards: phrases.slice(0, 2).map((p, i) => ({
        id: p.id,
        name: 'A board',
        question: i === 0 ? 'half bar' : null,
        phrases: [p.id],
        place: i,
        changed: 5,
      })),
      named: [
        { key: 'settings', value: { theme: 'dark', triplets: 'and-a', sextuplets: 'ta-la' }, stamps: { theme: 9 } },
        { key: 'of a later version', value: [1, { x: null }] },
      ],
      others,
    }),
  );
const sorted = <T extends object>(list: readonly T[]): T[] => {
  const key = (x: T): string => String(Object.entries(x).find(([k]) => k === 'id' || k === 'key')?.[1]);
  return [...list].sort((a, b) => (key(a) < key(b) ? -1 : 1));
};
const [sampled] = fc
  .sample(anyShelf, { numRuns: 40, seed: 7 })
  .filter((s) => s.phrases.length > 0 && s.attempts.length > 0 && s.drills.length > 0);
const sample = (): ShelfContents => sampled!;
/** A file of version 1, as an editor may set it. */
const file1 = () =>
  json({
    format: 'loop-shelf',
    version: 1,
    ...part(sample(), 'phrases'),
    ...part(sample(), 'attempts'),
    ...part(sample(), 'drills'),
  });
const part = (shelf: ShelfContents, name: 'phrases' | 'attempts' | 'drills') =>
  ({ [name]: shelf[name] }) as Record<string, never>;
type File1 = ReturnType<typeof file1> & { phrases: { recipe: object }[]; attempts: { at: number }[]; drills: object[] };
const firstProblem = (text: string) => {
  const read = readShelf(text);
  return read.ok ? null : read.problems[0];
};

describe('the shelf file', () => {
  it('what is written is read back the same, all of it, in whatever pieces it comes', () => {
    fc.assert(
      fc.property(anyShelf, fc.integer({ min: 1, max: 400 }), (shelf, piece) => {
        const text = writeShelf(shelf);
        const lines = new ShelfLines();
        for (let at = 0; at < text.length; at += piece) lines.push(text.slice(at, at + piece));
        for (const read of [readShelf(text), lines.end()]) {
          expect(read?.ok ? null : read?.problems).toBeNull();
          if (!read?.ok) return;
          for (const name of FILE_LISTS) expect(read.value.contents[name]).toEqual(sorted<object>(shelf[name]));
          expect(read.value.contents.others).toEqual(shelf.others);
          expect(read.value.file).toBe('as written');
        }
      }),
      { numRuns: 60 },
    );
  });

  it('is plain JSON, and set anew by an editor it reads the same', () => {
    const text = writeShelf(sample());
    const other = JSON.stringify(JSON.parse(text), null, 2);
    const [a, b] = [readShelf(text), readShelf(other)];
    expect(a.ok && b.ok && [b.value.contents, b.value.file]).toEqual([a.ok && a.value.contents, 'changed']);
  });

  it('a changed letter is noticed by the sum, where the file can still be read', () => {
    const text = writeShelf(sample());
    const read = readShelf(text.replace('"A board"', '"B board"'));
    expect(read.ok && read.value.file).toBe('changed');
  });

  it('version 1 is still read, with its settings', () => {
    const read = readShelf(readFileSync(join(__dirname, '../../testing/shelves/version-1.json'), 'utf8'));
    expect(
      read.ok && [read.value.contents.phrases.length, read.value.contents.attempts.length, read.value.file],
    ).toEqual([4, 30, 'unknown']);
    expect(read.ok && read.value.contents.named).toEqual([
      { key: 'settings', value: { theme: 'dark', triplets: 'and-a', sextuplets: 'ta-la' } },
    ]);
  });

  it('fields it does not know survive', () => {
    const { phrases, ...file } = file1() as File1;
    const read = readShelf(
      JSON.stringify({ ...file, later: 1, phrases: phrases.map((p) => ({ ...p, mood: 'foggy' })) }),
    );
    expect(read.ok && read.value.contents.phrases.every((p) => 'mood' in p)).toBe(true);
    expect(read.ok && read.value.contents.others).toEqual({ later: 1 });
  });

  it('at every size that is allowed it is read, and one beyond is refused', () => {
    const [one] = sample().attempts;
    const many = (n: number): string =>
      writeShelf({ attempts: Array.from({ length: n }, (_, i) => ({ ...one!, id: `t${i}` })) });
    const full = readShelf(many(SHELF_LIMITS.attempts));
    expect(full.ok && full.value.contents.attempts.length).toBe(SHELF_LIMITS.attempts);
    expect(firstProblem(many(SHELF_LIMITS.attempts + 1))?.message).toBe(
      'This file holds 200001 log entries; a shelf holds at most 200000.',
    );
    const phrase = { ...sample().phrases[0]!, name: 'n'.repeat(10_000), note: 'x'.repeat(10_000) };
    const longest = readShelf(
      writeShelf({ phrases: Array.from({ length: 500 }, (_, i) => ({ ...phrase, id: `p${i}` })) }),
    );
    expect(longest.ok && longest.value.contents.phrases.length).toBe(500);
  });

  it('every beginning of a file is refused in words', () => {
    const text = writeShelf(sample()).trimEnd();
    for (let n = 0; n < text.length; n += 7) {
      const problem = firstProblem(text.slice(0, n));
      expect(problem?.code).toMatch(/cut-off|not-json/);
      expect(problem?.message).toMatch(/\w{3}/);
    }
  });

  it('a changed letter anywhere is refused or read as what it now says, never an exception', () => {
    const text = writeShelf(sample());
    fc.assert(
      fc.property(fc.nat(text.length - 1), fc.constantFrom('"', '{', '0', '-', 'x', '\\', ' '), (i, letter) => {
        const read = readShelf(text.slice(0, i) + letter + text.slice(i + 1));
        expect(read.ok || read.problems[0].message.length > 10).toBe(true);
      }),
      { numRuns: 400 },
    );
  });

  const damaged = (change: (file: File1) => unknown): string => JSON.stringify(change(file1() as File1));
  it.each<[string, string, string, RegExp]>([
    ['not JSON', 'hello', 'not-json', /cannot be read as JSON/],
    ['a list', '[]', 'not-a-shelf', /does not say/],
    ['null', 'null', 'not-a-shelf', /does not say/],
    ['another format', '{"format":"x"}', 'not-a-shelf', /does not say/],
    ['a newer version', damaged((f) => ({ ...f, version: 5 })), 'newer', /version 5/],
    ['no phrases', damaged((f) => ({ ...f, phrases: undefined })), 'wrong-part', /phrases/],
    [
      'a tempo of 1000',
      damaged((f) => ({ ...f, phrases: f.phrases.map((p) => ({ ...p, tempo: 1000 })) })),
      'wrong-part',
      /phrase 1, tempo/,
    ],
    [
      'a name that is a number',
      damaged((f) => ({ ...f, phrases: f.phrases.map((p) => ({ ...p, name: 5 })) })),
      'wrong-part',
      /phrase 1, name: must be string/,
    ],
    [
      'an unknown move',
      damaged((f) => ({
        ...f,
        phrases: f.phrases.map((p) => ({
          ...p,
          recipe: { ...p.recipe, moves: [{ id: 'a', on: true, move: 'fly', params: {} }] },
        })),
      })),
      'wrong-part',
      /phrase 1/,
    ],
    [
      'a blank name',
      damaged((f) => ({ ...f, phrases: f.phrases.map((p) => ({ ...p, name: '  ' })) })),
      'wrong-part',
      /name: must not be blank/,
    ],
    [
      'a time beyond the year 2200',
      damaged((f) => ({ ...f, attempts: f.attempts.map((t) => ({ ...t, at: 1e15 })) })),
      'wrong-part',
      /log entry 1, at/,
    ],
    ['a number beyond all', damaged((f) => f).replace(/"seconds":[0-9.]+/, '"seconds":1e308'), 'wrong-part', /seconds/],
    [
      'an id that cannot stand in an address',
      damaged((f) => ({ ...f, phrases: f.phrases.map((p) => ({ ...p, id: '../x' })) })),
      'wrong-part',
      /id: must be made of letters/,
    ],
    [
      'an id of dots',
      damaged((f) => ({ ...f, phrases: f.phrases.map((p) => ({ ...p, id: '..' })) })),
      'wrong-part',
      /id: must be/,
    ],
    [
      'two moves with one id',
      damaged((f) => ({
        ...f,
        phrases: f.phrases.map((p) => ({
          ...p,
          recipe: {
            ...p.recipe,
            moves: ['a', 'a'].map((id) => ({ id, on: true, move: 'mirror', params: { feet: true } })),
          },
        })),
      })),
      'wrong-part',
      /two moves have the id “a”/,
    ],
    [
      'nested a thousand deep',
      damaged((f) => f).replace('"phrases":[{', `"phrases":[{"deep":${'['.repeat(1000)}${']'.repeat(1000)},`),
      'wrong-part',
      /nested too deep/,
    ],
    ['an id twice', damaged((f) => ({ ...f, phrases: [f.phrases[0], f.phrases[0]] })), 'twice', /stands there twice/],
  ])('%s', (_, text, code, words) => {
    expect(firstProblem(text)).toMatchObject({ code });
    expect(firstProblem(text)?.message).toMatch(words);
  });

  it('a million phrases are refused by their number', () => {
    const text = `{"format":"loop-shelf","version":1,"phrases":[${'0,'.repeat(999_999)}0],"attempts":[],"drills":[]}`;
    expect(firstProblem(text)?.message).toBe(
      `This file holds 1000000 phrases; a shelf holds at most ${SHELF_LIMITS.phrases}.`,
    );
  });
  it('what no rule knows is no deeper than what is kept, and there is not endless much of it', () => {
    const deep = `${'['.repeat(5000)}${']'.repeat(5000)}`;
    const inLines = writeShelf(sample()).replace('"checksum"', `"later":${deep},\n"checksum"`);
    const whole = JSON.stringify({ ...(JSON.parse(writeShelf(sample())) as object), later: 0 });
    for (const text of [inLines, whole.replace('"later":0', `"later":${deep}`)])
      expect(firstProblem(text)?.message).toBe('In later: it is nested too deep. Nothing was read.');
    const shallow = inLines.replace(deep, `${'['.repeat(39)}${']'.repeat(39)}`);
    expect(readShelf(shallow).ok).toBe(true);
    const many = Array.from({ length: 1001 }, (_, i) => `"f${i}":1,\n`).join('');
    expect(firstProblem(writeShelf(sample()).replace('"checksum"', `${many}"checksum"`))?.code).toBe('too-large');
  });
  it('a head and then nothing but ends of lines is refused at the first of them', () => {
    const lines = new ShelfLines();
    lines.push(`{"format":"loop-shelf","version":${SHELF_VERSION},\n\n`);
    expect(lines.goes).toBe(false);
  });
  it('a file too large to read as a whole is refused by its size', () => {
    const read = tooLarge(300 * 1024 * 1024);
    expect(read.ok ? '' : read.problems[0].message).toBe(
      'This file is 300 MB and not as Loop Shelf writes it; such a file is read up to 256 MB.',
    );
  });

  it('drills and tries whose phrase is gone are no reason to refuse the shelf’s own file', () => {
    const { attempts, drills } = sample();
    const read = readShelf(writeShelf({ attempts, drills }));
    expect(read.ok && [read.value.contents.attempts.length, read.value.contents.drills.length]).toEqual([
      attempts.length,
      drills.length,
    ]);
  });

  it('times can be moved together', () => {
    const shelf = sample();
    expect(shiftedShelf(shiftedShelf(shelf, 1000), -1000)).toEqual(shelf);
    expect(shiftedShelf(shelf, 1000).attempts.map((a) => a.at)).toEqual(shelf.attempts.map((a) => a.at + 1000));
  });

  it('the published schema is the one the reader uses', () => {
    const published = JSON.parse(readFileSync(join(__dirname, '../../../schema/shelf-file.schema.json'), 'utf8')) as {
      properties: Record<string, unknown>;
    };
    expect(Object.keys(published.properties)).toEqual([
      'format',
      'version',
      'phrases',
      'attempts',
      'drills',
      'takes',
      'states',
      'removals',
      'boards',
      'shows',
      'showStates',
      'freeSittings',
      'lessons',
      'clips',
      'named',
      'checksum',
    ]);
    expect(RULES.phrases({})).not.toBeNull();
  });
});
