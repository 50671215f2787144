import { rudimentById } from '../rudiments';
import type { Recipe } from './recipe';
import type { Source } from './source';

/**
 * A name for a phrase that has none: what it was made of. Never empty where there is a recipe.
 * @example
 * suggestName({ source: { kind: 'typed', text: 'R L K', meter: '4/4', grid: 1260 }, moves: [] }) // => 'R L K'
 * suggestName({ source: { kind: 'typed', text: 'R[closed hi-hat]+K - R[closed hi-hat] - R[closed hi-hat]+L! - R - R - R+K -', meter: '4/4', grid: 1260 }, moves: [] }) // => 'R+K - R - R+L! - R - R …'
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
      return shortened(source.text);
  }
}

const MOST_LETTERS = 24;

/** The sticking without its pieces, cut behind a whole stroke. */
function shortened(text: string): string {
  const plain = text
    .replace(/\[[^\]]*\]/g, '')
    .trim()
    .replace(/\s+/g, ' ');
  if (plain.length <= MOST_LETTERS) return plain;
  const end = plain.lastIndexOf(' ', MOST_LETTERS - 2);
  return `${plain.slice(0, end > 0 ? end : MOST_LETTERS - 2)} …`;
}
