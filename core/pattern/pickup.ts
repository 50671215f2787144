import { count } from '../base';
import { barTicks, ticks, type Schools, type Ticks } from '../time';
import type { Stroke } from '../stroke';
import { tidy, type Pattern } from './pattern';
import { placeWords } from './sums';

/**
 * The strokes before the 1, heard once before the loop. They lie before the pattern's start, so their ticks are below
 * zero. A pattern that does not begin on a bar line has none.
 */
export function pickupOf(pattern: Pattern): readonly Stroke[] {
  return pattern.start === 0 ? (pattern.pickup ?? []) : [];
}

/** All strokes: those of the loop, then those of the pick-up, at ticks below zero. */
export function strokesOf(pattern: Pattern): readonly Stroke[] {
  return [...pattern.strokes, ...pickupOf(pattern)];
}

/**
 * How long before the 1 a pattern's pick-up begins, in whole slots of the home grid; 0 without one.
 * @example
 * pickupTicks(patternOfText(parseStrokeText('R L').value, meter(4, 4), GRID.sixteenths)) // => 0
 */
export function pickupTicks(pattern: Pattern): Ticks {
  const first = pickupOf(pattern)[0];
  return ticks(first ? Math.ceil((0 - first.at) / pattern.grid) * pattern.grid : 0);
}

/**
 * The pick-up as a pattern of its own, at the end of the bar before the 1: as it is drawn and counted. Null without
 * one.
 */
export function pickupBar(pattern: Pattern): Pattern | null {
  const length = pickupTicks(pattern);
  if (length === 0) return null;
  const { pickup = [], ...rest } = pattern;
  return {
    ...rest,
    start: ticks(barTicks(pattern.meter) - length),
    length,
    strokes: pickup.map((s) => ({ ...s, at: ticks(s.at + length) })),
    groups: [],
  };
}

/** The pattern that comes round: without what is heard only once before it. The same object when there is nothing. */
export function withoutPickup(pattern: Pattern): Pattern {
  if (!pattern.pickup) return pattern;
  const { pickup: _, ...rest } = pattern;
  return rest;
}

/**
 * The pick-up and the phrase as they follow each other once, behind a silent bar, so that the end is far from the next
 * beginning. The phrase's first tick is `2 * barTicks`. Null without a pick-up.
 */
export function ledIn(pattern: Pattern): Pattern | null {
  const own = pickupOf(pattern);
  if (own.length === 0) return null;
  const lead = 2 * barTicks(pattern.meter);
  const strokes = [...own, ...pattern.strokes].map((s) => ({ ...s, at: ticks(s.at + lead) }));
  return tidy({ ...withoutPickup(pattern), length: ticks(lead + pattern.length), strokes, groups: [] });
}

/** "3 strokes lead in, from the e of 4 before the 1, once": of a pick-up; null without one. */
export function pickupWords(pattern: Pattern, schools: Schools): string | null {
  const own = pickupOf(pattern);
  const [first] = own;
  if (!first) return null;
  const verb = own.length === 1 ? 'leads' : 'lead';
  return `${count(own.length, 'stroke')} ${verb} in, from ${placeWords(pattern, first.at, schools)}, once`;
}

/** A pattern with its strokes changed, those of its pick-up in the same way. */
export function changedAll(pattern: Pattern, change: (strokes: readonly Stroke[]) => readonly Stroke[]): Pattern {
  const strokes = change(pattern.strokes);
  return pattern.pickup ? { ...pattern, strokes, pickup: change(pattern.pickup) } : { ...pattern, strokes };
}
