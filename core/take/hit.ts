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
