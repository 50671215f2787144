import { count, stableJson } from '../base';
import type { Attempt, DrillState } from '../drill';
import { keptLessons, laterLesson } from '../lesson';
import type { Phrase } from '../recipe';
import type { KeptTake } from '../take';
import { keptBoards, type Board } from './board';
import { SHELF_LIMITS, type ShelfContents } from './contents';
import { mergedNamed, mergedOthers } from './named';
import { isOff, keptRemovals, type Removal } from './removal';
import { keptShows, showOf, showState, type Show, type ShowState } from './show';
import { keptSittings, laterSitting } from './sitting';
import { keptStates, laterFirst, stateOf, type KeptState } from './state';

/** What became of one phrase when two shelves were merged. */
export type MergeKind =
  /** Only the other shelf had it. */
  | 'new'
  /** It was kept later there: that stands, ours is among its earlier states. */
  | 'theirs stands'
  /** It was kept later here: that stands, theirs is among its earlier states. */
  | 'ours stands'
  /** It was taken off there after it was kept last here. */
  | 'taken off'
  /** It was taken off here after it was kept last there: it stays off. */
  | 'stays off'
  /** It lies on the shelf again: it was kept there after it was taken off here. */
  | 'back';

export interface MergeLine {
  readonly kind: MergeKind;
  readonly id: string;
  readonly name: string;
}

/** What merging another shelf into this one does, phrase by phrase, and how much of the rest it brings. */
export interface MergeReport {
  readonly lines: readonly MergeLine[];
  readonly tries: number;
  readonly takes: number;
  /** Clips of records that come or change, and those of ours for which there is no room any more. */
  readonly clips: number;
  readonly clipsGone: number;
  readonly boards: number;
  readonly shows: number;
  readonly sittings: number;
  readonly lessons: number;
  readonly drills: number;
  /** Names of the named things that it changes. */
  readonly named: readonly string[];
}

/**
 * Two shelves as one. Tries are united by their ids. Of a phrase that was changed on both the one kept later stands and
 * the other is among its earlier states. Removals are remembered. In either order the result is the same, and merging
 * the same shelf twice changes nothing: every rule is the greatest of both under one order.
 */
export function merged(a: ShelfContents, b: ShelfContents): ShelfContents {
  const removals = mergedRemovals(a.removals, b.removals);
  const off = new Map(removals.map((r) => [r.id, r]));
  const alone = onceOnly(a, b, off);
  const all = versionsOf(without(a, alone), without(b, alone));
  const phrases: Phrase[] = [...alone.values()];
  const states: KeptState[] = [];
  const stillOff = new Map<string, Removal>(removals.map((r) => [r.id, { ...r, phrase: null }]));
  for (const [id, versions] of all) {
    const [latest] = versions;
    const removal = off.get(id);
    const isHere = latest && !(removal && isOff(latest.state, removal));
    if (isHere) phrases.push(latest.state);
    else if (removal) stillOff.set(id, { ...removal, phrase: latest?.state ?? null });
    states.push(...keptStates(versions, latest?.state ?? null));
  }
  const own = byId(phrases);
  return {
    phrases: own,
    attempts: mergedTries(a.attempts, b.attempts),
    drills: mergedDrills(a.drills, b.drills),
    takes: [...united(a.takes, b.takes, greater)].sort(newestTake).slice(0, SHELF_LIMITS.takes).sort(idOrder),
    states: byId(states),
    removals: byId(keptRemovals([...stillOff.values()])),
    boards: byId(
      keptBoards(
        united<Board>(a.boards, b.boards, (x, y) =>
          x.changed === y.changed ? greater(x, y) : x.changed > y.changed ? x : y,
        ),
      ),
    ),
    ...mergedShows(a, b),
    freeSittings: byId(keptSittings(united(a.freeSittings, b.freeSittings, laterSitting))),
    lessons: byId(keptLessons(united(a.lessons, b.lessons, laterLesson))),
    clips: byId(
      [...united(a.clips, b.clips, (x, y) => (x.at === y.at ? greater(x, y) : x.at > y.at ? x : y))]
        .sort((x, y) => y.at - x.at || idOrder(x, y))
        .slice(0, SHELF_LIMITS.clips),
    ),
    named: mergedNames(a, b),
    others: mergedOthers(a.others, b.others),
  };
}

/** Phrases that only one shelf has and of which nothing else is known: they are merged as they stand. */
function onceOnly(a: ShelfContents, b: ShelfContents, off: ReadonlyMap<string, Removal>): ReadonlyMap<string, Phrase> {
  const withStates = new Set([...a.states, ...b.states].map((s) => s.phrase));
  const alone = new Map<string, Phrase>();
  const twice = new Set<string>();
  for (const p of [...a.phrases, ...b.phrases]) {
    if (alone.has(p.id) || off.has(p.id) || withStates.has(p.id)) twice.add(p.id);
    alone.set(p.id, p);
  }
  twice.forEach((id) => alone.delete(id));
  return alone;
}

