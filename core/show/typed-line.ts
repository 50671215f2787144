import { barTicks, beatTicks } from '../time';
import type { Cue } from '../shelf';
import { countText, cueMeter } from './room';

/** What follows a name without a comma: a tempo, a meter, bars, in brackets or not, from the end of it. */
const BEHIND = /[\s(]+((?:\d{2,3}\s?bpm|\d{1,2}\/\d{1,2}|\d{1,3}\s?bars?)|(?<=\()\d{2,3}(?=\)))\)?$/i;
/** Several spots of one kind: fills in 8, 16 and 24. */
const SEVERAL =
  /\b(fill|lick|groove)s\s+(?:in|at|on)?\s*(?:bars?\s+)?(\d{1,3}(?:\s*(?:,|and|&)\s*\d{1,3}(?![\d/:]|\s*bars?\b|\s*bpm))+)/gi;

/** The parts of a line as they are typed: a name, then what is known of it. What stands in quotes is one part. */
export function partsOf(line: string): readonly string[] {
  // A dash with spaces parts as a comma does, where there is no comma: within a spot there are others.
  const dashed = /[,;\t]/.test(line) ? line : line.replace(/\s+[-–—/|]\s+/g, ', ');
  const each = dashed.replace(SEVERAL, (_, kind: string, bars: string) =>
    (bars.match(/\d+/g) ?? []).map((b) => `${kind} ${b}`).join(', '),
  );
  const found = each.match(/(?:"[^"]*"|“[^”]*”|[^,;\t"“])+/g) ?? [];
  const [name = '', ...rest] = found.map((p) => p.trim()).filter((p) => p !== '');
  return name === '' ? rest : [...behindName(name), ...rest];
}

/** A name, and what stands behind it without a comma. */
function behindName(text: string): readonly string[] {
  const behind: string[] = [];
  let name = text;
  for (let found = BEHIND.exec(name); found; found = BEHIND.exec(name)) {
    behind.unshift(found[1] ?? '');
    name = name.slice(0, found.index).trim();
  }
  // A name that is nothing but numbers is one.
  return name === '' ? [text] : [name, ...behind];
}

/** What is said of a spot before its kind and says nothing of where it is: a short drum fill. */
const SPOKEN = /^(?:[a-z]+ ){1,3}?(?=(?:fill|lick)\b)(?<!\b(?:bars?|a|last) )/;

const NUMBERS: Readonly<Record<string, number>> = { a: 1, one: 1, two: 2, three: 3, four: 4, eight: 8 };

/**
 * A spot as drummers say it, as it is typed shortest: `fill at bar 8 beats 3-4` is `fill 8:3-4`.
 * @example
 * shortSpot('fill 8 beats 3 - 4', { meter: '4/4', grid: null, bars: 8 }) // => "fill 8:3-4"
 * shortSpot('two bar fill from 7', { meter: '4/4', grid: null, bars: 8 }) // => "fill 7-8"
 * shortSpot('half bar fill in 8', { meter: '6/8', grid: null, bars: 8 }) // => "fill 8:2"
 * shortSpot('fill last bar', { meter: '4/4', grid: null, bars: 16 }) // => "fill 16"
 */
