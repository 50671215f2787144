import { barTicks } from '@core/time';
import { barsSpan, type Pattern } from '@core/pattern';

/** So many bars are drawn at once: what sounds, and what comes next. */
export const IN_SIGHT = 2;

/**
 * The bars that are in sight while a pattern sounds, from 0: the one that sounds, and the next, which is the first
 * again after the last. Null for a pattern that is in sight as a whole. `tick` is what sounds, below 0 in a count-in,
 * null in silence; both show the beginning.
 */
export function barsInSight(pattern: Pattern, tick: number | null, loop: number): readonly number[] | null {
  const { bars } = barsSpan(pattern);
  if (bars <= IN_SIGHT) return null;
  const inLoop = tick === null || tick < 0 ? 0 : loop > 0 ? tick % loop : tick;
  const now = Math.min(bars - 1, Math.floor(inLoop / barTicks(pattern.meter)));
  return [now, (now + 1) % bars];
}
