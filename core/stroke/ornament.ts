import type { Ornament } from './level';
import type { Voice } from './voice';

/** Says of grace strokes that the hand of their stroke plays them itself, on its own drum. */
export const SAME_HAND = 'same-hand';

/** What grace strokes strike with the other hand, or that the hand of their stroke plays them. */
export type Grace = Voice | typeof SAME_HAND;

/**
 * How grace strokes and bounces lie in time: seconds between the grace strokes of an ornament and before its main
 * stroke, whatever the tempo. A flam near 30 ms is what is played at medium tempos. Playback, measuring and the ceiling
 * all ask here.
 */
export const GRACE_SECONDS = 0.028;

/** Seconds between the bounces of a buzz, and how many sound after the stroke itself. */
export const BUZZ = Object.freeze({ seconds: 0.034, bounces: 4 });

/** The most grace strokes that any ornament has. */
const MOST_GRACES = 3;

/**
 * How many grace strokes stand before the main one; a buzz is one long stroke and has none.
 * @example
 * graceCount('drag') // => 2
 */
export function graceCount(ornament: Ornament): number {
  switch (ornament) {
    case 'flam':
      return 1;
    case 'drag':
      return 2;
    case 'ruff':
      return MOST_GRACES;
    case 'buzz':
      return 0;
  }
}

/**
 * Seconds before the main stroke at which each grace stroke falls, the earliest first.
 * @example
 * graceLeads('drag').map((s) => Math.round(s * 1000)) // => [56, 28]
 * graceLeads('buzz') // => []
 */
export function graceLeads(ornament: Ornament): readonly number[] {
  const n = graceCount(ornament);
  return Array.from({ length: n }, (_, i) => (n - i) * GRACE_SECONDS);
}