export function shortSpot(text: string, cue: Pick<Cue, 'meter' | 'grid' | 'bars'>): string {
  const word = text
    .toLowerCase()
    .replace(/[–—]/g, '-')
    .replace(/[()\s]+/g, ' ')
    .trim()
    .replace(SPOKEN, '')
    .replace(/\blanding on\b/, 'lands')
    .replace(/\blands? (?:on )?(?:the )?/, 'lands ')
    .replace(
      /\b(?:the )?(and|e|a|trip|let) of (\d{1,2})\b/g,
      (_, s: string, n: string) => `${n}${s === 'and' ? '&' : s}`,
    )
    .replace(/\b(\d{1,2}) and\b(?! \d)/g, '$1&')
    .replace(/ ?- ?/g, '-')
    .replace(/(\d): (?=\d)/g, '$1:')
    .replace(/ (?:through )?to (?:the )?end\b/, '')
    .replace(/\bthrough\b/, 'to');
  const half = /^half(?:-| |-a-| a )bar (fill|lick) (?:in |at |on )?(?:bar )?(\d{1,3})(.*)$/.exec(word);
  if (half) return `${half[1] ?? ''} ${half[2] ?? ''}:${countText(barTicks(cueMeter(cue)) / 2, cue)}${half[3] ?? ''}`;
  const long =
    /^(\d|a|one|two|three|four|eight)(?:-| )bars? (fill|lick|groove) (?:in |at |on |from )?(?:bar )?(\d{1,3})(.*)$/.exec(
      word,
    );
  if (long) {
    const [, many = '1', kind = '', bar = '1', rest = ''] = long;
    const bars = NUMBERS[many] ?? Number(many);
    return `${kind} ${bar}${bars > 1 ? `-${Number(bar) + bars - 1}` : ''}${rest}`;
  }
  const into = /^(fill|lick) into (?:bar )?(\d{1,3})$/.exec(word);
  if (into) return `${into[1] ?? ''} ${Number(into[2]) - 1}`;
  const beats = /^(\w+) (?:in |at |on )?(?:bar )?(\d{1,3})[ :,]*(?:the )?last (?:(two|three|2|3) )?beats?(.*)$/.exec(
    word,
  );
  if (beats) {
    const [, kind = '', bar = '', many = '1', rest = ''] = beats;
    const m = cueMeter(cue);
    const from = barTicks(m) - (NUMBERS[many] ?? Number(many)) * beatTicks(m);
    return `${kind} ${bar}${from > 0 ? `:${countText(from, cue)}` : ''}${rest}`;
  }
  const last = /^(fill|lick|groove) (?:in |at |on )?(?:the )?last (?:(\d|two|four|eight) )?bars?(.*)$/.exec(word);
  if (last) {
    const [, kind = '', many = '1', rest = ''] = last;
    const end = Math.ceil(cue.bars);
    const bars = NUMBERS[many] ?? Number(many);
    return `${kind} ${bars > 1 ? `${Math.max(1, end - bars + 1)}-` : ''}${end}${rest}`;
  }
  return (
    word
      .replace(/^(fill|lick|groove)s? (?:in |at |on |from )?(?:the )?(?:bars? )?(?=\d)/, '$1 ')
      .replace(/^(\w+ \d{1,3})(?:,? (?:on |from )?beats? | (?:on|from) (?:beats? )?)(?=\d)/, '$1:')
      .replace(/:(\d{1,2}) and (\d{1,2})\b/, ':$1-$2')
      // A count behind a bar: fill 12 3&.
      .replace(/^(\w+ \d{1,3}) (?=\d{1,2}(?:e|&|a|trip|let)?(?:-| |$))/, '$1:')
  );
}

/** Spots that come again and again: `fill every 8 bars`, up to the end; the same words where it is only one. */
export function eachSpot(text: string, bars: number): readonly string[] {
  const found = /^(fill|lick)s? every (\d{1,2}|two|four|eight)(?:th|st|nd|rd)? bars?$/i.exec(text.trim());
  if (!found) return [text];
  const step = NUMBERS[found[2] ?? ''] ?? Number(found[2]);
  return Array.from(
    { length: step > 0 ? Math.floor(bars / step) : 0 },
    (_, i) => `${found[1] ?? ''} ${(i + 1) * step}`,
  );
}

/** Whether words, in small letters, are about a spot. */
export const isSpot = (word: string): boolean =>
  /^(?:fill|lick)s? (?:every|into) /.test(word) || isPlaced(word) || isPlaced(word.replace(SPOKEN, ''));

const isPlaced = (word: string): boolean =>
  /^(?:fill|lick|groove)s? (?:in |at |on |from )?(?:the )?(?:bars? )?\d/.test(word) ||
  /^(?:half(?:-| |-a-| a )|(?:\d|a|one|two|three|four|eight)(?:-| ))bars? (?:fill|lick|groove)\b/.test(word) ||
  /^(?:fill|lick|groove) (?:in |at |on )?(?:the )?last\b/.test(word);
