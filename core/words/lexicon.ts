import { NUMBER_WORDS } from '../base';
import type { Family as PhraseFamily } from '../recipe';
import { HAND_VOICES, namesOf, type Limb, type Voice } from '../stroke';
import { parseGrid, type Grid } from '../time';

/** What one word, or several that belong together, stand for. */
export type Meaning =
  | { readonly kind: 'limb'; readonly limbs: readonly Limb[] }
  | { readonly kind: 'voice'; readonly voices: readonly Voice[] }
  | { readonly kind: 'grid'; readonly grid: Grid }
  | { readonly kind: 'family'; readonly family: PhraseFamily }
  | { readonly kind: 'number'; readonly n: number };

/** A drummer's words for limbs. */
const LIMBS: Readonly<Record<string, readonly Limb[]>> = {
  right: ['R'],
  rights: ['R'],
  'right hand': ['R'],
  left: ['L'],
  lefts: ['L'],
  'left hand': ['L'],
  hand: ['R', 'L'],
  hands: ['R', 'L'],
  kick: ['K'],
  kicks: ['K'],
  'bass drum': ['K'],
  foot: ['K'],
  feet: ['K', 'J', 'H'],
  'second kick': ['J'],
  'double kick': ['J'],
  'double pedal': ['J'],
  'hi-hat foot': ['H'],
  'hat foot': ['H'],
};

const TOMS: readonly Voice[] = ['high-tom', 'mid-tom', 'floor-tom'];
const CRASHES: readonly Voice[] = ['crash-left', 'crash-right'];
const HATS: readonly Voice[] = ['hat-closed', 'hat-half', 'hat-open'];

/** A drummer's words for what is struck. */
const VOICES: Readonly<Record<string, readonly Voice[]>> = {
  snare: ['snare', 'rimshot', 'cross-stick'],
  snares: ['snare', 'rimshot', 'cross-stick'],
  rimshot: ['rimshot'],
  rimshots: ['rimshot'],
  rim: ['rimshot', 'cross-stick'],
  'cross-stick': ['cross-stick'],
  'side stick': ['cross-stick'],
  tom: TOMS,
  toms: TOMS,
  'high tom': ['high-tom'],
  'first tom': ['high-tom'],
  'rack tom': ['high-tom', 'mid-tom'],
  'mid tom': ['mid-tom'],
  'second tom': ['mid-tom'],
  'floor tom': ['floor-tom'],
  'hi-hat': HATS,
  'hi-hats': HATS,
  hihat: HATS,
  hat: HATS,
  hats: HATS,
  ride: ['ride', 'ride-bell'],
  bell: ['ride-bell'],
  crash: CRASHES,
  crashes: CRASHES,
};

const FAMILIES: Readonly<Record<string, PhraseFamily>> = {
  fill: 'fill',
  fills: 'fill',
  lick: 'lick',
  licks: 'lick',
  groove: 'groove',
  grooves: 'groove',
  beat: 'groove',
  'warm-up': 'warm-up',
  'warm-ups': 'warm-up',
  warmup: 'warm-up',
  warmups: 'warm-up',
};

/** Other words for grids than the names they have. */
const GRIDS: Readonly<Record<string, string>> = {
  sixteenths: '16ths',
  sixteenth: '16ths',
  '16th': '16ths',
  semiquavers: '16ths',
  eighth: 'eighths',
  '8ths': 'eighths',
  '8th': 'eighths',
  quavers: 'eighths',
  triplet: 'triplets',
  sextuplet: 'sextuplets',
  quintuplet: 'quintuplets',
  septuplet: 'septuplets',
  '32nd': '32nds',
  'thirty-seconds': '32nds',
  quarter: 'quarters',
};

const NUMBERS = ['zero', ...NUMBER_WORDS];

const GRID_WORDS = [
  'quarters',
  'eighths',
  'triplets',
  '16ths',
  'quintuplets',
  'sextuplets',
  'septuplets',
  '32nds',
  'nines',
  'quarter triplets',
];

/** Every word and what it stands for: one lexicon, for whatever box a drummer types into. */
export const LEXICON: ReadonlyMap<string, Meaning> = new Map<string, Meaning>([
  ...Object.entries(LIMBS).map(([w, limbs]): [string, Meaning] => [w, { kind: 'limb', limbs }]),
  // Every piece by its names; words for several, and for what belongs together, go before them.
  ...HAND_VOICES.flatMap((v) => namesOf(v).map((w): [string, Meaning] => [w, { kind: 'voice', voices: [v] }])),
  ...Object.entries(VOICES).map(([w, voices]): [string, Meaning] => [w, { kind: 'voice', voices }]),
  ...Object.entries(FAMILIES).map(([w, family]): [string, Meaning] => [w, { kind: 'family', family }]),
  ...[...GRID_WORDS.map((w): [string, string] => [w, w]), ...Object.entries(GRIDS)].flatMap(
    ([w, name]): [string, Meaning][] => {
      const grid = parseGrid(name);
      return grid === null ? [] : [[w, { kind: 'grid', grid }]];
    },
  ),
  ...NUMBERS.map((w, n): [string, Meaning] => [w, { kind: 'number', n }]),
]);

/** The most words that stand for one thing. */
export const LONGEST_TERM = Math.max(...[...LEXICON.keys()].map((w) => w.split(' ').length));

/**
 * What the words from a place on stand for, the longest that stand for something, and how many of them.
 * @example
 * meaningAt(['floor', 'tom', 'left'], 0) // => { words: 2, meaning: { kind: 'voice', voices: ['floor-tom'] } }
 * meaningAt(['purple'], 0) // => null
 */
export function meaningAt(
  words: readonly string[],
  at: number,
): { readonly words: number; readonly meaning: Meaning } | null {
  for (let n = Math.min(LONGEST_TERM, words.length - at); n > 0; n--) {
    const meaning = LEXICON.get(words.slice(at, at + n).join(' '));
    if (meaning) return { words: n, meaning };
  }
  return null;
}

/**
 * A number in figures or words; null for what is none.
 * @example
 * numberOf('two') // => 2
 * numberOf('104') // => 104
 * numberOf('1½') // => 1.5
 * numberOf('x') // => null
 */
export function numberOf(word: string): number | null {
  const said = LEXICON.get(word);
  if (said?.kind === 'number') return said.n;
  const half = /^(\d{0,3})½$/.exec(word);
  if (half) return Number(half[1] === '' ? 0 : half[1]) + 0.5;
  return /^\d{1,4}(\.\d{1,2})?$/.test(word) ? Number(word) : null;
}

/**
 * Text as it is compared: small letters, without accents.
 * @example
 * folded('Café') // => "cafe"
 */
export function folded(text: string): string {
  return text.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');
}
