import { checkedAt } from '../../base';
import { landingAt, type Pattern } from '../../pattern';
import type { CountSaid } from './counts';
import { inOrder, distinct, type StrokeIndexes } from './ordered';
import { eitherWay } from './either';
import { ORDINAL_ONLY, type Pick } from './pick';
import { countSaid, isIn, isWrong, keyOf, limbsHere, restricted, stretchesOf, type Ways } from './stretches';

/** What a line has said so far, for "them", "the rest" and "it". */
export interface Before {
  readonly pattern: Pattern;
  /** Strokes that were last spoken of, by tick and limb; null when none were. */
  readonly them: ReadonlySet<string> | null;
  /** All that was spoken of in the line so far: "the rest" is what is not among it. */
  readonly spoken?: ReadonlySet<string>;
  /** The clause before named strokes, so that they need not be named again. */
  readonly isNamed?: boolean;
  /** Where one of several was spoken of, as "the first accent": all of them. */
  readonly kin?: ReadonlySet<string> | undefined;
}

/** How a count that is said of strokes is meant: its stroke, the whole beat, or both are possible. */
export type BeatMeaning = 'count' | 'beat' | 'ask' | 'ask-beat';

/**
 * The strokes that are meant, by index, in order: one list for each way to understand it. `beats` says what a beat or a
 * bare number stands for.
 */
export function chosen(pick: Pick, before: Before, beats: BeatMeaning = 'count'): Ways<StrokeIndexes> {
  // What goes unsaid was named before.
  if (pick.base === 'them' && pick.said === '' && before.isNamed !== true)
    return { wrong: '', why: 'Say which strokes.' };
  if (pick.others) {
    const { others: _, ...rest } = pick;
    const all = chosen(rest, before, beats);
    const { kin } = before;
    if (isWrong(all) || !kin) return all;
    const isKin = (i: number): boolean => kin.has(keyOf(before.pattern.strokes[i] ?? { at: -1, limb: 'R' }));
    const own = all.ways.map((way) => way.filter(isKin)).filter((way) => way.length > 0);
    return { ways: distinct([...own, ...all.ways]) };
  }
  const either = eitherWay(pick, before.pattern);
  if (either) {
    const [without, withIt] = either.map((p) => chosen(p, before, beats));
    if (!without || !withIt) return { ways: [] };
    if (isWrong(without)) return withIt;
    return isWrong(withIt) ? without : { ways: distinct([...without.ways, ...withIt.ways]) };
  }
  const { pattern } = before;
  const wrong = (why: string): Ways<StrokeIndexes> => ({ wrong: pick.said, why });
  const strokes = pattern.strokes;
  const landing = landingAt(pattern) ?? Infinity;
  let list: number[] = strokes.flatMap((s, i) => (s.at < landing || pick.bars ? [i] : []));
  const { them } = before;
  if (pick.base === 'them' || pick.base === 'else' || (pick.base === 'it' && them)) {
    if (!them) return wrong('Say which strokes: none were named before.');
    const isElse = pick.base === 'else';
    const named = isElse ? (before.spoken ?? them) : them;
    list = list.filter((i) => {
      const s = strokes[i];
      return s !== undefined && named.has(keyOf(s)) !== isElse;
    });
  }
  const limbs = limbsHere(pattern, pick);
  if (limbs) list = list.filter((i) => limbs.includes(strokes[i]?.limb ?? 'K'));
  if (pick.levels) list = list.filter((i) => pick.levels?.includes(checkedAt(strokes, i, 'stroke').level));
  if (pick.voices) list = list.filter((i) => pick.voices?.includes(checkedAt(strokes, i, 'stroke').voice));
  if (pick.ornaments) list = list.filter((i) => pick.ornaments?.some((o) => o === strokes[i]?.ornament));
  if (pick.where) {
    const there = chosen(pick.where, before, 'count');
    if (isWrong(there)) return there;
    const at = new Set((there.ways[0] ?? []).map((i) => strokes[i]?.at));
    list = list.filter((i) => at.has(strokes[i]?.at));
  }
  if (pick.beside) {
    const { how, what } = pick.beside;
    const there = chosen(what, { ...before, them: null }, 'count');
    if (isWrong(there)) return there;
    const moments = [...new Set(list.map((i) => checkedAt(strokes, i, 'stroke').at))];
    const next = (there.ways[0] ?? []).map((i) => {
      const { at } = checkedAt(strokes, i, 'stroke');
      return how === 'before' ? moments.findLast((t) => t < at) : moments.find((t) => t > at);
    });
    list = list.filter((i) => next.includes(strokes[i]?.at));
  }
  if (pick.repeat) {
    const repeats = list.map((i) => checkedAt(strokes, i, 'stroke').from.repeat);
    const wanted = pick.repeat === 'first' ? Math.min(...repeats) : Math.max(...repeats);
    list = list.filter((i) => strokes[i]?.from.repeat === wanted);
  }
  const spans = restricted(pick, pattern);
  if ('why' in spans) return spans;
  list = list.filter((i) => spans.inside(strokes[i]?.at ?? 0));
  if (pick.order?.kind === 'next') {
    const { n } = pick.order;
    if (!them) return wrong('Say behind which strokes.');
    const last = Math.max(...strokes.flatMap((s) => (them.has(keyOf(s)) ? [s.at as number] : [])), -1);
    const places = [...new Set(list.map((i) => strokes[i]?.at ?? 0))].filter((t) => t > last).slice(0, n);
    if (places.length < n) return wrong(`There are only ${places.length} behind them.`);
    list = list.filter((i) => places.some((t) => t === strokes[i]?.at));
  }
  let lists: readonly StrokeIndexes[] = [list];
  if (pick.counts) {
    const { counts } = pick;
    // Of strokes that are more than one, and of the first or last of some, a beat is all of the beat.
    const more = pick.everything ?? pick.many ?? (pick.base === 'all' || pick.order !== undefined);
    const meanings: readonly ('count' | 'beat')[] = counts.some((c) => c.as === 'whole' || (c.as === 'beat' && more))
      ? ['beat']
      : beats !== 'count' && isBeats(pick.said, counts)
        ? ['beat']
        : asksBeat(pick, counts, beats)
          ? ['count', 'beat']
          : beats === 'beat' && counts.every((c) => c.syllable === '' && c.beat !== null)
            ? ['beat']
            : ['count'];
    const found: StrokeIndexes[] = [];
    for (const as of meanings) {
      const all = new Set<number>();
      for (const c of counts) {
        const own = stretchesOf(pattern, c, as, pick.bars);
        if (own === null) return wrong(`There is no ${countSaid(c)} here.`);
        const heads = new Set(own.map((s) => s.from));
        const some = list.filter((i) => {
          const at = strokes[i]?.at ?? 0;
          return as === 'count' ? heads.has(at) : own.some((s) => isIn(at, s, as));
        });
        if (some.length === 0) return wrong(`Nothing is played on ${countSaid(c)}.`);
        for (const i of some) all.add(i);
      }
      found.push(list.filter((i) => all.has(i)));
    }
    lists = distinct(found);
  }
  if (pick.order) {
    const ordered = lists.map((l) => inOrder(pick, pattern, l));
    const bad = ordered.find(isWrong);
    if (bad) return bad;
    lists = distinct(ordered.flatMap((o) => ('ways' in o ? o.ways : [])));
  }
  for (const e of pick.except ?? []) {
    const out = chosen(among(e, pick), before, 'count');
    if (isWrong(out)) return out;
    lists = distinct(lists.flatMap((l) => out.ways.map((w) => l.filter((i) => !w.includes(i)))));
  }
  if (pick.and) {
    // Each of what is named together must be there.
    if (lists.every((l) => l.length === 0)) return wrong('There are none here.');
    const more = chosen(pick.and, before, beats);
    if (isWrong(more)) return more;
    lists = lists.flatMap((l) => more.ways.map((m) => [...new Set([...l, ...m])].sort((a, b) => a - b)));
  }
  const full = lists.filter((l) => l.length > 0);
  // "A right" is one of them.
  const { limb, levels, order, counts } = pick;
  const isAnyOne = limb && /^an? \S+$/i.test(pick.said) && (levels ?? order ?? counts ?? pick.voices) === undefined;
  if (isAnyOne && full.every((l) => l.length > 1))
    return full.length > 0 ? wrong('Say which one.') : wrong('There are none here.');
  if (pick.howMany !== undefined) {
    const asMany = full.filter((l) => new Set(l.map((i) => strokes[i]?.at)).size === pick.howMany);
    return asMany.length > 0 ? { ways: asMany } : wrong(`There are ${full[0]?.length ?? 0}.`);
  }
  return full.length > 0 ? { ways: full } : wrong('There are none here.');
}

