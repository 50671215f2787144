import { rudimentById } from '../rudiments';
import type { Recipe } from './recipe';
import type { Source } from './source';

/**
 * A name for a phrase that has none: what it was made of. Never empty where there is a recipe.
 * @example
 * suggestName({ source: { kind: 'typed', text: 'R L K', meter: '4/4', grid: 1260 }, moves: [] }) // => 'R L K'
 */
export function suggestName(recipe: Recipe | null): string {
  if (!recipe) return '';
  const base = sourceName(recipe.source);
  return recipe.moves.length > 0 ? `${base}, changed` : base;
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
