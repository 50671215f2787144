import { count, fraction, listed, listedUpTo, sentence } from '../base';
import { beatTicks, slotsWords, type Meter } from '../time';
import type { Difference } from './difference';

const { abs } = Math;

/**
 * A difference in a drummer's words.
 * @example
 * differenceWords({ kind: 'ended early', slots: 2, grid: 1260 }, meter(4, 4)) // => "ended 2 sixteenths early"
 * differenceWords({ kind: 'moved', ticks: 2520, grid: 1260 }, meter(4, 4)) // => "an eighth later than it is written"
 * differenceWords({ kind: 'moved', ticks: -5040, grid: 1260 }, meter(4, 4)) // => "a beat earlier than it is written"
 */
export function differenceWords(of: Difference, meter: Meter): string {
  switch (of.kind) {
    case 'ended early':
      return `ended ${slotsWords(of.slots, of.grid)} early`;
    case 'begun late':
      return `begun ${slotsWords(of.slots, of.grid)} into it`;
    case 'left out':
      return `${count(of.strokes, 'stroke')} left out`;
    case 'accents':
      return of.where === 'nowhere'
        ? 'without its accents'
        : `accents ${of.where === 'elsewhere' ? '' : 'on '}${of.where}`;
    case 'pieces':
      return 'on other drums';
    case 'swapped':
      return 'hands swapped';
    case 'moved':
      return `${lengthWords(abs(of.ticks), of.grid, meter)} ${of.ticks > 0 ? 'later' : 'earlier'} than it is written`;
  }
}

/** "a beat", "3 beats", "an eighth", "3 sixteenths". */
function lengthWords(ticks: number, grid: number, meter: Meter): string {
  const beat = beatTicks(meter);
  if (ticks % beat === 0) return ticks === beat ? 'a beat' : `${fraction(ticks / beat)} beats`;
  if (ticks === 2 * grid && beat % ticks === 0) return withArticle(slotsWords(1, ticks));
  return withArticle(slotsWords(ticks / grid, grid));
}

const withArticle = (words: string): string =>
  words.startsWith('1 ') ? `${/^1 [aeio]/.test(words) ? 'an' : 'a'} ${words.slice(2)}` : words;

/** All that was different, as one sentence; null where nothing was. */
export function differencesWords(all: readonly Difference[], meter: Meter): string | null {
  return all.length === 0 ? null : sentence(all.map((d) => differenceWords(d, meter)).join(', '));
}

/**
 * What a sitting came to, in a sentence. Names are told for up to three phrases, the most frequent first.
 * @param came the names of what came, one for each time
 * @example
 * cameWords(['Net', 'Net', 'Cold rope'], 40) // => "Net came twice and Cold rope once."
 * cameWords([], 40) // => "None of your 40 phrases came, or none for sure."
 * cameWords([], 0) // => "Not read yet."
 */
export function cameWords(came: readonly string[], against: number): string {
  if (against === 0) return 'Not read yet.';
  if (came.length === 0) return `None of your ${count(against, 'phrase')} came, or none for sure.`;
  const times = new Map<string, number>();
  for (const name of came) times.set(name, (times.get(name) ?? 0) + 1);
  const all = [...times].sort((a, b) => b[1] - a[1]);
  const often = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);
  if (all.every(([, n]) => n === 1))
    return `${listedUpTo(
      all.map(([name]) => name),
      3,
    )} came${all.length > 1 ? ', each' : ''} once.`;
  const words = all.slice(0, 3).map(([name, n], i) => `${name}${i === 0 ? ' came' : ''} ${often(n)}`);
  const more = all.length - words.length;
  return `${listed(more > 0 ? [...words, `${more} more`] : words)}.`;
}

/**
 * How sure it is that a phrase came, in words; null where it is beyond doubt.
 * @example
 * sureWords(0.995) // => null
 * sureWords(0.93) // => "most likely"
 */
export const sureWords = (chance: number): string | null => (chance >= 0.98 ? null : 'most likely');
