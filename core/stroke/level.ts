/** How hard: from the stick's height. Ordered from soft to loud. */
export const LEVELS = ['ghost', 'tap', 'accent'] as const;
export type Level = (typeof LEVELS)[number];

/**
 * Stick height of a level in cm and its loudness as MIDI velocity (1–127): the defaults until a user sets their own.
 */
export const LEVEL_DEFAULTS: Readonly<Record<Level, { readonly height: number; readonly velocity: number }>> =
  Object.freeze({
    ghost: { height: 3, velocity: 28 },
    tap: { height: 8, velocity: 70 },
    accent: { height: 25, velocity: 116 },
  });

/** Grace strokes in front of a stroke. */
export const ORNAMENTS = ['flam', 'drag', 'ruff', 'buzz'] as const;
export type Ornament = (typeof ORNAMENTS)[number];
