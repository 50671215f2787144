import { count, listed } from '../base';
import { isHand, LIMB_WORDS, VOICE } from '../stroke';
import type { Selector } from './selector';

const LIMB_PLURAL = { R: 'rights', L: 'lefts', K: 'kicks', J: 'second kicks', H: 'hi-hat foot strokes' } as const;
const ORDINALS = ['', 'first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth'];

function ordinal(n: number): string {
  return ORDINALS[n] ?? `number ${n}`;
}

/**
 * A selector in one line that people read.
 * @example
 * selectorWords({ limbs: ['R'], levels: ['accent'], counts: ['2', '4'] }) // => "right-hand accents on 2 and 4"
 * selectorWords({ places: [1] }) // => "the first of every group"
 * selectorWords({}) // => "all strokes"
 */
export function selectorWords(selector: Selector): string {
  const base = what(selector);
  return [everyWords(selector, base), ...where(selector)].join(' ');
}

function what({ limbs, levels, voices, roles, inRun, places }: Selector): string {
  const roleWords = roles?.length ? `${listed(roles)} ` : '';
  const noun = whatNoun(limbs, levels);
  const voiced = voices?.length ? `${noun} on ${listed(voices.map((v) => VOICE[v].name))}` : noun;
  const doubles = inRun ? `the ${ordinal(inRun)} of each double among ${voiced}` : voiced;
  if (!places?.length) return `${roleWords}${doubles}`;
  const plain = doubles === 'all strokes';
  return `${roleWords}${plain ? '' : `${doubles} that are `}the ${listed(places.map(ordinal))} of every group`;
}

function whatNoun(limbs: Selector['limbs'], levels: Selector['levels']): string {
  const [onlyLimb] = limbs ?? [];
  const nouns = levels?.length ? listed(levels.map((l) => `${l}s`)) : null;
  if (!limbs?.length) return nouns ?? 'all strokes';
  if (limbs.length === 2 && limbs.every(isHand)) return `hand ${nouns ?? 'strokes'}`;
  if (!nouns) return listed(limbs.map((l) => LIMB_PLURAL[l]));
  return limbs.length === 1 && onlyLimb
    ? `${LIMB_WORDS[onlyLimb].replace(' ', '-')} ${nouns}`
    : `${nouns} of ${listed(limbs.map((l) => LIMB_WORDS[l]))}`;
}

function everyWords({ every }: Selector, base: string): string {
  if (!every) return base;
  const from = every.offset === 0 ? '' : ` from number ${every.offset + 1}`;
  return every.of === 'slot'
    ? `every ${nth(every.n)} slot${from}${base === 'all strokes' ? '' : ` among ${base}`}`
    : `every ${nth(every.n)} of ${base}${from}`;
}

function nth(n: number): string {
  return n === 1 ? '' : n === 2 ? '2nd' : n === 3 ? '3rd' : `${n}th`;
}

function where({ counts, bars, repeats, ticks }: Selector): string[] {
  const parts: string[] = [];
  if (counts?.length) parts.push(`on ${listed(counts)}`);
  if (bars?.length) parts.push(`in bar ${listed(bars.map(String))}`);
  if (repeats?.length) parts.push(`in the ${listed(repeats.map((r) => (typeof r === 'number' ? ordinal(r) : r)))} repeat`);
  if (ticks) parts.push(`at ${count(ticks.length, 'chosen place')}`);
  return parts;
}
