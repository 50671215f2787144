import fc from 'fast-check';
import { deflateSync } from 'fflate';
import { anyPhrase } from '../../testing/arbitraries';
import { phraseCode, readPhraseCode, readShared, sharedOf, sharedText } from '.';

const rope = {
  name: 'Cold rope',
  family: 'fill' as const,
  recipe: { source: { kind: 'typed' as const, text: '(R l l)x5 R+K', meter: '4/4', grid: 1260 }, moves: [] },
  tempo: 90,
  goal: 104,
  note: 'after the second chorus',
};

describe('a phrase in a link', () => {
  it('comes back as it was, without what is the shelf’s own', () => {
    fc.assert(
      fc.property(anyPhrase, (phrase) => {
        // Two moves of one id are refused, as on the shelf.
        const ids = phrase.recipe.moves.map((m) => m.id);
        const read = readPhraseCode(phraseCode(phrase));
        if (new Set(ids).size < ids.length) expect(read.ok).toBe(false);
        else expect(read.ok && read.value).toEqual(JSON.parse(JSON.stringify(sharedOf(phrase))));
      }),
      { numRuns: 150 },
    );
  });
  it('is made of letters that may stand in an address, and short enough for a picture code', () => {
    expect(phraseCode(rope)).toMatch(/^[A-Za-z0-9_-]+$/);
    expect(phraseCode(rope).length).toBeLessThan(400);
  });
  it('every beginning, and ten thousand other letters, end in the phrase or in words', () => {
    const code = phraseCode(rope);
    for (let n = 0; n < code.length; n++) {
      const read = readPhraseCode(code.slice(0, n));
      expect([n, read.ok]).toEqual([n, false]);
    }
    let seed = 3;
    const chance = (n: number): number => (seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648) % n;
    let [same, words] = [0, 0];
    for (let i = 0; i < 10_000; i++) {
      const at = chance(code.length);
      const read = readPhraseCode(`${code.slice(0, at)}${String.fromCharCode(33 + chance(90))}${code.slice(at + 1)}`);
      if (read.ok) same++;
      else words += read.problems[0].message.endsWith('.') ? 1 : 0;
    }
    expect(same + words).toBe(10_000);
    expect(words).toBeGreaterThan(8000);
  });
  it('what unpacks to far more is left before it has', () => {
    const packed = deflateSync(new Uint8Array(100_000_000));
    const code = Buffer.from(packed).toString('base64url');
    const read = readPhraseCode(code.slice(0, 190_000));
    expect(read.ok ? '' : read.problems[0].message).toBe('This is too large for a phrase.');
    expect(readPhraseCode('a'.repeat(200_001)).problems[0]?.code).toBe('too-large');
  });
  it.each([
    ['{"format":"loop-shelf-phrase","version":9}', /newer Loop Shelf/],
    ['{"format":"loop-shelf"}', /no phrase of Loop Shelf/],
    ['[1', /damaged/],
    ['null', /no phrase of Loop Shelf/],
    [sharedText({ ...rope, tempo: 1e308 }), /This is not a phrase: tempo /],
    [sharedText({ ...rope, name: '  ' }), /This is not a phrase: name must not be blank/],
  ])('%s is told in words', (text, words) => {
    const read = readShared(text);
    expect(read.ok ? '' : read.problems[0].message).toMatch(words);
  });
});
