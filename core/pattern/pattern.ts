import {
  barTicks,
  STRAIGHT,
  ticks,
  type Counting,
  type Feel,
  type Grid,
  type Meter,
  type Schools,
  type Ticks,
} from '../time';
import { compareStrokes, usualVoice, type Node, type Stroke, slotsOf } from '../stroke';

/**
 * A repeat of the cell, what closes the space after the last one, or the bar it lands in: the brackets under the
 * ribbon.
 */
export interface Group {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly repeat: number;
  readonly kind: 'cell' | 'close' | 'land';
}

/**
 * Strokes on a grid in a meter. Strokes and groups are measured from the pattern's start; `start` is how far that lies
 * behind a bar line, so that a half-bar fill can begin on 3. A cell is just a short pattern.
 */
export interface Pattern {
  readonly meter: Meter;
  readonly grid: Grid;
  readonly feel: Feel;
  readonly start: Ticks;
  readonly length: Ticks;
  readonly strokes: readonly Stroke[];
  readonly groups: readonly Group[];
  /** Strokes before the 1, at ticks below zero: heard once before the loop, and no part of it. */
  readonly pickup?: readonly Stroke[];
}

/** The most strokes a pattern may hold: 64 bars of 32nds on all limbs stay below it. */
export const MOST_STROKES = 20_000;

/** The longest pattern, in bars. */
export const MOST_BARS = 64;

/**
 * A pattern's law kept: strokes inside the pattern, in order, one to a limb and tick. Where two strokes of one limb
 * meet, the later in the list stays, so a move that adds strokes puts its own last.
 */
export function tidy(pattern: Pattern): Pattern {
  const kept = new Map<string, Stroke>();
  for (const s of pattern.strokes) if (s.at >= 0 && s.at < pattern.length) kept.set(`${s.at}${s.limb}`, s);
  return { ...pattern, strokes: [...kept.values()].sort(compareStrokes) };
}

/** The nodes of a stroke text as a pattern of one cell, each limb on its usual voice where none is written. */
export function patternOfText(nodes: readonly Node[], meter: Meter, grid: Grid): Pattern {
  const slots = slotsOf(nodes);
  const length = ticks(slots.length * grid);
  const strokes = slots.flatMap((slot, index) =>
    slot.map((s): Stroke => ({
      ...s,
      at: ticks(index * grid),
      voice: s.voice ?? usualVoice(s.limb),
      from: { index, repeat: 0, move: null },
    })),
  );
  const groups: Group[] = [{ at: ticks(0), length, repeat: 0, kind: 'cell' }];
  return tidy({ meter, grid, feel: STRAIGHT, start: ticks(0), length, strokes, groups });
}

/** Slots of the home grid that a pattern is long; a fraction when its end is off the grid. */
export function slotsLong(pattern: Pattern): number {
  return pattern.length / pattern.grid;
}

/** How the ticks of a pattern are counted. */
export function countingOf(pattern: Pattern, schools: Schools): Counting {
  return { meter: pattern.meter, grid: pattern.grid, schools };
}

/** Ticks from the first bar line to the end of the pattern, rounded up to whole bars. */
export function barsSpan(pattern: Pattern): { readonly bars: number; readonly ticks: Ticks } {
  const bar = barTicks(pattern.meter);
  const bars = Math.max(1, Math.ceil((pattern.start + pattern.length) / bar));
  return { bars, ticks: ticks(bars * bar) };
}

/** Where the landing of a pattern begins, in ticks from its start; null when it does not end with one. */
export function landingAt({ groups, length }: Pattern): Ticks | null {
  const last = groups.at(-1);
  return last?.kind === 'land' && last.at + last.length === length ? last.at : null;
}

/**
 * A pattern without the bar it lands in: what density and balance are told of. All of it where it lands nowhere.
 */
export function untilLanding(pattern: Pattern): Pattern {
  const length = landingAt(pattern);
  return length === null ? pattern : { ...pattern, length, strokes: pattern.strokes.filter((s) => s.at < length) };
}

/**
 * After how many ticks a pattern begins again when it loops: its own length when it starts on a bar line, else whole
 * bars, so that a fill from 3 comes round on 3.
 */
export function loopTicks(pattern: Pattern): Ticks {
  return pattern.start === 0 ? pattern.length : barsSpan(pattern).ticks;
}