/** "The first half …, the second …": the half, bar or beat that was not named again; null where it is a stroke. */
export function alikeOf(pick: Pick, last: Pick | undefined): Pick | null {
  const { order, said } = pick;
  if (!last || order?.kind !== 'nth' || !ORDINAL_ONLY.test(said)) return null;
  if (last.limb ?? last.levels ?? last.voices ?? last.order) return null;
  const [count, ...counts] = last.counts ?? [];
  if (last.half !== undefined && order.n === 2)
    return { base: null, half: 2, said, ...(last.halfOf ? { halfOf: last.halfOf } : {}) };
  if (last.bars?.length === 1 && !count) return { base: null, bars: [order.n], said };
  if (count && counts.length === 0 && count.as !== 'count' && count.beat !== null)
    return { base: null, counts: [{ ...count, beat: order.n }], said };
  return null;
}

/** "All ghosts except the first": the first of the ghosts. An order that is taken out counts in what is meant. */
function among(e: Pick, pick: Pick): Pick {
  if (!e.order || e.limb || e.levels || e.voices || e.counts || e.bars) return e;
  const { except: _, and: __, order: ___, ...rest } = pick;
  return { ...rest, order: e.order, ...(e.grid === undefined ? {} : { grid: e.grid }) };
}

const isBeats = (said: string, counts: readonly CountSaid[]): boolean =>
  counts.length > 1 && /\bbeats\b/i.test(said) && counts.every((c) => c.as === 'beat');

/** Whether a number can stand for its whole beat: "beat 4" where strokes are sent, "3" too where they are left out. */
function asksBeat(
  { base, limb, levels, voices, said }: Pick,
  counts: readonly CountSaid[],
  beats: BeatMeaning,
): boolean {
  if (base !== null || limb || levels || voices) return false;
  if (!counts.every((c) => c.syllable === '' && c.beat !== null)) return false;
  // "Beats 2 and 4" are all of both.
  if (isBeats(said, counts)) return false;
  return beats === 'ask' || (beats === 'ask-beat' && counts.every((c) => c.as === 'beat'));
}
