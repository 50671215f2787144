import type { Attempt } from '../drill';

/** Tries without a longer pause between them. */
export interface Sitting {
  readonly from: number;
  readonly until: number;
  readonly tries: readonly Attempt[];
}

/** A pause as long as this ends a sitting, in milliseconds. */
const PAUSE = 30 * 60_000;

/** Tries by sitting, the newest sitting first, and in each the newest try. They may come in any order. */
export function sittings(tries: readonly Attempt[]): readonly Sitting[] {
  const sorted = [...tries].sort((a, b) => b.at - a.at);
  const out: { from: number; until: number; tries: Attempt[] }[] = [];
  for (const t of sorted) {
    const last = out.at(-1);
    const began = t.at - 1000 * Math.max(0, t.seconds);
    if (last && last.from - t.at <= PAUSE) {
      last.tries.push(t);
      last.from = Math.min(last.from, began);
    } else out.push({ from: began, until: t.at, tries: [t] });
  }
  return out;
}
