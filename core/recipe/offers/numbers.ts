import { NUMBER_WORDS } from '../../base';

/** What may stand for a whole number in a pattern of words. */
export const NUMBER = `\\d{1,3}|an?|${NUMBER_WORDS.join('|')}`;

/** A whole number in digits or letters ("16", "five", "a" for one); null for anything else. */
export function numberOf(word: string): number | null {
  if (/^\d{1,3}$/.test(word)) return Number(word);
  if (word === 'a' || word === 'an') return 1;
  const at = NUMBER_WORDS.indexOf(word);
  return at < 0 ? null : at + 1;
}
