import type { Feel, Meter } from '../../time';
import type { Level, Limb, Ornament, Voice } from '../../stroke';
import type { SharedPhrase } from '../shared';

/** A note of a file, measured from the first bar line. What only some files say is absent where it is not said. */
export interface SongNote {
  /** In ticks, 5040 to a quarter, with a fraction where it lies between. */
  readonly at: number;
  /** Null where the file’s sound is on no voice of the map. */
  readonly voice: Voice | null;
  /** What the file calls its sound: "key 38", "instrument Snare". */
  readonly sound: string;
  /** Its MIDI key, where it has one. */
  readonly key?: number;
  /** 1–127. */
  readonly velocity: number;
  readonly limb?: Limb;
  readonly level?: Level;
  readonly ornament?: Ornament;
  readonly grace?: Voice;
}

export interface SongBar {
  /** From 1; 0 for a pick-up before the first whole bar. */
  readonly number: number;
  readonly at: number;
  readonly meter: Meter;
}

/** What another program’s file holds, as bars and notes. */
export interface Song {
  readonly name: string;
  /** Quarters a minute where it begins. */
  readonly bpm: number;
  /** How many tempos it has in all. */
  readonly tempos: number;
  readonly bars: readonly SongBar[];
  /** In order of time. */
  readonly notes: readonly SongNote[];
  /** MIDI channels that have notes, from 0; empty for a score. */
  readonly channels: readonly number[];
  /** The feel it says it has; null where it says nothing. */
  readonly feel: Feel | null;
  /** Whether notes lie where they are written, as in a score, and not where somebody played them. */
  readonly written: boolean;
  /** Where it is Loop Shelf’s own file and nobody changed its notes: the phrase as it was. */
  readonly own: SharedPhrase | null;
}

/** Bounds of what is read. */
export const SONG_LIMITS = Object.freeze({ bars: 4000, notes: 200_000 });
