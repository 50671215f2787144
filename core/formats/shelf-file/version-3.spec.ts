// A shelf, and a thousand recipes, as the build before selections were expressions wrote them, each with the sum of the
// pattern which that build made of it.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { checksumOf } from '../../base';
import type { Pattern } from '../../pattern';
import { build, type MoveEntry, type Recipe } from '../../recipe';
import { withSelections } from '../../selection';
import { readShelf, RULES } from '.';
import { phraseCode, readPhraseCode } from '../shared/shared';

const file = (name: string): string => readFileSync(join(__dirname, '../../testing/shelves', name), 'utf8');

const sumOf = (p: Pattern): string =>
  checksumOf(
    JSON.stringify([
      p.start,
      p.length,
      p.grid,
      p.pickup ?? [],
      p.strokes.map((s) => [s.at, s.limb, s.voice, s.level, s.ornament ?? '', s.grace ?? '']),
    ]),
  );

type Then = readonly [
  text: string,
  meter: string,
  grid: number,
  bars: number | null,
  lands: boolean,
  moves: readonly (readonly [move: MoveEntry['move'], select: object, with_: string])[],
  sum: string,
];

/** The recipe as it was kept, with its list of restrictions. */
function recipeOf([text, meter, grid, bars, lands, moves]: Then): unknown {
  const fit = { space: { bars }, start: '1', mirrored: false, close: { kind: 'cut' } };
  const more = (move: string, own: string): object => {
    if (move === 'level') return { level: own };
    if (move === 'voice') return { voices: ['high-tom', 'floor-tom'] };
    if (move === 'swap') return { limb: own };
    if (move === 'ornament') return { ornament: 'flam' };
    return move === 'follow' ? { limb: 'H', voice: 'hat-foot', level: 'tap', busy: 'stays' } : {};
  };
  const all = [
    ...(bars ? [{ move: 'fit', params: fit }] : []),
    ...(lands ? [{ move: 'land', params: { voice: 'crash-right', hand: 'R', kick: true } }] : []),
    ...moves.map(([move, select, own]) => ({ move, params: { select, ...more(move, own) } })),
  ];
  return { source: { kind: 'typed', text, meter, grid }, moves: all.map((m, i) => ({ id: `m${i}`, on: true, ...m })) };
}

describe('a shelf of version 3', () => {
  const text = file('version-3.json');
  const sums = (JSON.parse(text) as Record<string, readonly string[]>)['sums of patterns'] ?? [];
  const read = readShelf(text);
  if (!read.ok) throw new Error(read.problems[0].message);
  const { phrases, states } = read.value.contents;

  it('opens to the same patterns', () => {
    expect(phrases).toHaveLength(40);
    expect(phrases.map((p) => sumOf(build(p.recipe).pattern))).toEqual(sums);
    expect(states.map((s) => sumOf(build(s.state.recipe).pattern))).toEqual([sums[0]]);
  });
  it('and its phrases go through a link, of then and of today', () => {
    const then = JSON.parse(text) as { phrases: { name: string }[] };
    for (const [i, phrase] of phrases.entries()) {
      const today = readPhraseCode(phraseCode(phrase));
      if (!today.ok) throw new Error(today.problems[0].message);
      expect(sumOf(build(today.value.recipe).pattern)).toBe(sums[i]);
      const before = readPhraseCode(phraseCode(then.phrases[i] as never));
      expect(before.ok && before.value.recipe).toEqual(phrase.recipe);
    }
  });
});

describe('recipes of version 3', () => {
  const rows = file('recipes-3.jsonl')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Then);
  it('a thousand of them make the patterns they made', () => {
    expect(rows).toHaveLength(1000);
    for (const row of rows) {
      const recipe = withSelections(recipeOf(row)) as Recipe;
      const phrase = {
        id: 'a',
        name: 'A',
        family: 'fill',
        recipe,
        tempo: 90,
        goal: 100,
        note: '',
        created: 0,
        changed: 0,
      };
      expect([row, RULES.phrases(phrase)]).toEqual([row, null]);
      expect([row, sumOf(build(recipe).pattern)]).toEqual([row, row.at(-1)]);
    }
  });
});
