import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { anyAttempt, anyDrill, anyPhrase } from '../../testing/arbitraries';
import { readShelf, SHELF_LIMITS, shiftedShelf, tooLarge, validatePhrase, writeShelf, type ShelfFile } from '.';

const unique = <T extends { id: string }>(one: fc.Arbitrary<T>, maxLength: number) =>
  fc.uniqueArray(one, { selector: (x) => x.id, maxLength });
const anyShelf = fc
  .record({ phrases: unique(anyPhrase, 4), attempts: unique(anyAttempt, 6), drills: unique(anyDrill, 2) })
  .map((s) => ({
    ...s,
    drills: s.phrases[0] ? s.drills.map((d) => ({ ...d, phrase: s.phrases[0]!.id })) : [],
  }));
const sorted = <T extends { id: string }>(list: readonly T[]): T[] => [...list].sort((a, b) => (a.id < b.id ? -1 : 1));
const sample = (): ShelfFile => {
  const [shelf] = fc.sample(anyShelf, { numRuns: 1, seed: 7 });
  return JSON.parse(writeShelf(shelf!)) as ShelfFile;
};
const firstProblem = (text: string) => {
  const read = readShelf(text);
  return read.ok ? null : read.problems[0];
};

describe('the shelf file', () => {
  it('what is written is read back the same', () => {
    fc.assert(
      fc.property(anyShelf, (shelf) => {
        const read = readShelf(writeShelf(shelf));
        expect(read.ok ? null : read.problems).toBeNull();
        if (!read.ok) return;
        expect(read.value.phrases).toEqual(JSON.parse(JSON.stringify(sorted(shelf.phrases))));
        expect(read.value.attempts).toEqual(sorted(shelf.attempts));
        expect(read.value.drills).toEqual(sorted(shelf.drills));
      }),
      { numRuns: 60 },
    );
  });

  it('fields it does not know survive', () => {
    const file = { ...sample(), later: 1 };
    const read = readShelf(JSON.stringify({ ...file, phrases: file.phrases.map((p) => ({ ...p, mood: 'foggy' })) }));
    expect(read.ok && read.value.phrases.every((p) => 'mood' in p)).toBe(true);
    expect(read.ok && 'later' in read.value).toBe(true);
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

  const damaged = (change: (file: ShelfFile) => unknown): string => JSON.stringify(change(sample()));
  it.each<[string, string, string, RegExp]>([
    ['not JSON', 'hello', 'not-json', /cannot be read as JSON/],
    ['a list', '[]', 'not-a-shelf', /does not say/],
    ['null', 'null', 'not-a-shelf', /does not say/],
    ['another format', '{"format":"x"}', 'not-a-shelf', /does not say/],
    ['a newer version', damaged((f) => ({ ...f, version: 2 })), 'newer', /version 2/],
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
  it('a file too large to read is refused by its size', () => {
    const read = tooLarge(200 * 1024 * 1024);
    expect(read.ok ? '' : read.problems[0].message).toBe('This file is 200 MB; a shelf file is at most 128 MB.');
  });

  it('times can be moved together', () => {
    const file = sample();
    expect(shiftedShelf(shiftedShelf(file, 1000), -1000)).toEqual(file);
    expect(shiftedShelf(file, 1000).attempts.map((a) => a.at)).toEqual(file.attempts.map((a) => a.at + 1000));
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
      'settings',
      'kits',
      'profile',
    ]);
    expect(validatePhrase({})).toBe(false);
  });
});