function without(shelf: ShelfContents, ids: ReadonlyMap<string, Phrase>): ShelfContents {
  return { ...shelf, phrases: shelf.phrases.filter((p) => !ids.has(p.id)) };
}

/** All that is known of each phrase, the latest first: what stands, what was taken off, and the earlier states. */
function versionsOf(a: ShelfContents, b: ShelfContents): ReadonlyMap<string, readonly KeptState[]> {
  const all = new Map<string, Map<string, KeptState>>();
  const add = (s: KeptState): void => {
    const own = all.get(s.phrase) ?? new Map<string, KeptState>();
    all.set(s.phrase, own.set(s.id, s));
  };
  for (const { phrases, states, removals: gone } of [a, b]) {
    phrases.forEach((p) => add(stateOf(p)));
    gone.forEach((r) => r.phrase && add(stateOf(r.phrase)));
    states.forEach(add);
  }
  return new Map([...all].map(([id, own]) => [id, [...own.values()].sort(laterFirst)]));
}

function mergedRemovals(a: readonly Removal[], b: readonly Removal[]): readonly Removal[] {
  return united(a, b, (x, y) => (x.at === y.at ? greater(x, y) : x.at > y.at ? x : y));
}

/** Of a show that was changed on both the one changed later stands, and the other is among its earlier states. */
function mergedShows(a: ShelfContents, b: ShelfContents): Pick<ShelfContents, 'shows' | 'showStates'> {
  const known = new Map<string, ShowState[]>();
  for (const s of [a, b].flatMap((c) => [...c.shows.map(showState), ...c.showStates]))
    known.set(s.show, [...(known.get(s.show) ?? []), s]);
  const all = [...known.values()].flatMap((own) => showOf(own) ?? []);
  const stay = new Set<Show>(keptShows(all.map((s) => s.stands)));
  const kept = all.filter((s) => stay.has(s.stands));
  return { shows: byId(kept.map((s) => s.stands)), showStates: byId(kept.flatMap((s) => s.earlier)) };
}

/** One drill to a phrase: the one that was kept last, else the one that got further. */
function mergedDrills(a: readonly DrillState[], b: readonly DrillState[]): readonly DrillState[] {
  const last = (d: DrillState): number => d.at ?? d.attempts.at(-1)?.at ?? 0;
  const best = new Map<string, DrillState>();
  for (const drill of [...a, ...b]) {
    const other = best.get(drill.phrase);
    const wins =
      !other || last(drill) > last(other) || (last(drill) === last(other) && greater(drill, other) === drill);
    if (wins) best.set(drill.phrase, drill);
  }
  return byId([...best.values()].sort((x, y) => last(y) - last(x) || idOrder(x, y)).slice(0, SHELF_LIMITS.drills));
}

function mergedNames(a: ShelfContents, b: ShelfContents): ShelfContents['named'] {
  const found = new Map(a.named.map((n) => [n.key, n]));
  for (const n of b.named) {
    const own = found.get(n.key);
    found.set(n.key, mergedNamed(own ?? n, n));
  }
  return [...found.values()].map((n) => mergedNamed(n, n)).sort((x, y) => (x.key < y.key ? -1 : 1));
}

function united<T extends { readonly id: string }>(
  a: readonly T[],
  b: readonly T[],
  pick: (x: T, y: T) => T,
): readonly T[] {
  const found = new Map(a.map((x) => [x.id, x]));
  for (const x of b) {
    const own = found.get(x.id);
    found.set(x.id, own ? pick(own, x) : x);
  }
  return byId([...found.values()]);
}

/** Of two that differ the one with the greater text: any rule does that is the same on every device. */
function greater<T>(x: T, y: T): T {
  return stableJson(x) >= stableJson(y) ? x : y;
}

/** Tries of another shelf that are not had here, or are told differently there and stand. */
export function triesToTake(had: ReadonlyMap<string, Attempt>, theirs: readonly Attempt[]): readonly Attempt[] {
  return theirs.filter((t) => {
    const own = had.get(t.id);
    return !own || (own !== t && standsOver(t, own));
  });
}

/** Of a try that is told differently on two devices the one that was corrected later stands, or was taken out later. */
function standsOver(t: Attempt, own: Attempt): boolean {
  const [then, now] = [t.corrected ?? 0, own.corrected ?? 0];
  return then === now ? stableJson(own) < stableJson(t) : then > now;
}

function mergedTries(a: readonly Attempt[], b: readonly Attempt[]): readonly Attempt[] {
  const all = new Map(a.map((t) => [t.id, t]));
  for (const t of triesToTake(all, b)) all.set(t.id, t);
  return byId([...all.values()]);
}

