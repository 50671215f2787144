import type { Level } from '@core/stroke';
import type { RibbonSize } from './model';

/** Measures of each size, in px. */
export interface Measures {
  readonly pad: number;
  readonly counts: number;
  readonly stem: Readonly<Record<Level, number>>;
  readonly hands: number;
  readonly floor: number;
  readonly brackets: number;
  readonly gap: number;
  readonly head: number;
  /** Slots are never wider than this, nor a row denser than `least`. */
  readonly most: number;
  readonly least: number;
}

export const MEASURES: Readonly<Record<RibbonSize, Measures>> = {
  strip: {
    pad: 2,
    counts: 0,
    stem: { ghost: 5, tap: 11, accent: 18 },
    hands: 21,
    floor: 7,
    brackets: 0,
    gap: 0,
    head: 3,
    most: 30,
    least: 1,
  },
  card: {
    pad: 2,
    counts: 0,
    stem: { ghost: 3, tap: 7, accent: 12 },
    hands: 15,
    floor: 5,
    brackets: 0,
    gap: 0,
    head: 2.2,
    most: 14,
    least: 1,
  },
  bench: {
    pad: 2,
    counts: 24,
    stem: { ghost: 11, tap: 26, accent: 45 },
    hands: 56,
    floor: 30,
    brackets: 24,
    gap: 6,
    head: 6.2,
    most: 64,
    least: 21,
  },
  room: {
    pad: 2,
    counts: 30,
    stem: { ghost: 13, tap: 32, accent: 58 },
    hands: 70,
    floor: 38,
    brackets: 6,
    gap: 12,
    head: 7.5,
    most: 84,
    least: 24,
  },
};

/** A phrase of two rows on the Bench, which leave room for the staff under them. */
export const PAIR_BENCH: Measures = {
  ...MEASURES.bench,
  counts: 22,
  stem: { ghost: 10, tap: 23, accent: 40 },
  hands: 50,
  brackets: 20,
};

/** A phrase of many rows on the Bench is drawn lower, so that more of it is in sight. */
export const LOW_BENCH: Measures = {
  ...MEASURES.bench,
  counts: 20,
  stem: { ghost: 8, tap: 18, accent: 30 },
  hands: 38,
  floor: 20,
  brackets: 20,
  head: 5,
  least: 15,
};

/** Two bars of the practice room under each other, so that both stand in sight over the stairs. */
export const PAIR_ROOM: Measures = {
  ...MEASURES.room,
  counts: 26,
  stem: { ghost: 11, tap: 27, accent: 47 },
  hands: 57,
  floor: 31,
};

/** Strips beside one another are drawn at most this large, in px to a tick: 480 px to a bar of 4/4. */
export const STRIP_SCALE = 480 / 20160;

/** Slot width, in px, from which each stroke has its label, and each its letter. */
export const ROOM_FOR_LABELS = 34;
export const ROOM_FOR_LETTERS = 15;
/** Height of the line that is sung, in px. */
export const SUNG_ROOM = 18;
/** Height of a line of stroke types, in px. */
export const TYPES_ROOM = 12;

/** Measures of a size for a phrase that takes so many rows. */
export function measuresOf(size: RibbonSize, rows: number): Measures {
  if (rows < 2) return MEASURES[size];
  if (size === 'room') return PAIR_ROOM;
  if (size !== 'bench') return MEASURES[size];
  return rows === 2 ? PAIR_BENCH : LOW_BENCH;
}
