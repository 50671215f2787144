import fc from 'fast-check';
import { anyMoveOf, anyRecipe } from '../../testing/arbitraries';
import { build, describeMove, MOVE_NAMES, type MoveEntry, type MoveName } from '../../recipe';
import { parseGrid, gridName } from '../../time';
import type { Pattern } from '../../pattern';
import { describeStrokes } from '../../selection';
import { readLine } from './read';
import { readPrinted } from './printed';

const looks = (p: Pattern): string =>
  JSON.stringify([
    p.start,
    p.length,
    p.grid,
    p.pickup ?? [],
    p.strokes.map((s) => [s.at, s.limb, s.voice, s.level, s.ornament, s.grace]),
  ]);

/** Sentences of these say less than the move holds: another phrase, or single strokes. */
const NOT_SAID: readonly MoveName[] = ['join', 'touch'];

/** Odd grids have no name, and texts that are no strokes say nothing. */
const LESS: Partial<Record<MoveName, number>> = { grid: 0.2, insert: 0.5, layer: 0.5, pickup: 0.5 };

describe('what is printed is read back', () => {
  it.each(MOVE_NAMES.filter((n) => !NOT_SAID.includes(n)))(
    '%s: the sentence of a card makes the same phrase',
    (name) => {
      let same = 0;
      let all = 0;
      fc.assert(
        fc.property(
          anyRecipe,
          anyMoveOf(name),
          fc.array(fc.nat(), { minLength: 1, maxLength: 6 }),
          (recipe, given, some) => {
            const built = build({ ...recipe, moves: recipe.moves.slice(0, 3) });
            const { strokes } = built.pattern;
            if (strokes.length === 0) return;
            // Strokes that are there, described as the application describes what was pressed.
            const select = describeStrokes(
              built.pattern,
              some.map((n) => n % strokes.length),
            );
            const move = (
              'select' in given.params ? { ...given, params: { ...given.params, select } } : given
            ) as MoveEntry;
            const sentence = describeMove(move, built.pattern);
            const whole = build({ ...built.recipe, moves: [...built.recipe.moves, { ...move, id: 'x', on: true }] });
            if (whole.trail.at(-1)?.findings.some((f) => f.weight === 'stop')) return;
            const wanted = whole;
            // Texts and counts may be anything; what cannot be typed as words is no sentence.
            if (/\n|^.{300,}/.test(sentence)) return;
            all++;
            const read = readPrinted(sentence, built.pattern);
            if (!read) return;
            same++;
            expect(describeMove(read, built.pattern)).toBe(sentence);
            const again = build({ ...built.recipe, moves: [...built.recipe.moves, { ...read, id: 'x' }] });
            expect([sentence, looks(again.pattern)]).toEqual([sentence, looks(wanted.pattern)]);
            const line = readLine(sentence, built);
            expect(line.kind).toBe('meant');
            if (line.kind === 'meant') expect(line.all).toHaveLength(1);
          },
        ),
        { numRuns: 150 },
      );
      expect(same).toBeGreaterThan(all * (LESS[name] ?? 0.9));
      expect(same).toBeGreaterThan(0);
    },
  );
  it('grids that have a name are read by it', () => {
    for (const grid of [5040, 2520, 1680, 1260, 1008, 840, 720, 630])
      expect(parseGrid(gridName(grid as never))).toBe(grid);
  });
  it('no other words are taken for a printed sentence', () => {
    for (const words of ['leave out 3', 'Leave out 3', 'accent beat 4', 'Accent 2 and 4', 'land it', '', 'Fill 2 bars'])
      expect(readPrinted(words)).toBeNull();
  });
});
