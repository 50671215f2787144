import { mod } from '../../base';
import { barTicks, beatTicks, countAt, countedBeats, parseCount, unitTicks, USUAL_SCHOOLS } from '../../time';
import { isHand, type Limb } from '../../stroke';
import {
  barsSpan,
  countingOf,
  landingAt,
  runsOf,
  select,
  selectorFor,
  type Pattern,
  type Selector,
} from '../../pattern';
import { LAST, type BarSaid, type CountSaid, type Each, type Pick } from './pick';

/** What a line has said so far, for "them", "the rest" and "it". */
export interface Before {
  readonly pattern: Pattern;
  /** Strokes that were last spoken of, by tick and limb; null when none were. */
  readonly them: ReadonlySet<string> | null;
}

/** Several ways to understand what was said, or the words that cannot be met and why. */
export type Ways<T> = { readonly ways: readonly T[] } | { readonly wrong: string; readonly why: string };

export const keyOf = ({ at, limb }: { readonly at: number; readonly limb: Limb }): string => `${at} ${limb}`;

export function isWrong<T>(w: Ways<T>): w is { readonly wrong: string; readonly why: string } {
  return 'wrong' in w;
}

/** How a count that is said of strokes is meant: its stroke, the whole beat, or both are possible. */
export type BeatMeaning = 'count' | 'beat' | 'ask' | 'ask-beat';

interface Stretch {
  readonly from: number;
  readonly until: number;
}

/** The stretches a count stands for, from the pattern's start: a slot, or a beat; in every bar where none is said. */
export function stretchesOf(
  pattern: Pattern,
  c: CountSaid,
  as: 'count' | 'beat',
  bars?: readonly BarSaid[],
): readonly Stretch[] | null {
  const bar = barTicks(pattern.meter);
  const { bars: many } = barsSpan(pattern);
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const own = bars?.map((b) => (b === 'last' ? many : b));
  const wanted = c.bar !== null ? [c.bar] : (own ?? Array.from({ length: many }, (_, i) => i + 1));
  const beats = countedBeats(pattern.meter);
  if (c.beat === LAST) {
    const last = beats.at(-1)?.number ?? 1;
    return stretchesOf(pattern, { ...c, bar: c.bar ?? (bars ? null : many), beat: last }, as, bars);
  }
  const numbers = c.beat !== null ? [c.beat] : beats.map((b) => b.number);
  const out: Stretch[] = [];
  for (const n of numbers) {
    const tick = parseCount(`${n}${c.syllable}`, counting);
    if (tick === null) return null;
    const long = as === 'beat' ? beatLength(pattern, n) : pattern.grid;
    for (const b of wanted) {
      const from = (b - 1) * bar + tick - pattern.start;
      if (from < pattern.length && from + long > 0) out.push({ from, until: from + long });
    }
  }
  return out;
}

function beatLength(pattern: Pattern, beat: number): number {
  const beats = countedBeats(pattern.meter);
  const [own, next] = [beats.find((b) => b.number === beat), beats.find((b) => b.number === beat + 1)];
  if (!own) return beatTicks(pattern.meter);
  return (next?.start ?? barTicks(pattern.meter)) - own.start;
}

/** Where each of what is counted begins and ends, in ticks from the pattern's start. */
function partsOf(pattern: Pattern, each: 'beat' | 'bar' | 'group' | 'repeat'): readonly (readonly Stretch[])[] {
  const bar = barTicks(pattern.meter);
  const end = pattern.length;
  const inBars = (starts: readonly number[]): readonly Stretch[] => {
    const all: number[] = [];
    for (let b = 0; b * bar < pattern.start + end; b++) for (const s of starts) all.push(b * bar + s - pattern.start);
    const inside = all.filter((t) => t < end);
    return inside.map((from, i) => ({ from, until: inside[i + 1] ?? end })).filter((s) => s.until > 0);
  };
  const cells = pattern.groups.filter((g) => g.kind !== 'land').map((g) => ({ from: g.at, until: g.at + g.length }));
  const meterGroups = (): readonly Stretch[] => {
    let at = 0;
    const starts = pattern.meter.groups.map((g) => {
      const s = at;
      at += g * unitTicks(pattern.meter);
      return s;
    });
    return inBars(starts);
  };
  switch (each) {
    case 'bar':
      return [inBars([0])];
    case 'beat':
      return [inBars(beatStarts(pattern))];
    case 'repeat':
      return [cells];
    case 'group':
      return cells.length > 1 && pattern.meter.groups.length > 1
        ? [cells, meterGroups()]
        : cells.length > 1
          ? [cells]
          : [meterGroups()];
  }
}

