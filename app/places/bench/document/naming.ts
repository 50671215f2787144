import { stableJson } from '@core/base';
import { build, type Recipe } from '@core/recipe';

/** What one recipe has that the other has not, in a sentence: the change that made a phrase of its parent. */
export function growthWords(from: Recipe, to: Recipe): string {
  const had = new Set(from.moves.map((m) => stableJson(m)));
  const own = to.moves.filter((m) => !had.has(stableJson(m)));
  const words = build(to)
    .trail.flatMap((s) => (own.includes(s.entry) ? [s.sentence] : []))
    .join('; ');
  if (words !== '') return words.slice(0, 1000);
  return stableJson(from.source) === stableJson(to.source) ? 'the same moves' : 'another sticking';
}
