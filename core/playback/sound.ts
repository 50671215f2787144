import type { Limb, Voice } from '../stroke';
import type { Role } from '../pattern';

/**
 * Tones that count, where nobody speaks: each beat of the bar a step higher than the one before, the half of a beat and
 * the slots between lower and softer.
 */
export const COUNT_TONES = [
  'count-1',
  'count-2',
  'count-3',
  'count-4',
  'count-5',
  'count-6',
  'count-7',
  'count-8',
  'count-half',
  'count-slot',
] as const;
export type CountTone = (typeof COUNT_TONES)[number];
export const BEAT_TONES = COUNT_TONES.slice(0, 8);

/** A syllable that is spoken or sung, in small letters. */
export type Spoken = `say:${string}`;

/** A stretch of the record from which the phrase was taken, from a tick of it on. */
export type Recorded = `record:${number}`;

/** What is struck or clicked: everything that is made from nothing. */
export type Struck = Voice | 'click-bar' | 'click-group' | 'click-beat' | CountTone;

/** What can sound: the voices of the kit, the click with its three weights, tones that count, syllables, a record. */
export type Sound = Struck | Spoken | Recorded;

/** The tick of the record from which a sound is a stretch of it; null for any other. */
export function tickOfRecord(sound: Sound): number | null {
  return sound.startsWith('record:') ? Number(sound.slice(7)) : null;
}

/** The syllable of a sound that is spoken; null for one that is struck. */
export function syllableSaid(sound: Sound): string | null {
  return sound.startsWith('say:') ? sound.slice(4) : null;
}

/** What has a loudness of its own: the roles of the phrase, the click, the counts and the record. */
export const PARTS = ['primary', 'timekeeping', 'texture', 'click', 'counts', 'record'] as const;
export type Part = Role | 'click' | 'counts' | 'record';

/** How loud each part sounds: 1 is usual, 0 silent, `LOUDEST` the most. */
export type Loudness = Readonly<Record<Part, number>>;
export const LOUDEST = 1.5;

/** One thing to sound. */
export interface PlaybackEvent {
  /** Ticks from the program's zero, with a fraction where the feel swings. */
  readonly at: number;
  /** Seconds after `at`; negative for grace strokes, which come before their stroke whatever the tempo. */
  readonly offset: number;
  readonly sound: Sound;
  /** 1–127. */
  readonly velocity: number;
  readonly limb: Limb | null;
  readonly part: Part;
  /** Ticks until the next of its kind, where it must be over by then; absent for what may ring. */
  readonly room?: number;
}