/** Quarters in meters of quarters and eighths; dotted beats in compound ones. */
function beatStarts(pattern: Pattern): readonly number[] {
  const beat = beatTicks(pattern.meter);
  return Array.from({ length: Math.ceil(barTicks(pattern.meter) / beat) }, (_, i) => i * beat);
}

/** Which limbs are meant: "the left foot" is whatever pedal it plays here. */
export function limbsHere(pattern: Pattern, { limb }: Pick): readonly Limb[] | null {
  if (!limb) return null;
  if (!limb.open) return limb.limbs;
  const plays = limb.limbs.filter((l) => pattern.strokes.some((s) => s.limb === l));
  return plays.length > 0 ? plays : limb.limbs;
}

type Choice = readonly number[];

/**
 * The strokes that are meant, by index, in order: one list for each way to understand it. `beats` says what a beat or a
 * bare number stands for.
 */
export function chosen(pick: Pick, before: Before, beats: BeatMeaning = 'count'): Ways<Choice> {
  if (pick.until) {
    // "Until" leaves the last one out, or takes it in.
    const { until, ...rest } = pick;
    const [without, withIt] = [
      chosen({ ...rest, before: until }, before, beats),
      chosen({ ...rest, to: until }, before, beats),
    ];
    if (isWrong(without)) return withIt;
    return isWrong(withIt) ? without : { ways: unlike([...without.ways, ...withIt.ways]) };
  }
  const { pattern } = before;
  const wrong = (why: string): Ways<Choice> => ({ wrong: pick.said, why });
  const strokes = pattern.strokes;
  const landing = landingAt(pattern) ?? Infinity;
  let list: number[] = strokes.flatMap((s, i) => (s.at < landing || pick.bars ? [i] : []));
  if (pick.base === 'them' || pick.base === 'else') {
    const { them } = before;
    if (!them) return wrong('Nothing was spoken of before.');
    list = list.filter((i) => {
      const s = strokes[i];
      return s !== undefined && them.has(keyOf(s)) === (pick.base === 'them');
    });
  }
  const limbs = limbsHere(pattern, pick) ?? pick.limbs ?? null;
  if (limbs) list = list.filter((i) => limbs.includes(strokes[i]?.limb ?? 'K'));
  if (pick.levels) list = list.filter((i) => pick.levels?.includes(strokes[i]?.level ?? 'tap'));
  if (pick.voices) list = list.filter((i) => pick.voices?.includes(strokes[i]?.voice ?? 'kick'));
  if (pick.ornaments) list = list.filter((i) => pick.ornaments?.some((o) => o === strokes[i]?.ornament));
  const spans = restricted(pick, pattern);
  if ('why' in spans) return spans;
  list = list.filter((i) => spans.inside(strokes[i]?.at ?? 0));
  let lists: readonly Choice[] = [list];
  if (pick.counts) {
    const { counts } = pick;
    const meanings: readonly ('count' | 'beat')[] = counts.some(
      (c) => c.as === 'whole' || (c.as === 'beat' && pick.everything),
    )
      ? ['beat']
      : asksBeat(pick, counts, beats)
        ? ['count', 'beat']
        : beats === 'beat' && counts.every((c) => c.syllable === '' && c.beat !== null)
          ? ['beat']
          : ['count'];
    const found: Choice[] = [];
    for (const as of meanings) {
      const all: Stretch[] = [];
      for (const c of counts) {
        const own = stretchesOf(pattern, c, as, pick.bars);
        if (own === null) return wrong(`There is no ${countSaid(c)} here.`);
        const some = own.some((s) => list.some((i) => isIn(strokes[i]?.at ?? 0, s, as)));
        if (!some) return wrong(`Nothing is played on ${countSaid(c)}.`);
        all.push(...own);
      }
      found.push(list.filter((i) => all.some((s) => isIn(strokes[i]?.at ?? 0, s, as))));
    }
    lists = unlike(found);
  }
  if (pick.order) {
    const ordered = lists.map((l) => inOrder(pick, pattern, l));
    const bad = ordered.find(isWrong);
    if (bad) return bad;
    lists = unlike(ordered.flatMap((o) => ('ways' in o ? o.ways : [])));
  }
  for (const e of pick.except ?? []) {
    const out = chosen(among(e, pick), before, 'count');
    if (isWrong(out)) return out;
    lists = unlike(lists.flatMap((l) => out.ways.map((w) => l.filter((i) => !w.includes(i)))));
  }
  if (pick.and) {
    // Each of what is named together must be there.
    if (lists.every((l) => l.length === 0)) return wrong('There are none here.');
    const more = chosen(pick.and, before, beats);
    if (isWrong(more)) return more;
    lists = lists.flatMap((l) => more.ways.map((m) => [...new Set([...l, ...m])].sort((a, b) => a - b)));
  }
  const full = lists.filter((l) => l.length > 0);
  return full.length > 0 ? { ways: full } : wrong('There are none here.');
}

