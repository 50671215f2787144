import { bestByPhrase } from '@core/drill';
import { attemptOf, phraseOf, typed } from '../testing/fixtures';
import { found, rowsOf, widestTicks } from './strips';

const phrases = [
  phraseOf('a', { name: 'Broken oar', recipe: typed('R L R L R L K', '7/8') }),
  phraseOf('b', { name: 'Anchor chain', note: 'fives' }),
  phraseOf('c', { name: 'Bilge pump', family: 'groove' }),
];

describe('the shelf', () => {
  it('lies in families, by name, each with its number', () => {
    const rows = rowsOf(phrases, new Map()).map((r) => (r.kind === 'head' ? `${r.title} ${r.many}` : r.phrase.name));
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
  it('the longest sets the width', () => expect(widestTicks(rowsOf(phrases, new Map()))).toBe(7 * 1260));
});
