import { median, readFail, readOk, type Read } from '../base';

/** How many beats a calibration listens to. */
export const CALIBRATION_BEATS = 16;

/** How far a source is behind, in seconds, and how sure that is. */
export interface Latency {
  readonly seconds: number;
  /** Spread of the taps round it, in seconds. */
  readonly spread: number;
  readonly taps: number;
}

const LEAST_TAPS = 8;

/**
 * The latency of a source from taps made with a click: the median distance of each beat to its nearest tap. Robust
 * against a few wild taps. Fails with `too-few` when fewer than eight beats were answered.
 * @example
 * latencyOf([0, 1, 2, 3, 4, 5, 6, 7, 8], [0.05, 1.05, 2.05, 3.05, 4.05, 5.05, 6.05, 7.05, 8.05]).value.taps // => 9
 */
export function latencyOf(beats: readonly number[], taps: readonly number[]): Read<Latency, 'too-few'> {
  const step = beats.length > 1 ? ((beats.at(-1) ?? 0) - (beats[0] ?? 0)) / (beats.length - 1) : 1;
  const found = beats.flatMap((beat) => {
    const near = taps.reduce<number | null>(
      (best, t) => (best === null || Math.abs(t - beat) < Math.abs(best - beat) ? t : best),
      null,
    );
    return near !== null && Math.abs(near - beat) < step / 2 ? [near - beat] : [];
  });
  if (found.length < LEAST_TAPS)
    return readFail(
      'too-few',
      null,
      `Only ${found.length} of ${beats.length} clicks were tapped. Tap along with every click.`,
    );
  const middle = median(found);
  const off = median(found.map((f) => Math.abs(f - middle)));
  // The median of the distances times 1.48 is the spread of an even scatter, whatever the wild ones do.
  return readOk({ seconds: middle, spread: 1.4826 * off, taps: found.length });
}

/**
 * This many takes in a row, each at least so far off and all within so much of one another, in milliseconds, are no
 * accident.
 */
const MOVED = { takes: 4, least: 12, within: 12 } as const;

/**
 * By how many milliseconds the delay of a source seems to have moved since it was calibrated, from the mean offsets of
 * its takes, oldest first: the last four all off to one side by about as much. Null when they are not. A drummer who is
 * late by as much every time looks the same: the answer is to calibrate again, never to correct in silence.
 * @example
 * latencyMoved([2, 21, 19, 23, 20]) // => 20.75
 * latencyMoved([21, -19, 23, 20]) // => null
 */
export function latencyMoved(means: readonly number[]): number | null {
  const last = means.slice(-MOVED.takes);
  if (last.length < MOVED.takes) return null;
  const [low, high] = [Math.min(...last), Math.max(...last)];
  if (high - low > MOVED.within || Math.min(Math.abs(low), Math.abs(high)) < MOVED.least || low * high < 0) return null;
  return last.reduce((a, b) => a + b, 0) / last.length;
}
