import { quarterTempo, secondsOf } from '../time';
import { loopTicks, pickupTicks, type Pattern } from '../pattern';
import type { Hit } from './hit';

/**
 * A hit as a dot on the ribbon: where it fell in the loop, in ticks from the bar line, which limb's side it is on, and
 * in which turn it was struck.
 */
export interface Dot {
  readonly tick: number;
  readonly limb: Hit['limb'];
  readonly turn: number;
}

/**
 * The hits of a take as dots. Hits are in seconds from the first bar line, the tempo in counted beats a minute. What
 * comes up to half a slot before a loop belongs to its first stroke, at a tick below 0.
 * @example
 * dotsOf(patternOfText(parseStrokeText('R L R L').value, meter(4, 4), GRID.quarters), 60, [{ seconds: 4.25, limb: 'R', voice: null, velocity: null }]) // => [{ tick: 1260, limb: 'R', turn: 1 }]
 */
export function dotsOf(pattern: Pattern, bpm: number, hits: readonly Hit[]): readonly Dot[] {
  const loop = loopTicks(pattern);
  const perSecond = 1 / secondsOf(1, quarterTempo(bpm, pattern.meter));
  return hits.map((h) => {
    const tick = h.seconds * perSecond;
    // What leads in stands before the 1, not at the end of a turn nobody played.
    const turn = Math.max(pickupTicks(pattern) > 0 ? 0 : -Infinity, Math.floor((tick + pattern.grid / 2) / loop));
    return { tick: tick - turn * loop, limb: h.limb, turn };
  });
}
