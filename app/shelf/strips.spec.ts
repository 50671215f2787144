import { bestByPhrase } from '@core/drill';
import { attemptOf, phraseOf, typed } from '../testing/fixtures';
import { knownPattern, patternOf } from '../data/patterns';
import { byName, found, rowsOf } from './strips';

const phrases = [
  phraseOf('a', { name: 'Broken oar', recipe: typed('R L R L R L K', '7/8') }),
  phraseOf('b', { name: 'Anchor chain', note: 'fives' }),
  phraseOf('c', { name: 'Bilge pump', family: 'groove' }),
];

describe('the shelf', () => {
  it('lies in families, by name, each with its number', () => {
    const rows = rowsOf(byName(phrases), new Map()).map((r) =>
      r.kind === 'head' ? `${r.title} ${r.many}` : r.phrase.name,
    );
    expect(rows).toEqual(['Fills 2', 'Anchor chain', 'Broken oar', 'Grooves 1', 'Bilge pump']);
  });
  it.each([
    ['', 3],
    ['oar', 1],
    ['FILL 7/8', 1],
    ['16ths', 3],
    ['fives', 1],
    ['groove 7/8', 0],
  ])('“%s” finds %d', (words, n) => expect(found(phrases, words)).toHaveLength(n));
  it('shows how far a phrase has come', () => {
    const [, strip] = rowsOf(
      [phrases[0]!],
      bestByPhrase([attemptOf('1', 'a', { bpm: 80 }), attemptOf('2', 'a', { bpm: 95, verdict: 'messy' })]),
    );
    expect(strip?.kind === 'strip' && [strip.best.clean, strip.share]).toEqual([80, 0.8]);
  });
  it('works a phrase out when it is looked at, and knows it again when it was read anew', () => {
    const fresh = phraseOf('fresh', { recipe: typed('R L K', '3/4') });
    const [, strip] = rowsOf([fresh], new Map());
    expect(knownPattern(fresh)).toBeNull();
    expect(strip?.kind === 'strip' && strip.facts).toBe('3 slots of 3/4 · 16ths');
    const known = knownPattern(fresh);
    expect(known).not.toBeNull();
    expect(patternOf(structuredClone(fresh))).toBe(known);
    expect(knownPattern({ ...structuredClone(fresh), recipe: typed('R L', '3/4') })).toBeNull();
  });
  it('finds a phrase that was not worked out yet by what it begins with, and then by what it became', () => {
    const grid = phraseOf('grid', {
      recipe: { ...typed('R L R'), moves: [{ id: 'g', on: true, move: 'grid', params: { grid: 1680 } }] },
    });
    expect([found([grid], '16ths').length, found([grid], 'triplets').length]).toEqual([1, 0]);
    patternOf(grid);
    expect([found([grid], '16ths').length, found([grid], 'triplets').length]).toEqual([0, 1]);
  });
});
