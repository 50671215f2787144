import { clamp } from '../base';
import {
  barTicks,
  beatTicks,
  countAt,
  GRID,
  meter,
  parseMeter,
  ticks,
  USUAL_SCHOOLS,
  type Counting,
  type Meter,
} from '../time';
import type { Cue, Spot } from '../shelf';

const FOUR = meter(4, 4);

/** The meter of a cue; 4/4 where it cannot be counted. */
export const cueMeter = ({ meter: text }: Pick<Cue, 'meter'>): Meter => parseMeter(text) ?? FOUR;

/** How the ticks of a cue are counted: on its own subdivision, on 16ths where it has none. */
export function cueCounting(cue: Pick<Cue, 'meter' | 'grid'>): Counting {
  return { meter: cueMeter(cue), grid: ticks(cue.grid ?? GRID.sixteenths), schools: USUAL_SCHOOLS };
}

/** How long a cue is, in ticks. */
export const cueTicks = (cue: Pick<Cue, 'meter' | 'bars'>): number => Math.round(cue.bars * barTicks(cueMeter(cue)));

/** Where a spot begins and ends in its cue, in ticks. */
export function spotSpan(
  spot: Pick<Spot, 'bar' | 'from' | 'length'>,
  cue: Pick<Cue, 'meter'>,
): {
  readonly from: number;
  readonly until: number;
} {
  const from = (spot.bar - 1) * barTicks(cueMeter(cue)) + spot.from;
  return { from, until: from + spot.length };
}

/** What is wrong with the spots of a cue. */
export type CueProblem =
  | { readonly kind: 'meter' }
  /** It ends behind the cue. */
  | { readonly kind: 'beyond'; readonly spot: string }
  | { readonly kind: 'overlap'; readonly spot: string; readonly other: string };

/** What is wrong with a cue: spots behind its end, spots that overlap. Such spots are not filled or played. */
export function cueProblems(cue: Cue): readonly CueProblem[] {
  if (parseMeter(cue.meter) === null) return [{ kind: 'meter' }];
  const found: CueProblem[] = [];
  const end = cueTicks(cue);
  const laid = inTime(cue);
  for (const [i, spot] of laid.entries()) {
    const own = spotSpan(spot, cue);
    if (own.until > end) found.push({ kind: 'beyond', spot: spot.id });
    const before = laid.slice(0, i).find((o) => spotSpan(o, cue).until > own.from);
    if (before) found.push({ kind: 'overlap', spot: spot.id, other: before.id });
  }
  return found;
}

/** The spots of a cue as they come. */
export function inTime(cue: Pick<Cue, 'spots' | 'meter'>): readonly Spot[] {
  return [...cue.spots].sort((a, b) => spotSpan(a, cue).from - spotSpan(b, cue).from);
}

/** The spots of a cue that can be filled and played, as they come. */
export function goodSpots(cue: Cue): readonly Spot[] {
  const bad = new Set(cueProblems(cue).flatMap((p) => (p.kind === 'meter' ? [] : [p.spot])));
  return parseMeter(cue.meter) === null ? [] : inTime(cue).filter((s) => !bad.has(s.id));
}

/** A count behind a tick of a cue, as it is typed: "3" or "4&". */
export const countText = (tick: number, cue: Pick<Cue, 'meter' | 'grid'>): string =>
  countAt(tick, cueCounting(cue)).text;

/** Where the beat or the slot that a count names ends: a whole beat for a number, else to the next part of the beat. */
export function endOfCount(tick: number, cue: Pick<Cue, 'meter' | 'grid'>): number {
  const m = cueMeter(cue);
  const [bar, beat] = [barTicks(m), beatTicks(m)];
  const inBar = tick % bar;
  const start = Math.floor(inBar / beat) * beat;
  if (inBar === start) return tick - inBar + Math.min(bar, start + beat);
  const slot = cue.grid ?? GRID.sixteenths;
  // An & lasts to the end of its beat where it is the half of it; every other count lasts one slot.
  const lasts = (inBar - start) * 2 === beat ? beat / 2 : slot;
  return tick - inBar + clamp(inBar + lasts, inBar + 1, Math.min(bar, start + beat));
}