/** "All ghosts except the first": the first of the ghosts. An order that is taken out counts in what is meant. */
function among(e: Pick, pick: Pick): Pick {
  if (!e.order || e.limb || e.levels || e.voices || e.counts || e.bars) return e;
  const { except: _, and: __, order: ___, ...rest } = pick;
  return { ...rest, order: e.order, ...(e.grid === undefined ? {} : { grid: e.grid }) };
}

/** Whether a number can stand for its whole beat: "beat 4" where strokes are sent, "3" too where they are left out. */
function asksBeat({ base, limb, levels, voices }: Pick, counts: readonly CountSaid[], beats: BeatMeaning): boolean {
  if (base !== null || limb || levels || voices) return false;
  if (!counts.every((c) => c.syllable === '' && c.beat !== null)) return false;
  return beats === 'ask' || (beats === 'ask-beat' && counts.every((c) => c.as === 'beat'));
}

function isIn(at: number, { from, until }: Stretch, as: 'count' | 'beat'): boolean {
  return as === 'count' ? at === from : at >= from && at < until;
}

export function countSaid(c: CountSaid): string {
  const beat = c.beat === LAST ? 'last beat' : (c.beat ?? '');
  return `${c.bar === null ? '' : `bar ${c.bar}, `}${c.syllable === '' ? `${beat}` : `the ${c.syllable} of ${beat}`}`;
}

function unlike(lists: readonly Choice[]): readonly Choice[] {
  const seen = new Set<string>();
  return lists.filter((l) => !seen.has(l.join()) && seen.add(l.join()));
}

/** Bars, halves and what stands before or after a count, as a test of ticks. */
function restricted(
  pick: Pick,
  pattern: Pattern,
): { readonly inside: (at: number) => boolean } | { readonly wrong: string; readonly why: string } {
  const bar = barTicks(pattern.meter);
  const { bars: many } = barsSpan(pattern);
  const tests: ((at: number) => boolean)[] = [];
  if (pick.bars) {
    const own = pick.bars.map((b) => (b === 'last' ? many : b));
    const none = own.find((b) => b < 1 || b > many);
    if (none !== undefined)
      return { wrong: `bar ${none}`, why: many === 1 ? 'There is one bar.' : `There are ${many} bars.` };
    tests.push((at) => own.includes(Math.floor((pattern.start + at) / bar) + 1));
  }
  if (pick.half !== undefined) {
    // Half of a bar that is named, else of the phrase.
    const inBar = pick.bars !== undefined;
    const middle = (inBar ? bar : pattern.length) / 2;
    tests.push((at) => (inBar ? mod(pattern.start + at, bar) : at) < middle === (pick.half === 1));
  }
  const edge = (c: CountSaid): number | null => {
    const tick = parseCount(`${c.beat ?? 1}${c.syllable}`, countingOf(pattern, USUAL_SCHOOLS));
    return tick === null ? null : tick + ((c.bar ?? 1) - 1) * bar;
  };
  const place = (at: number, c: CountSaid): number =>
    c.bar === null ? mod(pattern.start + at, bar) : pattern.start + at;
  const compared: readonly (readonly [CountSaid | undefined, (at: number, t: number) => boolean])[] = [
    [pick.before, (at, t) => at < t],
    [pick.after, (at, t) => at > t],
    [pick.since, (at, t) => at >= t],
    [pick.to, (at, t) => at <= t],
  ];
  for (const [c, holds] of compared) {
    if (!c) continue;
    const t = edge(c);
    if (t === null) return { wrong: pick.said, why: `There is no ${countSaid(c)} here.` };
    tests.push((at) => holds(place(at, c), t));
  }
  return { inside: (at) => tests.every((test) => test(at)) };
}

