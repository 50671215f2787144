import { readFail, type Read } from '../base';
import { parseCount, ticks, type Counting } from '../time';
import { LEVELS, LIMBS, VOICE, VOICES, type Level, type Limb, type Voice } from '../stroke';
import type { Role } from './roles';
import type { Selector } from './selector';
import { parseOrdinal } from './selector-words';

const ROLES: readonly Role[] = ['primary', 'timekeeping', 'texture'];
const LIMB_WORDS: ReadonlyMap<string, readonly Limb[]> = new Map<string, readonly Limb[]>([
  ['right', ['R']],
  ['rights', ['R']],
  ['left', ['L']],
  ['lefts', ['L']],
  ['hand', ['R', 'L']],
  ['hands', ['R', 'L']],
  ['kick', ['K']],
  ['kicks', ['K']],
  ['second-kick', ['J']],
  ['second-kicks', ['J']],
  ['hi-hat-foot', ['H']],
]);

/** Words one after the other; `and` and commas only part them. */
class Words {
  private readonly words: readonly string[];
  private at = 0;

  constructor(text: string) {
    this.words = text
      .toLowerCase()
      .replace(/\bbass drum/g, 'kick')
      .replace(/\b(right|left) hands?\b/g, '$1')
      .replace(/second kick/g, 'second-kick')
      .replace(/hi-hat foot/g, 'hi-hat-foot')
      // "the & of 4" is the count 4&.
      .replace(/\bthe (&|[a-z]+|&[a-z]+) of (\d+)\b/g, (whole, syllable: string, beat: string) =>
        parseOrdinal(syllable) === null ? `${beat}${syllable}` : whole,
      )
      .split(/[\s,]+/)
      .filter((w) => w !== '' && w !== 'and');
  }

  peek(): string | null {
    return this.words[this.at] ?? null;
  }

  take(): string | null {
    const word = this.peek();
    if (word !== null) this.at++;
    return word;
  }

  /** Takes all the words of a phrase if they stand next. */
  eat(phrase: string): boolean {
    const wanted = phrase.split(' ');
    if (!wanted.every((w, i) => this.words[this.at + i] === w)) return false;
    this.at += wanted.length;
    return true;
  }

  /** Takes words for as long as they mean something. */
  many<T>(read: (word: string) => T | null): T[] {
    const found: T[] = [];
    for (;;) {
      const word = this.peek();
      const value = word === null ? null : read(word);
      if (value === null) return found;
      found.push(value);
      this.at++;
    }
  }
}

type Draft = { -readonly [K in keyof Selector]: Selector[K] };
export type SelectorCode = 'not-understood';

/**
 * Reads a selector from words: "right accents on 2 and 4", "the second of each double", "every 3rd slot from the e of 1
 * among lefts", "the first of every group in bar 2", "rights at 2:1 and 2:3&". `counting` is only needed where "from"
 * or "at" names a count; `start` is where the pattern begins, in ticks from its first bar line.
 * @example
 * parseSelector('right accents on beats 2 and 4').value // => { limbs: ['R'], levels: ['accent'], counts: ['2', '4'] }
 * parseSelector('second of each double').value // => { inRun: 2 }
 * parseSelector('every 3rd slot from the e of 1', { meter: meter(4, 4), grid: 1260, schools: USUAL_SCHOOLS }).value // => { every: { n: 3, offset: 1, of: 'slot' } }
 * parseSelector('purple ones').problems[0].message // => "“purple” is not understood here. Try: right accents on 2 and 4."
 */
export function parseSelector(text: string, counting?: Counting, start = 0): Read<Selector, SelectorCode> {
  const words = new Words(text);
  const draft: Draft = {};
  if (words.eat('every') && !readEvery(words, draft, counting)) return notUnderstood(words);
  words.eat('among');
  if (readRun(words, draft)) words.eat('among');
  readNouns(words, draft);
  while (words.peek() !== null)
    if (!readWhere(words, draft, (count) => (counting ? parseCount(count, counting) : null), start))
      return notUnderstood(words);
  return { ok: true, value: draft, problems: [] };
}

function notUnderstood(words: Words): Read<never, SelectorCode> {
  const word = words.peek();
  return readFail(
    'not-understood',
    null,
    `${word === null ? 'Something is missing at the end' : `“${word}” is not understood here`}. Try: right accents on 2 and 4.`,
  );
}

