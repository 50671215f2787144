import { mod } from '../../base';
import { isHand } from '../../stroke';
import { runsOf, type Pattern } from '../../pattern';
import type { Each, Pick } from './pick';
import type { Stretch } from '../../selection';
import { firstSlot, partsOf, type Ways } from './stretches';

/** Strokes by index, in order. */
export type StrokeIndexes = readonly number[];

/** Choices that differ. */
export function distinct(lists: readonly StrokeIndexes[]): readonly StrokeIndexes[] {
  const seen = new Set<string>();
  return lists.filter((l) => !seen.has(l.join()) && seen.add(l.join()));
}

/** The ordinal of a picking, among what the rest of it lets through. */
export function inOrder(pick: Pick, pattern: Pattern, list: StrokeIndexes): Ways<StrokeIndexes> {
  const { order } = pick;
  const wrong = (why: string): Ways<StrokeIndexes> => ({ wrong: pick.said, why });
  if (!order) return { ways: [list] };
  const at = (i: number): number => pattern.strokes[i]?.at ?? 0;
  const moments = [...new Set(list.map(at))];
  const on = (ticks: readonly number[]): StrokeIndexes => list.filter((i) => ticks.includes(at(i)));
  switch (order.kind) {
    case 'first':
    case 'last': {
      if (pick.grid !== undefined) return { ways: [on(slotsOf(pick, pattern) ?? [])] };
      if (moments.length < order.n) return wrong(`There are only ${moments.length}.`);
      return { ways: [on(order.kind === 'first' ? moments.slice(0, order.n) : moments.slice(-order.n))] };
    }
    case 'nth': {
      if (pick.grid !== undefined) return { ways: [on(slotsOf(pick, pattern) ?? [])] };
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
      return { ways: distinct([once, each.sort((a, b) => a - b)]) };
    }
    case 'every': {
      if (order.of === 'stroke' && pick.grid === undefined) {
        const nth = (offset: number): StrokeIndexes => on(moments.filter((_, k) => k % order.n === offset));
        // Of every other one it is not said which is the first.
        return { ways: order.n === 2 && !order.first ? [nth(0), nth(1)] : [nth(0)] };
      }
      const from = firstSlot(pick, pattern);
      const step = order.n * (pick.grid ?? pattern.grid);
      return { ways: [list.filter((i) => at(i) >= from && mod(at(i) - from, step) === 0)] };
    }
    case 'next':
      // Found among what was last spoken of (choose.ts).
      return { ways: [list] };
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
      return order.many === undefined
        ? ofEach(pick, pattern, list, order.which, order.each)
        : manyOfEach(pattern, list, order.which === 'last' ? -order.many : order.many, order.each);
    case 'middle':
      return middleOfEach(pick, pattern, list, order.each);
  }
}

/** Two strokes of one hand on neighbouring slots, by index. */
function doublesIn(pattern: Pattern, list: StrokeIndexes): readonly (readonly number[])[] {
  const hands = list.flatMap((i) => {
    const s = pattern.strokes[i];
    return s && isHand(s.limb) ? [{ ...s, i }] : [];
  });
  return runsOf(hands, (a, b) => a.limb === b.limb && b.at - a.at <= pattern.grid)
    .filter((r) => r.length === 2)
    .map((r) => r.flatMap((n) => hands[n]?.i ?? []));
}

function ofEach(
  pick: Pick,
  pattern: Pattern,
  list: StrokeIndexes,
  which: number | 'last',
  each: Each,
): Ways<StrokeIndexes> {
  if (each === 'double') {
    const runs = doublesIn(pattern, list);
    if (runs.length === 0) return { wrong: 'double', why: 'There is no double here.' };
    const place = which === 'last' ? 1 : which - 1;
    return { ways: [runs.flatMap((r) => r[place] ?? [])] };
  }
  const at = (i: number): number => pattern.strokes[i]?.at ?? 0;
  return {
    ways: distinct(
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

/** The first slots of each part, or the last where `many` is below zero. */
function manyOfEach(pattern: Pattern, list: StrokeIndexes, many: number, each: Each): Ways<StrokeIndexes> {
  if (each === 'double') return { ways: [list.filter((i) => doublesIn(pattern, list).some((r) => r.includes(i)))] };
  return inParts(pattern, list, each, (at, p) =>
    many > 0 ? at < p.from + many * pattern.grid : at >= p.until + many * pattern.grid,
  );
}

/** What stands half way: the middle one of three or five, the third of four. */
function middleOfEach(pick: Pick, pattern: Pattern, list: StrokeIndexes, each: Each): Ways<StrokeIndexes> {
  if (each === 'double') return { wrong: pick.said, why: 'A double has no middle stroke.' };
  const { grid } = pattern;
  return inParts(pattern, list, each, (at, p) => at === p.from + Math.floor((p.until - p.from) / grid / 2) * grid);
}

function inParts(
  pattern: Pattern,
  list: StrokeIndexes,
  each: Exclude<Each, 'double'>,
  holds: (at: number, part: Stretch) => boolean,
): Ways<StrokeIndexes> {
  const at = (i: number): number => pattern.strokes[i]?.at ?? 0;
  return {
    ways: distinct(
      partsOf(pattern, each).map((parts) =>
        parts.flatMap((p) => list.filter((i) => at(i) >= p.from && at(i) < p.until && holds(at(i), p))),
      ),
    ),
  };
}

/** The slots of a grid that an ordinal names, whether anything is struck there; null where it names strokes only. */
export function slotsOf(pick: Pick, pattern: Pattern): readonly number[] | null {
  const { order, grid } = pick;
  if (!order || grid === undefined) return null;
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
    case 'middle':
    case 'doubles':
    case 'singles':
    case 'range':
    case 'next':
      return null;
  }
}
