import { barTicks, beatTicks } from '../time';
import { difference, partOf, type Pattern } from '../pattern';
import type { NewStage, StagePart } from './stage';

/** A bar that differs in this share of its strokes or more is a bar of its own. */
const MOSTLY = 0.6;

/**
 * The parts a phrase is learnt by, in order: the halves of a bar; of longer phrases the bars that are new, only what a
 * bar does otherwise than one before it, and each join once. Where more than four bars are new, two, four or more are
 * taken together. Of what goes round, the last bar joins the first. Empty when the phrase is no longer than half a bar
 * or two beats.
 */
export function partStages(phrase: Pattern, goesRound: boolean): readonly NewStage[] {
  const bar = barTicks(phrase.meter);
  const beat = beatTicks(phrase.meter);
  if (phrase.length <= bar / 2 || phrase.length <= 2 * beat) return [];
  return phrase.length <= bar ? halves(phrase, beat) : barStages(phrase, bar, beat, goesRound);
}

function stageOf(part: StagePart, from: number, until: number): NewStage {
  return { kind: 'part', part, from, until, short: true };
}

/**
 * A part of a phrase the player asked for, from one tick to another, as a stage up to the goal; null where the phrase
 * has no such part.
 */
export function askedPart(phrase: Pattern, from: number, until: number, said: string): NewStage | null {
  const [a, b] = [Math.max(0, Math.round(from)), Math.min(phrase.length, Math.round(until))];
  if (!(b > a) || partOf(phrase, a, b).strokes.length === 0) return null;
  return { ...stageOf({ of: 'asked', said: said.trim().slice(0, 60) || 'a part' }, a, b), short: false };
}

function halves({ length }: Pattern, beat: number): NewStage[] {
  // The half begins on a beat, however odd the meter.
  const half = Math.ceil(length / 2 / beat) * beat;
  const first = stageOf({ of: 'half', half: 1 }, 0, half);
  return half < length ? [first, stageOf({ of: 'half', half: 2 }, half, length)] : [first];
}

/** More bars than this that differ are learnt two, four or more at a time. */
const MOST_NEW = 4;

/** A stretch of whole bars of a phrase, in ticks from its start; the first begins where the phrase does. */
interface WholeBars {
  readonly from: number;
  readonly until: number;
  /** What is played in it. */
  readonly part: Pattern;
  /** Bars it stands in, from 1. */
  readonly first: number;
  readonly last: number;
  /** The first stretch that is played like this one; itself when it is new. */
  readonly like: number;
}

/** A phrase in stretches of so many bars, each held against those before it. */
function stretches(phrase: Pattern, bar: number, bars: number): readonly WholeBars[] {
  const size = bar * bars;
  const many = Math.ceil((phrase.start + phrase.length) / size);
  const found: WholeBars[] = [];
  for (let n = 0; n < many; n++) {
    const from = Math.max(0, n * size - phrase.start);
    const until = Math.min(phrase.length, (n + 1) * size - phrase.start);
    const own = partOf(phrase, from, until);
    const like = found.findIndex((s) => s.until - s.from === until - from && difference(s.part, own).length === 0);
    const last = Math.ceil((phrase.start + until) / bar);
    found.push({ from, until, part: own, first: n * bars + 1, last, like: like < 0 ? n : like });
  }
  return found;
}

/** A bar that comes again is known, and one that only lands has nothing to learn. */
function barStages(phrase: Pattern, bar: number, beat: number, goesRound: boolean): NewStage[] {
  const span = Math.ceil((phrase.start + phrase.length) / bar);
  let bars = 1;
  let all = stretches(phrase, bar, bars);
  while (all.filter((s, n) => s.like === n).length > MOST_NEW && bars < span) all = stretches(phrase, bar, (bars *= 2));
  const joined = new Set<string>();
  const stages = all.flatMap((own, n): NewStage[] => {
    if (new Set(own.part.strokes.map((s) => s.at)).size < 2) return [];
    const found = own.like === n ? [newStage(all.slice(0, n), own, beat)] : [];
    const before = all[n - 1];
    const join = before && `${before.like} ${own.like}`;
    if (!before || !join || all.length < 3 || before.like === own.like || joined.has(join)) return found;
    joined.add(join);
    return [...found, stageOf({ of: 'join', first: before.first, last: own.last }, before.from, own.until)];
  });
  const [first, last] = [all[0], all.at(-1)];
  if (!goesRound || phrase.start !== 0 || !first || !last || all.length < 3) return stages;
  if (last.like === first.like || joined.has(`${last.like} ${first.like}`)) return stages;
  return [
    ...stages,
    stageOf({ of: 'join', first: last.first, last: first.last }, last.from, phrase.length + first.until),
  ];
}

/** A stretch that is new: what it does otherwise than a bar before it, or all of it. */
function newStage(before: readonly WholeBars[], own: WholeBars, beat: number): NewStage {
  const only = own.first === own.last ? otherwise(before, own, beat) : null;
  if (only) return stageOf({ of: 'difference', bar: own.first, known: only.known }, only.from, only.until);
  return stageOf({ of: 'bars', first: own.first, last: own.last }, own.from, own.until);
}

/**
 * Where a bar leaves the bar before it that is most like it, in whole beats; null when it differs from its beginning,
 * or in most of its strokes.
 */
function otherwise(
  before: readonly WholeBars[],
  own: WholeBars,
  beat: number,
): { readonly from: number; readonly until: number; readonly known: number } | null {
  const held = before.flatMap((s) => {
    if (s.until - s.from !== own.until - own.from) return [];
    const at = difference(s.part, own.part).map((d): number => d.at);
    return [{ at, known: s.first, strokes: s.part.strokes.length }];
  });
  const [nearest] = held.sort((a, b) => a.at.length - b.at.length);
  if (!nearest || nearest.at.length >= nearest.strokes * MOSTLY) return null;
  const from = Math.floor(Math.min(...nearest.at) / beat) * beat;
  const until = Math.min(own.until - own.from, Math.ceil((Math.max(...nearest.at) + 1) / beat) * beat);
  // Where a bar only leaves something out there may be nothing left to play by itself.
  if (from === 0 || !own.part.strokes.some((s) => s.at >= from && s.at < until)) return null;
  return { from: own.from + from, until: own.from + until, known: nearest.known };
}
