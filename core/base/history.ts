/** The past and future of a value that is only ever replaced, never changed: what undo and redo walk. */
export interface History<T> {
  readonly past: readonly T[];
  readonly now: T;
  readonly future: readonly T[];
  /** What the last edit was about: edits of one thing in a row (a word being typed, a slider moved) are one step. */
  readonly about: string | null;
}

/** Steps that are remembered. */
const MOST_STEPS = 500;

export function historyOf<T>(now: T): History<T> {
  return { past: [], now, future: [], about: null };
}

/** The history after an edit; with the same `about` as the edit before, the two become one step. */
export function edited<T>(h: History<T>, now: T, about: string | null = null): History<T> {
  const merges = about !== null && about === h.about;
  return { past: merges ? h.past : [...h.past, h.now].slice(-MOST_STEPS), now, future: [], about };
}

/** One step back; the same history when there is none. */
export function undone<T>(h: History<T>): History<T> {
  const before = h.past.at(-1);
  return before === undefined
    ? h
    : { past: h.past.slice(0, -1), now: before, future: [h.now, ...h.future], about: null };
}

/** One step forward again; the same history when there is none. */
export function redone<T>(h: History<T>): History<T> {
  const [next, ...future] = h.future;
  return next === undefined ? h : { past: [...h.past, h.now], now: next, future, about: null };
}
