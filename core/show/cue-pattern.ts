import { ticks } from '../time';
import { loopTicks, MOST_STROKES, tidy, type Pattern } from '../pattern';
import type { Stroke } from '../stroke';
import type { Cue, Spot } from '../shelf';
import type { FitWay } from './fits';
import { standing } from './fits';
import { cueCounting, cueTicks, goodSpots, spotSpan } from './room';

/** What is played in a spot. */
export interface SpotPlayed {
  readonly pattern: Pattern;
  readonly way: FitWay;
}

/** A cue from its first bar to its last as one pattern: its groove round and round, and what stands in its spots. */
export interface CuePlayed {
  readonly pattern: Pattern;
  /** Where each spot lies, in ticks from the first bar line. */
  readonly spots: readonly { readonly spot: Spot; readonly from: number; readonly until: number }[];
}

/**
 * A cue as it is run through. The groove keeps time until a spot begins and goes on behind it, and leaves the 1 to a
 * landing; without one there is nothing but the spots. A spot without a phrase is open: nothing sounds there.
 */
export function cuePattern(cue: Cue, groove: Pattern | null, played: (spot: Spot) => SpotPlayed | null): CuePlayed {
  const length = cueTicks(cue);
  const spots = goodSpots(cue).map((spot) => ({ spot, ...spotSpan(spot, cue) }));
  const time = groove ? grooveIn(groove, length) : [];
  const inSpot = (at: number): boolean => spots.some((s) => at >= s.from && at < s.until);
  const laid = spots.flatMap(({ spot, from }): readonly Stroke[] => {
    const own = played(spot);
    if (!own) return [];
    return standing(own.pattern, spot, own.way).map((s) => ({ ...s, at: ticks(s.at + from) }));
  });
  const landed = new Set(laid.filter((s) => !inSpot(s.at)).map((s) => s.at));
  const kept = time.filter((s) => !inSpot(s.at) && !landed.has(s.at));
  const { meter, grid } = cueCounting(cue);
  const pattern = tidy({
    meter,
    grid,
    feel: cue.feel,
    start: ticks(0),
    length: ticks(length),
    strokes: [...kept, ...laid].slice(0, MOST_STROKES),
    groups: [],
  });
  return { pattern, spots };
}

/**
 * A phrase as it stands in a spot, on the counts of its bar: what a take of the spot is held against, and what is drawn
 * on paper. Its landing, which lies behind the spot, is the next bar's.
 */
export function spotPattern(cue: Cue, spot: Spot, { pattern, way }: SpotPlayed): Pattern {
  const isWhole = way.kind === 'as written' || way.kind === 'moved';
  return tidy({
    ...pattern,
    meter: cueCounting(cue).meter,
    feel: cue.feel,
    start: ticks(spot.from),
    length: ticks(spot.length),
    strokes: standing(pattern, spot, way).filter((s) => s.at < spot.length),
    groups: isWhole ? pattern.groups.filter((g) => g.kind !== 'land') : [],
  });
}

/** The strokes of a groove round and round over so many ticks. */
function grooveIn(groove: Pattern, length: number): readonly Stroke[] {
  const loop = loopTicks(groove);
  if (loop <= 0) return [];
  const turns = Math.ceil(length / loop);
  return Array.from({ length: turns }, (_, n) =>
    groove.strokes.map((s) => ({ ...s, at: ticks(n * loop + groove.start + s.at) })),
  )
    .flat()
    .filter((s) => s.at < length);
}
