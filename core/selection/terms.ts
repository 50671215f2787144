import { LIMBS, VOICE, VOICES, type Limb, type Voice } from '../stroke';
import type { Edge, Part, Within } from './selection';

// The words that selections are printed with, and read back from: one table for both.

export const LIMB_ADJECTIVES: Readonly<Record<Limb, string>> = {
  R: 'right',
  L: 'left',
  K: 'kick',
  J: 'second kick',
  H: 'hi-hat foot',
};
/** A stroke of a limb by itself; the plural adds an s. */
export const LIMB_NOUNS: Readonly<Record<Limb, string>> = {
  R: 'right',
  L: 'left',
  K: 'kick',
  J: 'second kick',
  H: 'hi-hat foot stroke',
};
/** Longer names first: "second kick" is no kick. */
export const LIMBS_BY_NAME: readonly Limb[] = [...LIMBS].sort(
  (a, b) => LIMB_ADJECTIVES[b].length - LIMB_ADJECTIVES[a].length,
);

const VOICE_OF: ReadonlyMap<string, Voice> = new Map(VOICES.map((v) => [VOICE[v].name.toLowerCase(), v]));
/** Pieces by their names, longer names first. */
export const VOICE_NAMES: readonly (readonly [string, Voice])[] = [...VOICE_OF].sort(([a], [b]) => b.length - a.length);

/** A part as it stands behind a noun, "rights that are …", and by itself. */
export const PART_WORDS: Readonly<Record<Part, string>> = {
  double: 'doubles',
  single: 'singles',
  'first-of-double': 'the first of each double',
  'second-of-double': 'the second of each double',
  head: 'the head of each group of the meter',
  tail: 'the tail of each group of the meter',
};

export const WITHIN_WORDS: Readonly<Record<Exclude<Within, 'phrase'>, string>> = {
  bar: 'bar',
  beat: 'beat',
  group: 'group of the meter',
  cell: 'group',
  run: 'run',
};

/** What stands before and behind the count of a stretch. */
export const EDGE_WORDS: Readonly<Record<Edge, readonly [before: string, behind: string]>> = {
  from: ['from', ' on'],
  to: ['up to', ''],
  before: ['before', ''],
  after: ['after', ''],
};

/** Ordinals that are read at a glance; beyond them counts are used, or numbers. */
export const SPOKEN_ORDINALS = ['first', 'second', 'third', 'fourth'] as const;

/** Syllables that are spoken with their beat: "the & of 2". */
export const SPOKEN_SYLLABLES: ReadonlySet<string> = new Set(['e', '&', 'a', 'trip', 'let', 'ta', 'la']);
