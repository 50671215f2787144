import { TICKS_PER_QUARTER } from '../time';

/**
 * A tick that is known to sound at a time, and the tempo from there on, in quarters a minute. Seconds are those of the
 * audio clock.
 */
export interface Anchor {
  readonly tick: number;
  readonly seconds: number;
  readonly bpm: number;
}

/**
 * When a tick sounds, in seconds of the audio clock. One multiplication from the anchor, so nothing adds up over many
 * bars.
 * @example
 * secondsAt({ tick: 0, seconds: 1, bpm: 120 }, 5040) // => 1.5
 */
export function secondsAt(anchor: Anchor, tick: number): number {
  return anchor.seconds + ((tick - anchor.tick) * 60) / (anchor.bpm * TICKS_PER_QUARTER);
}

/**
 * Which tick sounds at a time; the inverse of secondsAt.
 * @example
 * tickAt({ tick: 0, seconds: 1, bpm: 120 }, 1.5) // => 5040
 */
export function tickAt(anchor: Anchor, seconds: number): number {
  return anchor.tick + ((seconds - anchor.seconds) * anchor.bpm * TICKS_PER_QUARTER) / 60;
}

/**
 * The anchor of a tempo change at a tick: what came before keeps its time, what comes after follows the new tempo, and
 * there is no gap between.
 * @example
 * retempo({ tick: 0, seconds: 1, bpm: 120 }, 5040, 60) // => { tick: 5040, seconds: 1.5, bpm: 60 }
 */
export function retempo(anchor: Anchor, tick: number, bpm: number): Anchor {
  return { tick, seconds: secondsAt(anchor, tick), bpm };
}

/**
 * The sample on which something at `seconds` begins: the nearest one.
 * @example
 * sampleAt(0.5, 44100) // => 22050
 */
export function sampleAt(seconds: number, rate: number): number {
  return Math.round(seconds * rate);
}
