import type { History } from '@core/base';
import type { Recipe } from '@core/recipe';
import { TEMPO } from '@core/time';

/** What is on the Bench: a recipe, the tempo it is heard at, and the id of the phrase it was kept as, if it was. */
export interface Work {
  readonly phrase: string | null;
  readonly recipe: Recipe | null;
  readonly tempo: number;
}

export const EMPTY: Work = { phrase: null, recipe: null, tempo: TEMPO.usual };

/**
 * The history after something new was kept for the first time: what lies there belongs to its phrase, and so do the
 * steps that led there and those that were taken back. Undo and redo walk over a keeping without losing whose it is.
 * Work from before, behind another phrase or an empty Bench, stays whose it is.
 */
export function ownedBy(h: History<Work>, id: string): History<Work> {
  const isOther = (w: Work): boolean => w.phrase !== h.now.phrase || w.recipe === null;
  const first = h.past.findLastIndex(isOther) + 1;
  const end = h.future.findIndex(isOther);
  const owned = (w: Work): Work => ({ ...w, phrase: id });
  return {
    ...h,
    past: h.past.map((w, i) => (i < first ? w : owned(w))),
    now: owned(h.now),
    future: h.future.map((w, i) => (end >= 0 && i >= end ? w : owned(w))),
  };
}

/**
 * Whether a step of undo or redo leaves the work that lay there for another. An empty Bench that undo comes to is where
 * the work began; one that redo comes to was asked for.
 */
export function isLeft(before: Work, after: Work, forward: boolean): boolean {
  if (before.recipe === null) return false;
  return after.recipe === null ? forward : before.phrase !== after.phrase;
}
