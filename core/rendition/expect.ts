import { swung, TICKS_PER_QUARTER } from '../time';
import { isHand, LEVEL_DEFAULTS, type Limb, type Ornament, type Stroke, type Voice } from '../stroke';
import { gracesOf, loopTicks, withGraces, type Graces, type Pattern } from '../pattern';

/** A stroke that is expected: its place in the phrase, when it should fall in seconds, who plays it where, how loud. */
export interface Expected {
  /** Index into the pattern's strokes. */
  readonly index: number;
  /** Which turn of the loop, from 0. */
  readonly turn: number;
  readonly seconds: number;
  readonly limb: Limb;
  readonly voice: Voice;
  readonly velocity: number;
  /** Ticks from the first turn's bar line, unswung; absent where the stroke belongs to no phrase. */
  readonly tick?: number;
  /** Ticks of one turn; absent with it. */
  readonly loop?: number;
  /** What stands before or after it. */
  readonly ornament?: Ornament;
  /** Who plays its grace strokes, and where. */
  readonly graces?: Graces;
}

/**
 * The strokes that turns of a phrase expect, in seconds from the first turn's bar line, at a tempo in quarters a
 * minute. Swing is in the times, as it is in the sound. Grace strokes are no strokes of their own: their ornament says
 * that they are to be heard before it.
 */
export function expectedOf(
  pattern: Pattern,
  quarterBpm: number,
  firstTurn: number,
  turns: number,
): readonly Expected[] {
  const secondsPerTick = 60 / (quarterBpm * TICKS_PER_QUARTER);
  const loop = loopTicks(pattern);
  const { strokes } = withGraces(pattern);
  return Array.from({ length: turns }, (_, t) =>
    strokes.map((s, index): Expected => ({
      index,
      turn: firstTurn + t,
      seconds: swung((firstTurn + t) * loop + pattern.start + s.at, pattern.feel) * secondsPerTick,
      limb: s.limb,
      voice: s.voice,
      velocity: LEVEL_DEFAULTS[s.level].velocity,
      tick: (firstTurn + t) * loop + pattern.start + s.at,
      loop,
      ...(s.ornament && isHand(s.limb) ? { ornament: s.ornament } : {}),
      ...gracedBy(s),
    })),
  ).flat();
}

function gracedBy(stroke: Stroke): Pick<Expected, 'graces'> {
  const graces = gracesOf(stroke);
  return graces ? { graces } : {};
}
