import type { Meter, Ticks } from '../time';
import type { DottedValue } from './values';

/** A note or rest as it is written. */
export interface ScoreEvent extends DottedValue {
  /** Ticks from the bar line, and how long it really lasts. */
  readonly at: Ticks;
  readonly length: Ticks;
  /** Indexes into the pattern's strokes that sound here; empty for a rest. */
  readonly strokes: readonly number[];
  /** Which tuplet of the voice it belongs to, by index; null for none. */
  readonly tuplet: number | null;
  /** Events of one number share a beam; null for none. */
  readonly beam: number | null;
}

/** `notes` written in the time of `inTimeOf` of the same value. */
export interface ScoreTuplet {
  readonly notes: number;
  readonly inTimeOf: number;
}

export interface ScoreVoice {
  readonly events: readonly ScoreEvent[];
  readonly tuplets: readonly ScoreTuplet[];
}

export interface ScoreBar {
  /** From 1; 0 for strokes before the 1, which do not fill their bar. */
  readonly number: number;
  /** Hands with stems up, and feet among them where they never sound together; always there. */
  readonly hands: ScoreVoice;
  /** Feet with stems down; null in a bar without feet, or where one voice holds all. */
  readonly feet: ScoreVoice | null;
  /** Stroke indexes that had to be moved to the nearest 64th, since no usual note value falls there. */
  readonly rounded: readonly number[];
}

/** A pattern as notes in bars. */
export interface Score {
  readonly meter: Meter;
  readonly bars: readonly ScoreBar[];
}
