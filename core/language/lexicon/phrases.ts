import type { PlainRecipe } from '../../recipe';
import { tokensOf, type Lexis, type NameSaid } from './tokens';

/** A phrase of the shelf that can be named in a line; its recipe is null where it cannot be joined. */
export interface ShelfPhrase {
  readonly id: string;
  readonly name: string;
  readonly recipe: PlainRecipe | null;
}

/** Behind these a phrase of the shelf is named. */
const BEHIND: ReadonlySet<string> = new Set(['then', 'join', 'joined', 'by', 'with', 'to', 'of', 'like', 'open']);
/** A name that could be said of strokes is one only behind these, or in quotes. */
const SURELY: ReadonlySet<string> = new Set(['join', 'like', 'open']);
const VERBS = [...BEHIND].join('|');
const MAY_NAME = new RegExp(`\\b(?:${VERBS})\\b|[“"]`);
const BEGUN = new RegExp(`\\b(?:${VERBS}) +["“]?([^,;"“”]{2,})$`, 'i');
const PLAIN: Lexis = { words: new Set(), names: [], exact: true };

const wordsOf = (name: string): readonly string[] => tokensOf(name, PLAIN).map((t) => t.word);

/** The word a phrase is read as. */
const PHRASE = /^phrase:(\d+)$/;

/** Which phrase of those that can be named a word stands for; null for any other word. */
export function phraseAt(word: string): number | null {
  const found = PHRASE.exec(word);
  return found ? Number(found[1]) : null;
}

/** Names of phrases as words of a line, the longest first. */
export function phraseNames(phrases: readonly ShelfPhrase[], known: ReadonlySet<string>): readonly NameSaid[] {
  return phrases
    .flatMap(({ name }, i): NameSaid[] => {
      const words = wordsOf(name);
      if (words.length === 0) return [];
      const as = `phrase:${i}`;
      const after = words.every((w) => known.has(w)) ? SURELY : BEHIND;
      return [
        { words: ['“', ...words, '”'], as },
        { words: ['"', ...words, '"'], as },
        { words, as, after },
      ];
    })
    .sort((a, b) => b.words.length - a.words.length);
}

/** The name that is begun at the end of a line; empty where none can be. */
export function begunName(line: string): string {
  return BEGUN.exec(line)?.[1] ?? '';
}

/** The most phrases that are looked for in one line. */
const MOST_NAMED = 8;

/**
 * Those of some phrases whose names stand in a line where a phrase can be named, so that their recipes are fetched.
 * @example
 * phrasesIn('accent 1, then cold rope', [{ id: 'a', name: 'Cold rope' }, { id: 'b', name: 'Bilge' }]).map((p) => p.id) // => ['a']
 */
export function phrasesIn<T extends { readonly name: string }>(line: string, all: readonly T[]): readonly T[] {
  const said = line.toLowerCase();
  if (!MAY_NAME.test(said)) return [];
  const words = ` ${wordsOf(line).join(' ')} `;
  const stands = (name: string): boolean => words.includes(` ${wordsOf(name).join(' ')} `);
  // A slip further on in a name is read too: each of which the first word stands there can be meant.
  return all
    .filter(
      ({ name }) => said.includes(/^[^\s-]*/.exec(name.toLowerCase())?.[0] ?? '') && words.includes(firstOf(name)),
    )
    .sort((a, b) => Number(stands(b.name)) - Number(stands(a.name)))
    .slice(0, MOST_NAMED);
}

/** The first word of a name between spaces, as it is looked for among words; a name without one is found nowhere. */
function firstOf(name: string): string {
  const [first] = wordsOf(name.slice(0, 40));
  return first === undefined ? '\n' : ` ${first} `;
}
