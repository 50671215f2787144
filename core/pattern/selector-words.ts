import { count, listed, nth } from '../base';
import { isHand, LIMBS, VOICE, type Limb } from '../stroke';
import type { Pattern } from './pattern';
import type { Selector } from './selector';
import { countRef } from './sums';

/** Words of a selector's parts. The reader in selector-parse.ts knows the same words and no others. */
export const LIMB_ADJECTIVES: Readonly<Record<Limb, string>> = {
  R: 'right',
  L: 'left',
  K: 'kick',
  J: 'second kick',
  H: 'hi-hat foot',
};
const LIMB_PLURALS: Readonly<Record<Limb, string>> = {
  R: 'rights',
  L: 'lefts',
  K: 'kicks',
  J: 'second kicks',
  H: 'hi-hat foot strokes',
};

const ORDINALS = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
] as const;

/**
 * An ordinal in letters up to twelve, in digits beyond.
 * @example
 * ordinal(2) // => "second"
 * ordinal(21) // => "21st"
 */
export function ordinal(n: number): string {
  return ORDINALS[n - 1] ?? nth(n);
}

/** An ordinal as it is printed: in letters up to the fourth, which are read at a glance, in digits beyond. */
const printedOrdinal = (n: number): string => (n <= 4 ? ordinal(n) : nth(n));

/** A number from an ordinal in letters or digits; null for anything else. */
export function parseOrdinal(word: string): number | null {
  const letters = ORDINALS.findIndex((o) => o === word);
  if (letters >= 0) return letters + 1;
  const digits = /^(\d{1,4})(?:st|nd|rd|th)$/.exec(word);
  return digits ? Number(digits[1]) : null;
}

/**
 * A selector in one line that people read; `parseSelector` reads it back.
 * @example
 * selectorWords({ limbs: ['R'], levels: ['accent'], counts: ['2', '4'] }) // => "right accents on 2 and 4"
 * selectorWords({ places: [1] }) // => "the first of every group"
 * selectorWords({ inRun: 2 }) // => "the second of each double"
 * selectorWords({ every: { n: 3, offset: 1, of: 'slot' } }) // => "every 3rd slot from slot 2"
 * selectorWords({}) // => "all strokes"
 * selectorWords({ ticks: [0, 2520] }) // => "all strokes at 2 chosen places"
 *
 * Chosen places are named by their counts where the pattern they are of is given.
 */
export function selectorWords(selector: Selector, on?: Pattern): string {
  const parts = [nouns(selector), ...where(selector, on)];
  const base = parts.join(' ');
  const run = selector.inRun ? `the ${ordinal(selector.inRun)} of each double` : '';
  const inner = run === '' ? base : base === 'all strokes' ? run : `${run} among ${base}`;
  return everyWords(selector, inner);
}

function everyWords({ every }: Selector, inner: string): string {
  if (!every) return inner;
  const among = inner === 'all strokes' ? '' : ` among ${inner}`;
  const from = every.offset === 0 ? '' : ` from ${every.of} ${every.offset + 1}`;
  return `every ${nth(every.n)} ${every.of}${from}${among}`;
}

function nouns({ limbs, levels, roles, places }: Selector): string {
  const role = roles?.length ? `${listed(roles)} ` : '';
  const level = levels?.length ? listed(levels.map((l) => `${l}s`)) : null;
  const plain = !limbs?.length && !level && role === '';
  if (places?.length && plain) return placesWord(places);
  return `${role}${limbNouns(limbs, level, role !== '')}${places?.length ? ` that are ${placesWord(places)}` : ''}`;
}

function limbNouns(limbs: Selector['limbs'], level: string | null, described: boolean): string {
  if (!limbs?.length) return level ?? (described ? 'strokes' : 'all strokes');
  const own = LIMBS.filter((l) => limbs.includes(l));
  if (own.length === 2 && own.every(isHand)) return `hand ${level ?? 'strokes'}`;
  const [only] = own;
  if (!level)
    return own.length === 1 && only ? LIMB_PLURALS[only] : `${listed(own.map((l) => LIMB_ADJECTIVES[l]))} strokes`;
  return `${listed(own.map((l) => LIMB_ADJECTIVES[l]))} ${level}`;
}

function placesWord(places: readonly number[]): string {
  return `the ${listed(places.map(printedOrdinal))} of every group`;
}

function where({ voices, counts, bars, repeats, ticks }: Selector, on: Pattern | undefined): string[] {
  const parts: string[] = [];
  if (voices?.length) parts.push(`played on the ${listed(voices.map((v) => VOICE[v].name))}`);
  if (counts?.length) parts.push(`on ${listed(counts)}`);
  if (bars?.length) parts.push(`in ${bars.length === 1 ? 'bar' : 'bars'} ${listed(bars.map(String))}`);
  if (repeats?.length)
    parts.push(
      `in the ${listed(repeats.map((r) => (typeof r === 'number' ? nth(r) : r)))} ${repeats.length === 1 ? 'repeat' : 'repeats'}`,
    );
  if (ticks)
    parts.push(
      ticks.length === 0
        ? 'at no place'
        : on === undefined || ticks.length > MOST_PLACES
          ? `at ${count(ticks.length, 'chosen place')}`
          : `at ${listed(ticks.map((t) => countRef(on, t)))}`,
    );
  return parts;
}

/** More places than this are only counted in the words: nobody reads them, and the parameter holds them. */
const MOST_PLACES = 8;