/** Strokes of which nothing was said. */
export const ANY: Pick = Object.freeze({ base: 'all', said: '' });

/** So many counts are read at a glance. */
const MOST_COUNTS = 12;

/** The selector that says what was said, where it chooses exactly these strokes; else the shortest one that does. */
export function selectorOf(pick: Pick, pattern: Pattern, own: readonly number[]): Selector {
  const same = (s: Selector): boolean => select(pattern, s).join() === own.join();
  const limbs = limbsHere(pattern, pick);
  const { bars: many } = barsSpan(pattern);
  const [first] = pick.counts ?? [];
  const bar = first && pick.counts?.every((c) => c.bar === first.bar) ? first.bar : null;
  const plain: Selector = {
    ...(limbs ? { limbs: [...limbs] } : {}),
    ...(pick.levels ? { levels: [...pick.levels] } : {}),
    ...(pick.voices ? { voices: [...pick.voices] } : {}),
    ...(pick.counts ? { counts: pick.counts.map((c) => `${c.beat ?? ''}${c.syllable}`) } : {}),
    ...(pick.bars ? { bars: pick.bars.map((b) => (b === 'last' ? many : b)) } : bar !== null ? { bars: [bar] } : {}),
  };
  if (same(plain)) return plain;
  if (pick.order?.kind === 'of' && pick.order.which !== 'last') {
    const { each, which } = pick.order;
    const run = which === 1 || which === 2 ? which : undefined;
    const said: Selector | null =
      each === 'double' && run ? { ...plain, inRun: run } : each === 'repeat' ? { ...plain, places: [which] } : null;
    if (said && same(said)) return said;
  }
  if (pick.order?.kind === 'every' && pick.grid === undefined) {
    const { n, of } = pick.order;
    for (const offset of of === 'slot' ? [firstSlot(pick, pattern) / pattern.grid] : [0, 1]) {
      const every: Selector = { ...plain, every: { n, offset, of } };
      if (Number.isInteger(offset) && same(every)) return every;
    }
  }
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const counts = own.map((i) => countAt(pattern.start + (pattern.strokes[i]?.at ?? 0), counting).text);
  const counted: Selector = {
    ...(limbs ? { limbs: [...limbs] } : {}),
    counts: [...new Set(counts)],
    ...(plain.bars ? { bars: plain.bars } : {}),
  };
  // What was said by counts or by its order is said by counts, where they are not too many to be read.
  const byCount = (pick.counts ?? pick.order ?? pick.before ?? pick.after ?? pick.since) !== undefined;
  if (byCount && counted.counts && counted.counts.length <= MOST_COUNTS && same(counted)) return counted;
  const shortest = selectorFor(pattern, own);
  // In a phrase of one cell a count says more than "the fifth of every group".
  return (shortest.places || shortest.ticks) && pattern.groups.length < 2 && same(counted) ? counted : shortest;
}

/** The tick from which slots are counted: that of a count that was said, else the beginning. */
function firstSlot({ since }: Pick, pattern: Pattern): number {
  if (!since) return 0;
  const tick = parseCount(`${since.beat ?? 1}${since.syllable}`, countingOf(pattern, USUAL_SCHOOLS));
  return Math.max(0, (tick ?? 0) + ((since.bar ?? 1) - 1) * barTicks(pattern.meter) - pattern.start);
}

