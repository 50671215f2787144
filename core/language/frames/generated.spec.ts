// Sentences made of all roles in their orders, in one to three clauses, read back; then the same with one foreign word.
import fc from 'fast-check';
import { anyLine, BUILDS, looks, meant, PIECES } from '../../testing/generated-lines';
import { VOICE } from '../../stroke';
import { readLine } from '../replies/read';

/** How many are read in a run of the tests, and a quarter as many with a foreign word. */
const RUNS = Number(process.env['WORDS_RUNS'] ?? 1200);

describe('sentences made from the frames', () => {
  it('each is read as it is meant, in one, two and three clauses', () => {
    fc.assert(
      fc.property(anyLine, ({ clauses, text, phrase }) => {
        const built = BUILDS.get(phrase);
        const wanted = built && meant(clauses, built);
        if (!built || wanted === null) return;
        const r = readLine(text, built);
        const got = r.kind === 'meant' ? r.all.map((m) => looks(m.pattern.strokes)) : r.kind;
        expect([text, phrase, got]).toEqual([text, phrase, [wanted]]);
      }),
      { numRuns: RUNS },
    );
  });
  it('with one foreign word none is read as anything', () => {
    const foreign = fc.constantFrom('purple', 'flibber', 'zanzibar', 'quux', 'marmalade', 'obelisk');
    fc.assert(
      fc.property(anyLine, foreign, fc.nat(), ({ text, phrase }, word, at) => {
        const built = BUILDS.get(phrase);
        if (!built) return;
        const words = text.split(' ');
        words.splice(at % (words.length + 1), 0, word);
        const r = readLine(words.join(' '), built);
        expect([words.join(' '), r.kind]).toEqual([words.join(' '), 'not']);
        if (r.kind === 'not') expect(r.diagnostics.map((d) => d.words).join(' ')).toContain(word);
      }),
      { numRuns: RUNS / 4 },
    );
  });
  it('the names of pieces are those of the kit', () =>
    expect(PIECES.map(([name]) => name)).toEqual(PIECES.map(([, v]) => VOICE[v].name)));
});
