import { count, listed, sentence } from '../base';
import { beatTicks } from '../time';
import type { Pattern } from '../pattern';
import type { Played } from './ground';
import { likenessAt, playedOn, shareAlike } from './likeness';

/** Whether a phrase that was called came: on its count, later, or not before the next one. */
export const CALL_CAME = ['at once', 'late', 'not at all'] as const;
export type CallCame = (typeof CALL_CAME)[number];

/** A phrase that may be called. */
export interface Callable {
  readonly id: string;
  /** Phrases of one kind are not called one after the other where there are others. */
  readonly kind: string;
  /** The chance that it is clean at the tempo of the calls, 0–1. */
  readonly chance: number;
  /** The chance that it comes by itself today, 0–1; null where nobody knows yet. */
  readonly recall: number | null;
}

/** What is not known to come by itself is taken to come as often. */
const UNKNOWN_RECALL = 0.4;
/** Kinds of so many calls back are avoided. */
const KINDS_BACK = 3;

/**
 * The phrase that is called next: rather one that can be played clean and that memory lets go, never the same twice in
 * a row where there is another, mixed by kind. Null where there is none.
 * @param before those called so far, by their ids
 * @param roll 0 to below 1
 * @example
 * nextCall([{ id: 'a', kind: 'fill', chance: 1, recall: 0 }, { id: 'b', kind: 'fill', chance: 1, recall: 0 }], ['a'], 0.5).id // => "b"
 * nextCall([], [], 0.5) // => null
 */
export function nextCall(all: readonly Callable[], before: readonly string[], roll: number): Callable | null {
  const last = before.at(-1);
  const open = all.length > 1 ? all.filter((c) => c.id !== last) : all;
  const kindOf = new Map(all.map((c) => [c.id, c.kind]));
  const lately = before.slice(-KINDS_BACK).map((id) => kindOf.get(id));
  const weights = open.map((c) => {
    const called = before.filter((id) => id === c.id).length;
    const forgets = 1.05 - (c.recall ?? UNKNOWN_RECALL);
    const sameKind = lately.filter((k) => k === c.kind).length;
    return ((0.05 + c.chance) * forgets) / (1 + called) ** 2 / (1 + sameKind) ** 2;
  });
  let left = roll * weights.reduce((a, b) => a + b, 0);
  for (const [i, one] of open.entries()) {
    left -= weights[i] ?? 0;
    if (left < 0) return one;
  }
  return open.at(-1) ?? null;
}

/** So like what is written it must be, on its count and elsewhere, to have come. */
const AT_ONCE = 0.72;
const LATE = 0.8;

/** What came of a call. Ticks are from the first bar line. */
export interface CallHeard {
  readonly came: CallCame;
  /** Where it began; null where it did not come. */
  readonly at: number | null;
}

/**
 * Whether a phrase came that was called for a tick: at once within half a beat of it, late up to `until`. Null where
 * what was played cannot be laid on its grid.
 */
export function heardCall(pattern: Pattern, played: Played, due: number, until: number): CallHeard | null {
  const lattice = playedOn(played, pattern);
  if (!lattice) return null;
  const half = beatTicks(played.meter) / 2;
  let best: { readonly at: number; readonly share: number } | null = null;
  for (let at = Math.max(0, due - Math.floor(half / pattern.grid) * pattern.grid); at < until; at += pattern.grid) {
    const share = shareAlike(likenessAt(pattern, lattice, at));
    const enough = at <= due + half ? AT_ONCE : LATE;
    // What came on its count is not held against a better one later: it is played again then.
    if (share >= enough && (best === null || (share > best.share && at - best.at < pattern.length)))
      best = { at, share };
  }
  if (!best) return { came: 'not at all', at: null };
  return { came: best.at <= due + half ? 'at once' : 'late', at: best.at };
}

/** A call with what came of it; whether it was clean is null where nobody said. */
export interface CallDone {
  readonly name: string;
  readonly came: CallCame;
  readonly clean: boolean | null;
}

/**
 * What a round of calls came to, in sentences.
 * @example
 * callsWords([{ name: 'Cold rope', came: 'at once', clean: true }, { name: 'Net', came: 'not at all', clean: null }]) // => "1 of 2 came at once. Clean: 1 of 1. Net did not come."
 * callsWords([]) // => "Nothing was called."
 */
export function callsWords(calls: readonly CallDone[]): string {
  if (calls.length === 0) return 'Nothing was called.';
  const of = (came: CallCame): readonly CallDone[] => calls.filter((c) => c.came === came);
  const [once, late, missed] = [of('at once'), of('late'), of('not at all')];
  const judged = calls.filter((c) => c.clean !== null);
  const names = [...new Set(missed.map((c) => c.name))];
  const all =
    calls.length === 1
      ? once.length === 1
        ? 'It came at once'
        : null
      : `${once.length} of ${calls.length} came at once`;
  const parts = [
    [all, late.length === 0 ? null : `${late.length} late`].flatMap((w) => w ?? []).join(', '),
    judged.length === 0 ? '' : `clean: ${judged.filter((c) => c.clean).length} of ${judged.length}`,
    names.length === 0
      ? ''
      : names.length > 3
        ? `${count(names.length, 'phrase')} did not come`
        : `${listed(names)} did not come`,
  ];
  return parts.flatMap((p) => (p === '' ? [] : [`${sentence(p)}.`])).join(' ');
}

/** The bars from one call to the next: so many to answer in, with the call in the last bar before. */
export function callBars(pattern: Pattern, between: number, bar: number): number {
  return Math.max(1, Math.ceil((pattern.start + pattern.length) / bar)) + between;
}
