import { swung, TICKS_PER_QUARTER } from '../time';
import { LEVEL_DEFAULTS } from '../stroke';
import { loopTicks, type Pattern } from '../pattern';
import type { Expected } from './hit';

/**
 * The strokes that turns of a phrase expect, in seconds from the first turn's bar line, at a tempo in quarters a
 * minute. Swing is in the times, as it is in the sound; grace strokes are not expected.
 */
export function expectedOf(
  pattern: Pattern,
  quarterBpm: number,
  firstTurn: number,
  turns: number,
): readonly Expected[] {
  const secondsPerTick = 60 / (quarterBpm * TICKS_PER_QUARTER);
  const loop = loopTicks(pattern);
  return Array.from({ length: turns }, (_, t) =>
    pattern.strokes.map((s, index): Expected => ({
      index,
      turn: firstTurn + t,
      seconds: swung((firstTurn + t) * loop + pattern.start + s.at, pattern.feel) * secondsPerTick,
      limb: s.limb,
      voice: s.voice,
      velocity: LEVEL_DEFAULTS[s.level].velocity,
    })),
  ).flat();
}
