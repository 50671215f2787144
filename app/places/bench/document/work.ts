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
 * The history after work was kept as a phrase; `kept` is the step that was kept, which may lie further back by now, as
 * keeping takes its time. Of something new all its steps belong to the phrase, those that led there and those that were
 * taken back too: undo and redo walk over a keeping without losing whose it is. Of a phrase that was kept as a new one
 * that step does, with what was done to it since. Other work, behind another phrase or an empty Bench, stays whose it
 * is. A step that is not there any more was drawn on, as a slider is; then `kept` is what lies there.
 */
export function ownedBy(h: History<Work>, kept: Work, id: string): History<Work> {
  const all = [...h.past, h.now, ...h.future];
  const found = all.indexOf(kept);
  const at = found < 0 ? h.past.length : found;
  const whose = all[at]?.phrase ?? null;
  const isOther = (w: Work): boolean => w.phrase !== whose || w.recipe === null;
  const first = whose === null ? all.slice(0, at).findLastIndex(isOther) + 1 : at;
  const end = all.findIndex((w, i) => i > at && (isOther(w) || (whose !== null && i > h.past.length)));
  const owned = all.map((w, i) => (i < first || (end >= 0 && i >= end) ? w : { ...w, phrase: id }));
  const now = owned[h.past.length] ?? h.now;
  return { ...h, past: owned.slice(0, h.past.length), now, future: owned.slice(h.past.length + 1) };
}

/**
 * Whether a step of undo or redo leaves the work that lay there for another. An empty Bench that undo comes to is where
 * the work began; one that redo comes to was asked for.
 */
export function isLeft(before: Work, after: Work, forward: boolean): boolean {
  if (before.recipe === null) return false;
  return after.recipe === null ? forward : before.phrase !== after.phrase;
}
