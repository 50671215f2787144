import { MOST_MOVES, offerOf, type MoveEntry } from '../../recipe';
import type { ShelfPhrase } from '../lexicon/phrases';

/** An orchestration of the phrase on the Bench that can be named by its letter. */
export interface LetteredPhrase {
  readonly letter: string;
  readonly phrase: ShelfPhrase;
}

const LINE = /^(?:versions? |play |join )?([a-z](?:,? (?:and )?then [a-z])+)$/i;

/**
 * The letters of a line that puts versions one behind the other; null for any other line.
 * @example
 * lettersIn('A then C, then A') // => ['A', 'C', 'A']
 * lettersIn('A then Rope') // => null
 */
export function lettersIn(line: string): readonly string[] | null {
  const [, all] = LINE.exec(line.trim()) ?? [];
  return all?.toUpperCase().match(/\b[A-Z]\b/g) ?? null;
}

/** The moves that put versions one behind the other, or why they cannot be. What is there stands for its own letter. */
export function joinVersions(
  letters: readonly string[],
  own: string | null,
  versions: readonly LetteredPhrase[],
): { readonly moves: readonly MoveEntry[]; readonly words: string } | { readonly wrong: string; readonly why: string } {
  const offers = [];
  for (const [i, letter] of letters.entries()) {
    if (i === 0 && letter === own) continue;
    const version = versions.find((v) => v.letter === letter);
    if (!version)
      return {
        wrong: letter,
        why: `There is no version ${letter} on the shelf: keep this phrase as new under that letter.`,
      };
    const { name, recipe } = version.phrase;
    if (!recipe)
      return { wrong: letter, why: `“${name}” is already joined from others, so it cannot be joined again.` };
    const other = { other: recipe, name: name.slice(0, 80) };
    offers.push(offerOf('join', i === 0 ? { ...other, alone: true } : other));
  }
  if (offers.length > MOST_MOVES) return { wrong: letters.join(' then '), why: 'Those are too many.' };
  return { moves: offers.map((o) => o.entry), words: offers.map((o) => o.words).join(', then ') };
}