/** The ordinal of a picking, among what the rest of it lets through. */
function inOrder(pick: Pick, pattern: Pattern, list: Choice): Ways<Choice> {
  const { order } = pick;
  const wrong = (why: string): Ways<Choice> => ({ wrong: pick.said, why });
  if (!order) return { ways: [list] };
  const at = (i: number): number => pattern.strokes[i]?.at ?? 0;
  const moments = [...new Set(list.map(at))];
  const on = (ticks: readonly number[]): Choice => list.filter((i) => ticks.includes(at(i)));
  switch (order.kind) {
    case 'first':
    case 'last': {
      if (pick.grid !== undefined) return { ways: [on(slotsOf(pick, pattern))] };
      if (moments.length < order.n) return wrong(`There are only ${moments.length}.`);
      return { ways: [on(order.kind === 'first' ? moments.slice(0, order.n) : moments.slice(-order.n))] };
    }
    case 'nth': {
      if (pick.grid !== undefined) return { ways: [on(slotsOf(pick, pattern))] };
      const m = moments[order.n - 1];
      if (m === undefined) return wrong(`There are only ${moments.length}.`);
      const once = on([m]);
      // In a phrase that was filled the same stroke comes in every repeat.
      const cells = pattern.groups.filter((g) => g.kind === 'cell').length;
      if (order.very || cells < 2 || pick.bars) return { ways: [once] };
      const all = new Map<number, number[]>();
      for (const i of list) {
        const r = pattern.strokes[i]?.from.repeat ?? 0;
        all.set(r, [...(all.get(r) ?? []), i]);
      }
      const each = [...all.values()].flatMap((own) => {
        const ticks = [...new Set(own.map(at))];
        const t = ticks[order.n - 1];
        return own.filter((i) => at(i) === t);
      });
      return { ways: unlike([once, each.sort((a, b) => a - b)]) };
    }
    case 'every': {
      if (order.of === 'stroke' && pick.grid === undefined) {
        const nth = (offset: number): Choice => on(moments.filter((_, k) => k % order.n === offset));
        // Of every other one it is not said which is the first.
        return { ways: order.n === 2 ? [nth(0), nth(1)] : [nth(0)] };
      }
      const from = firstSlot(pick, pattern);
      const step = order.n * (pick.grid ?? pattern.grid);
      return { ways: [list.filter((i) => at(i) >= from && mod(at(i) - from, step) === 0)] };
    }
    case 'range': {
      if (order.to > moments.length || order.from < 1) return wrong(`There are only ${moments.length}.`);
      return { ways: [on(moments.slice(order.from - 1, order.to))] };
    }
    case 'doubles':
    case 'singles': {
      const runs = doublesIn(pattern, list);
      const inside = new Set(runs.flat());
      const own = list.filter(
        (i) => isHand(pattern.strokes[i]?.limb ?? 'K') && inside.has(i) === (order.kind === 'doubles'),
      );
      return own.length > 0 ? { ways: [own] } : wrong(`There are no ${order.kind} here.`);
    }
    case 'of':
      return ofEach(pick, pattern, list, order.which, order.each);
  }
}

/** Two strokes of one hand on neighbouring slots, by index. */
function doublesIn(pattern: Pattern, list: Choice): readonly (readonly number[])[] {
  const hands = list.flatMap((i) => {
    const s = pattern.strokes[i];
    return s && isHand(s.limb) ? [{ ...s, i }] : [];
  });
  return runsOf(hands, (a, b) => a.limb === b.limb && b.at - a.at <= pattern.grid)
    .filter((r) => r.length === 2)
    .map((r) => r.flatMap((n) => hands[n]?.i ?? []));
}

