import type { Limb, Voice } from '../stroke';

/** Something that was struck: when, in seconds on one clock, and what is known of it. */
export interface Hit {
  readonly seconds: number;
  /** The limb, where the source knows it (keys, the simulated player); null else. */
  readonly limb: Limb | null;
  /** The voice, where the source knows it (a kit that was taught); null else. */
  readonly voice: Voice | null;
  /** Loudness 1–127; null where the source cannot tell. */
  readonly velocity: number | null;
}

/**
 * A stroke that a take expects: its place in the phrase, when it should fall in seconds, who plays it where and how
 * loud.
 */
export interface Expected {
  /** Index into the pattern's strokes. */
  readonly index: number;
  /** Which turn of the loop, from 0. */
  readonly turn: number;
  readonly seconds: number;
  readonly limb: Limb;
  readonly voice: Voice;
  readonly velocity: number;
}
