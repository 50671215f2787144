import { clamp } from '../base';
import { gridName, parseGrid, STRAIGHT, SWING, type Feel } from '../time';
import type { Cue } from '../shelf';

/** How far a shuffle swings where nothing says how far. */
const SHUFFLE = 0.66;

/** Words of a time feel that change nothing of how strokes lie: they are kept in the note. */
const OTHER_FEELS = /^(half[- ]?time|double[- ]?time)\b\s*/i;

/** A feel, a subdivision, or both, from words in small letters; null where they are neither. */
export function feelOf(
  word: string,
): { readonly feel: Feel | null; readonly grid: number | null; readonly note: string | null } | null {
  const other = OTHER_FEELS.exec(word);
  const note = other ? (other[1] ?? null) : null;
  const rest = word
    .replace(OTHER_FEELS, '')
    .replace(/\bfeel$/, '')
    .trim();
  if (rest === '') return note === null ? null : { feel: null, grid: null, note };
  const found =
    /^(?:(straight)|(swung|swing|shuffled?)(?:\s+(?:on\s+)?(eighths|8ths|16ths))?(?:\s+(\d{2})\s?%)?)?\s*(?:(?:on|in)\s+)?(.*)$/.exec(
      rest,
    );
  if (!found) return null;
  const [, straight, swing, on = 'eighths', percent, subdivision = ''] = found;
  const grid = subdivision === '' ? null : parseGrid(subdivision === '8ths' ? 'eighths' : subdivision);
  if (subdivision !== '' && grid === null) return null;
  if (straight === undefined && swing === undefined) return { feel: null, grid, note };
  // A shuffle on triplets is written out: nothing has to be bent.
  if (straight !== undefined || (grid !== null && !bends(grid))) return { feel: STRAIGHT, grid, note };
  const ratio = percent === undefined ? SHUFFLE : clamp(Number(percent) / 100, SWING.least, SWING.most);
  return { feel: { kind: 'swung', on: on === '16ths' ? '16ths' : 'eighths', ratio }, grid, note };
}

/** Whether swing moves anything on a subdivision: on triplets and their like it does not. */
export const bends = (grid: number): boolean => 5040 % grid === 0 && (5040 / grid) % 2 === 0 && (5040 / grid) % 3 !== 0;

/**
 * A feel and a subdivision as they are typed; empty for straight on any.
 * @example
 * feelText({ feel: { kind: 'swung', on: 'eighths', ratio: 0.62 }, grid: 1260 }) // => "swung eighths 62% on 16ths"
 * feelText({ feel: { kind: 'straight' }, grid: 1680 }) // => "straight on triplets"
 */
export function feelText({ feel, grid }: Pick<Cue, 'feel' | 'grid'>): string {
  const on = grid === null ? '' : `on ${gridName(grid)}`;
  const own = feel.kind === 'straight' ? 'straight' : `swung ${feel.on} ${Math.round(feel.ratio * 100)}%`;
  return `${own} ${on}`.trim();
}

/** A feel and a subdivision from what was typed; null where it is neither. */
export function parseFeel(text: string): { readonly feel: Feel; readonly grid: number | null } | null {
  const word = text.trim().toLowerCase();
  if (word === '' || word === 'any') return { feel: STRAIGHT, grid: null };
  const own = feelOf(word);
  return own && own.note === null ? { feel: own.feel ?? STRAIGHT, grid: own.grid } : null;
}

/** A feel among other words, which are kept as a note: fast swing. Null where there is none, or a number. */
export function feelWithin(
  word: string,
): { readonly feel: Feel | null; readonly grid: null; readonly note: string } | null {
  const own = /\d/.test(word) ? null : /\b(?:swing|swung|shuffled?|straight)\b/.exec(word);
  return own ? { feel: feelOf(own[0])?.feel ?? null, grid: null, note: word } : null;
}
