import { stableJson } from '@core/base';
import { describeMove, type Recipe, type Source } from '@core/recipe';
import { rudimentById } from '@core/rudiments';

/** What one recipe has that the other has not, in a sentence: the change that made a phrase of its parent. */
export function growthWords(from: Recipe, to: Recipe): string {
  const had = new Set(from.moves.map((m) => stableJson(m)));
  const own = to.moves.filter((m) => !had.has(stableJson(m)));
  const words = own.map((m) => describeMove(m)).join('; ');
  if (words !== '') return words.slice(0, 1000);
  return stableJson(from.source) === stableJson(to.source) ? 'the same moves' : 'another sticking';
}

/** A name for a phrase that has none: what it was made of. */
export function suggestName(recipe: Recipe | null): string {
  if (!recipe) return '';
  const { source } = recipe;
  const base = sourceName(source);
  return recipe.moves.length > 0 ? `${base}, worked out` : base;
}

function sourceName(source: Source): string {
  switch (source.kind) {
    case 'rudiment':
      return rudimentById(source.id)?.name ?? 'Rudiment';
    case 'heard':
      return source.from.trim().slice(0, 60) || 'Heard';
    case 'typed':
      return source.text.trim().slice(0, 24);
  }
}
