import { count } from '../base';
import { patternOfText, voicedText, type Pattern } from '../pattern';
import type { KeptCame, KeptFigure } from '../shelf';
import { parseStrokeText } from '../stroke';
import { ticks, type Grid, type Meter } from '../time';
import type { Came } from './recognise';
import type { Figure } from './repeats';

/** Of phrases that are the same, played so, as many are kept beside the first. */
const MOST_OR = 40;

/** What came, as a sitting keeps it. */
export const keptCame = (came: readonly Came[]): KeptCame[] =>
  came.map(({ id, or, ...rest }) => ({ phrase: id, ...rest, or: or.slice(0, MOST_OR) }));

/** Figures as a sitting keeps them: as stroke text with its voices. One too long for a text is left out. */
export function keptFigures(figures: readonly Figure[]): KeptFigure[] {
  return figures.flatMap(({ pattern, at, exact }): KeptFigure[] => {
    const text = voicedText(pattern)?.text;
    if (text === undefined) return [];
    const grid = Math.round(pattern.length / text.split(' ').length);
    return [{ text, grid, start: pattern.start, at: [...at], exact }];
  });
}

/** A figure that was kept, as a pattern in the meter of its sitting; null where its text cannot be read. */
export function figurePattern({ text, grid, start }: KeptFigure, meter: Meter): Pattern | null {
  const read = parseStrokeText(text);
  if (!read.ok) return null;
  return { ...patternOfText(read.value, meter, grid as Grid), start: ticks(start), groups: [] };
}

/**
 * How often a figure came.
 * @example
 * figureWords(3, 1, true) // => "3 times"
 * figureWords(7, 2, false) // => "7 times in 2 sittings, not always alike"
 */
export function figureWords(times: number, sittings: number, exact: boolean): string {
  return `${count(times, 'time')}${sittings > 1 ? ` in ${count(sittings, 'sitting')}` : ''}${exact ? '' : ', not always alike'}`;
}