function readEvery(words: Words, draft: Draft, counting: Counting | undefined): boolean {
  const n = parseOrdinal(words.peek() ?? '');
  if (n === null) return false;
  words.take();
  const of = words.take()?.replace(/s$/, '');
  if (of !== 'slot' && of !== 'stroke') return false;
  let offset = 0;
  if (words.eat('from')) {
    const from = readFrom(words, of, counting);
    if (from === null) return false;
    offset = from;
  }
  draft.every = { n, offset, of };
  return true;
}

function readFrom(words: Words, of: string, counting: Counting | undefined): number | null {
  if (words.eat(of)) {
    const n = Number(words.take());
    return Number.isInteger(n) && n >= 1 ? n - 1 : null;
  }
  const tick = counting ? parseCount(words.take() ?? '', counting) : null;
  return tick !== null && counting ? Math.round(tick / counting.grid) : null;
}

function readRun(words: Words, draft: Draft): boolean {
  for (const n of [1, 2] as const) {
    for (const start of ['the ', '']) {
      if (words.eat(`${start}${n === 1 ? 'first' : 'second'} of each double`)) {
        draft.inRun = n;
        return true;
      }
    }
  }
  return false;
}

function readNouns(words: Words, draft: Draft): void {
  if (words.eat('all strokes')) return;
  if (readPlaces(words, draft)) return;
  const roles = words.many((w) => ROLES.find((r) => r === w) ?? null);
  if (roles.length > 0) draft.roles = roles;
  const limbs = words.many((w) => LIMB_WORDS.get(w) ?? null).flat();
  if (limbs.length > 0) draft.limbs = LIMBS.filter((l) => limbs.includes(l));
  const levels = words.many((w): Level | null => LEVELS.find((l) => w === l || w === `${l}s`) ?? null);
  if (levels.length > 0) draft.levels = levels;
  words.eat('strokes');
  if (words.eat('that are')) readPlaces(words, draft);
}

function readPlaces(words: Words, draft: Draft): boolean {
  const before = words.peek();
  if (before !== 'the' && parseOrdinal(before ?? '') === null) return false;
  words.eat('the');
  const places = words.many(parseOrdinal);
  if (places.length === 0 || !(words.eat('of every group') || words.eat('of each group'))) return false;
  draft.places = places;
  return true;
}

const VOICE_OF: ReadonlyMap<string, Voice> = new Map(VOICES.map((v) => [VOICE[v].name.toLowerCase(), v]));
const VOICE_NAMES = [...VOICE_OF.keys()].sort((a, b) => b.length - a.length);

function readWhere(words: Words, draft: Draft, tickOf: (count: string) => number | null, start: number): boolean {
  if (words.eat('played on')) return readVoices(words, draft);
  if (words.eat('on beats') || words.eat('on beat') || words.eat('on')) {
    const counts = words.many((w) => (/^\d/.test(w) ? w : null));
    draft.counts = counts;
    return counts.length > 0;
  }
  if (words.eat('in bars') || words.eat('in bar')) {
    draft.bars = words.many((w) => (/^\d+$/.test(w) ? Number(w) : null));
    return draft.bars.length > 0;
  }
  if (words.eat('in the')) {
    draft.repeats = words.many((w): 'first' | 'last' | number | null =>
      w === 'first' || w === 'last' ? w : parseOrdinal(w),
    );
    return draft.repeats.length > 0 && (words.eat('repeat') || words.eat('repeats'));
  }
  if (words.eat('at no place')) {
    draft.ticks = [];
    return true;
  }
  if (words.eat('at')) {
    draft.ticks = words.many(tickOf).map((tick) => ticks(tick - start));
    return draft.ticks.length > 0;
  }
  return false;
}

function readVoices(words: Words, draft: Draft): boolean {
  words.eat('the');
  const voices: Voice[] = [];
  for (;;) {
    const name = VOICE_NAMES.find((n) => words.eat(n));
    const voice = name === undefined ? undefined : VOICE_OF.get(name);
    if (!voice) break;
    voices.push(voice);
  }
  draft.voices = voices;
  return voices.length > 0;
}
