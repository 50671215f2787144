import { mod } from '../../base';
import { barTicks, beatTicks, countedBeats, parseCount, USUAL_SCHOOLS } from '../../time';
import type { Limb } from '../../stroke';
import { barsSpan, countingOf, type Pattern } from '../../pattern';
import { beatIn, partsIn, type Stretch } from '../../selection';
import { LAST, textOfCount, type BarSaid, type CountSaid } from './counts';
import type { Pick } from './pick';

/** Several ways to understand what was said, or the words that cannot be met and why. */
export type Ways<T> = { readonly ways: readonly T[] } | { readonly wrong: string; readonly why: string };

export const keyOf = ({ at, limb }: { readonly at: number; readonly limb: Limb }): string => `${at} ${limb}`;

export function isWrong<T>(w: Ways<T>): w is { readonly wrong: string; readonly why: string } {
  return 'wrong' in w;
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
    const bar = c.bar ?? (bars ? null : many);
    // A phrase that ends within a bar has its last beat there.
    const all = beats.map((b) => stretchesOf(pattern, { ...c, bar, beat: b.number }, as, bars) ?? []);
    return all.findLast((own) => own.length > 0) ?? [];
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

function beatLength({ meter }: Pattern, beat: number): number {
  const own = beatIn(meter, beat);
  return own ? own.until - own.from : beatTicks(meter);
}

/** Where each of what is counted begins and ends, in ticks from the start; a group can be meant in two ways. */
export function partsOf(pattern: Pattern, each: 'beat' | 'bar' | 'group' | 'repeat'): readonly (readonly Stretch[])[] {
  switch (each) {
    case 'bar':
    case 'beat':
      return [partsIn(pattern, each)];
    case 'repeat':
      return [partsIn(pattern, 'cell')];
    case 'group': {
      const cells = partsIn(pattern, 'cell');
      if (cells.length <= 1) return [partsIn(pattern, 'group')];
      return pattern.meter.groups.length > 1 ? [cells, partsIn(pattern, 'group')] : [cells];
    }
  }
}

export function isIn(at: number, { from, until }: Stretch, as: 'count' | 'beat'): boolean {
  return as === 'count' ? at === from : at >= from && at < until;
}

export function countSaid(c: CountSaid): string {
  const beat = c.beat === LAST ? 'last beat' : (c.beat ?? 'a beat');
  return `${c.bar === null ? '' : `bar ${c.bar}, `}${c.syllable === '' ? `${beat}` : `the ${c.syllable} of ${beat}`}`;
}

/** Bars, halves and what stands before or after a count, as a test of ticks. */
export function restricted(
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
    const inBar = pick.bars !== undefined || pick.halfOf === 'bar';
    const middle = (inBar ? bar : pattern.length) / 2;
    tests.push((at) => (inBar ? mod(pattern.start + at, bar) : at) < middle === (pick.half === 1));
  }
  const edge = (c: CountSaid): number | null => {
    const tick = parseCount(textOfCount(c), countingOf(pattern, USUAL_SCHOOLS));
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

/** The tick from which slots are counted: that of a count that was said, else the beginning. */
export function firstSlot({ since }: Pick, pattern: Pattern): number {
  if (!since) return 0;
  const tick = parseCount(textOfCount(since), countingOf(pattern, USUAL_SCHOOLS));
  return Math.max(0, (tick ?? 0) + ((since.bar ?? 1) - 1) * barTicks(pattern.meter) - pattern.start);
}

/** Which limbs are meant: "the left foot" is whatever pedal it plays here. */
export function limbsHere(pattern: Pattern, { limb }: Pick): readonly Limb[] | null {
  if (!limb) return null;
  if (!limb.open) return limb.limbs;
  const plays = limb.limbs.filter((l) => pattern.strokes.some((s) => s.limb === l));
  return plays.length > 0 ? plays : limb.limbs;
}