function ofEach(pick: Pick, pattern: Pattern, list: Choice, which: number | 'last', each: Each): Ways<Choice> {
  if (each === 'double') {
    const runs = doublesIn(pattern, list);
    if (runs.length === 0) return { wrong: 'double', why: 'There is no double here.' };
    const place = which === 'last' ? 1 : which - 1;
    return { ways: [runs.flatMap((r) => r[place] ?? [])] };
  }
  const at = (i: number): number => pattern.strokes[i]?.at ?? 0;
  return {
    ways: unlike(
      partsOf(pattern, each).map((parts) =>
        parts.flatMap((p) => {
          const own = list.filter((i) => at(i) >= p.from && at(i) < p.until);
          if (pick.grid !== undefined || which !== 'last') {
            // The first of a beat is what stands there, not what comes later.
            const moments = [...new Set(own.map(at))];
            const t =
              which === 'last' ? p.until - pattern.grid : which === 1 ? Math.max(p.from, 0) : moments[which - 1];
            return own.filter((i) => at(i) === t);
          }
          const last = own.reduce((most, i) => Math.max(most, at(i)), -1);
          return own.filter((i) => at(i) === last);
        }),
      ),
    ),
  };
}

/** The slots of a grid that an ordinal names, whether anything is struck there. */
function slotsOf(pick: Pick, pattern: Pattern): readonly number[] {
  const { order, grid } = pick;
  if (!order || grid === undefined) return [];
  const all: number[] = [];
  for (let t = 0; t < pattern.length; t += grid) all.push(t);
  switch (order.kind) {
    case 'first':
      return all.slice(0, order.n);
    case 'last':
      return all.slice(-order.n);
    case 'nth':
      return all.slice(order.n - 1, order.n);
    case 'every':
      return all.filter((_, i) => i % order.n === 0);
    case 'of':
    case 'doubles':
    case 'singles':
    case 'range':
      return [];
  }
}

/** The places that are meant, struck or not, in ticks from the start; null where only strokes can be meant. */
export function places(pick: Pick, pattern: Pattern): Ways<readonly number[]> | null {
  const wrong = (why: string): Ways<readonly number[]> => ({ wrong: pick.said, why });
  const spans = restricted(pick, pattern);
  if ('why' in spans) return spans;
  if (pick.limb || pick.levels || pick.voices || pick.ornaments || pick.base) return null;
  if (pick.and) {
    const { and, ...rest } = pick;
    const [one, more] = [places(rest, pattern), places(and, pattern)];
    if (one === null || more === null || isWrong(one)) return one === null || more === null ? null : one;
    if (isWrong(more)) return more;
    return { ways: [[...new Set([...(one.ways[0] ?? []), ...(more.ways[0] ?? [])])].sort((a, b) => a - b)] };
  }
  if (pick.counts) {
    const all: number[] = [];
    for (const c of pick.counts) {
      const whole = c.as === 'whole';
      const own = stretchesOf(pattern, c, whole ? 'beat' : 'count', pick.bars);
      if (own === null) return wrong(`There is no ${countSaid(c)} here.`);
      const inside = own.filter((s) => s.from >= 0 && spans.inside(s.from));
      if (inside.length === 0) return wrong(`There is no ${countSaid(c)} here.`);
      for (const s of inside)
        for (let t = s.from; t < s.until; t += pattern.grid) if (whole || t === s.from) all.push(t);
    }
    const out = [...new Set(all)].sort((a, b) => a - b);
    for (const e of pick.except ?? []) {
      const less = places(e, pattern);
      if (less === null || isWrong(less)) return less;
      return { ways: [out.filter((t) => !less.ways[0]?.includes(t))] };
    }
    return { ways: [out] };
  }
  if (pick.order) {
    if (
      pick.order.kind === 'of' ||
      pick.order.kind === 'doubles' ||
      pick.order.kind === 'singles' ||
      pick.order.kind === 'range'
    )
      return null;
    const own = slotsOf({ ...pick, grid: pick.grid ?? pattern.grid }, pattern).filter(spans.inside);
    return own.length > 0 ? { ways: [own] } : wrong('There are none here.');
  }
  if (pick.bars || pick.half !== undefined) {
    const own: number[] = [];
    for (let t = 0; t < pattern.length; t += pattern.grid) if (spans.inside(t)) own.push(t);
    return { ways: [own] };
  }
  return null;
}