function newestTake(a: KeptTake, b: KeptTake): number {
  return b.at - a.at || (a.id < b.id ? 1 : a.id > b.id ? -1 : 0);
}

function idOrder(a: { readonly id: string }, b: { readonly id: string }): number {
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}

function byId<T extends { readonly id: string }>(list: readonly T[]): readonly T[] {
  return [...list].sort(idOrder);
}

/** What a merge of `theirs` into `ours` came to, where `result` is the two merged. */
export function mergeReport(ours: ShelfContents, theirs: ShelfContents, result: ShelfContents): MergeReport {
  const byPhrase = (s: ShelfContents): ReadonlyMap<string, Phrase> => new Map(s.phrases.map((p) => [p.id, p]));
  const [own, other, after] = [byPhrase(ours), byPhrase(theirs), byPhrase(result)];
  const off = new Map(ours.removals.map((r) => [r.id, r]));
  const gone = new Map(result.removals.map((r) => [r.id, r]));
  const lines: MergeLine[] = [];
  for (const p of theirs.phrases) {
    const [before, now] = [own.get(p.id), after.get(p.id)];
    const kind = !now ? 'stays off' : before ? changedKind(before, p, now) : off.has(p.id) ? 'back' : 'new';
    if (kind) lines.push({ kind, id: p.id, name: (now ?? p).name });
  }
  for (const p of ours.phrases)
    if (!after.has(p.id) && gone.has(p.id) && !other.has(p.id))
      lines.push({ kind: 'taken off', id: p.id, name: p.name });
  const added = (a: readonly { id: string }[], b: readonly { id: string }[]): number => {
    const had = new Set(a.map((x) => x.id));
    return b.filter((x) => !had.has(x.id)).length;
  };
  const changed = <T extends object>(a: readonly T[], b: readonly T[], key: (x: T) => string): readonly string[] => {
    const had = new Map(a.map((x) => [key(x), stableJson(x)]));
    return b.filter((x) => had.get(key(x)) !== stableJson(x)).map(key);
  };
  return {
    lines,
    tries: added(ours.attempts, result.attempts),
    takes: added(ours.takes, result.takes),
    clips: changed(ours.clips, result.clips, (c) => c.id).length,
    clipsGone: added(result.clips, ours.clips),
    boards: changed(ours.boards, result.boards, (b) => b.id).length,
    shows: changed(ours.shows, result.shows, (s) => s.id).length,
    lessons: changed(ours.lessons, result.lessons, (l) => l.id).length,
    sittings: changed(ours.freeSittings, result.freeSittings, (s) => s.id).length,
    drills: changed(ours.drills, result.drills, (d) => d.id).length,
    named: changed(
      ours.named.map((n) => ({ key: n.key, value: n.value })),
      result.named.map((n) => ({ key: n.key, value: n.value })),
      (n) => n.key,
    ),
  };
}

function changedKind(ours: Phrase, theirs: Phrase, now: Phrase): MergeKind | null {
  const [a, b, c] = [ours, theirs, now].map(stableJson);
  if (a === b) return null;
  return c === a ? 'ours stands' : 'theirs stands';
}

const SAID: Readonly<Record<MergeKind, (n: number) => string>> = {
  new: (n) => count(n, 'new phrase'),
  'theirs stands': (n) =>
    `${count(n, 'phrase')} ${n === 1 ? 'is' : 'are'} newer in the file: ${n === 1 ? 'its' : 'their'} version is used, yours stays under Earlier versions`,
  'ours stands': (n) =>
    `${count(n, 'phrase')} ${n === 1 ? 'is' : 'are'} newer here: yours is used, the file’s version stays under Earlier versions`,
  'taken off': (n) => `${count(n, 'phrase')} taken off the shelf in the file`,
  'stays off': (n) => `${count(n, 'phrase')} you took off the shelf: ${n === 1 ? 'it stays' : 'they stay'} off`,
  back: (n) => `${count(n, 'phrase')} you took off, kept in the file since: on the shelf again`,
};

/**
 * The lines of a report by their kind, each kind in words.
 * @example
 * mergeGroups([{ kind: 'new', id: 'a', name: 'A' }])[0].words // => "1 new phrase"
 */
export function mergeGroups(
  lines: readonly MergeLine[],
): readonly { readonly kind: MergeKind; readonly words: string; readonly lines: readonly MergeLine[] }[] {
  const kinds: readonly MergeKind[] = ['new', 'theirs stands', 'ours stands', 'back', 'taken off', 'stays off'];
  return kinds.flatMap((kind) => {
    const own = lines.filter((l) => l.kind === kind);
    return own.length > 0 ? [{ kind, words: SAID[kind](own.length), lines: own }] : [];
  });
}
