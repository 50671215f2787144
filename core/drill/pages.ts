import type { Attempt } from './state';

/** Tries of one phrase are kept in pages of so many. */
export const TRIES_A_PAGE = 200;

/** A page of one phrase's tries, in the order in which they were logged; pages count from 0. */
export interface TriesPage {
  phrase: string;
  n: number;
  tries: Attempt[];
}

/**
 * Pages of one phrase's tries, after a page that may have room left.
 * @example
 * pagesOf('a', [], null) // => []
 */
export function pagesOf(phrase: string, tries: readonly Attempt[], last: TriesPage | null): readonly TriesPage[] {
  if (tries.length === 0) return [];
  const pages: TriesPage[] = [];
  const open = last && last.tries.length < TRIES_A_PAGE ? last : null;
  let n = open ? open.n : last ? last.n + 1 : 0;
  let own: Attempt[] = open ? [...open.tries] : [];
  for (const one of tries) {
    own.push(one);
    if (own.length === TRIES_A_PAGE) {
      pages.push({ phrase, n: n++, tries: own });
      own = [];
    }
  }
  if (own.length > 0) pages.push({ phrase, n, tries: own });
  return pages;
}
