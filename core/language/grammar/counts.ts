import {
  LEVEL_TERMS,
  LIMB_TERMS,
  limbLetter,
  NUMBERS,
  ORDINALS,
  ORNAMENT_TERMS,
  SYLLABLES,
  type LimbTerm,
} from '../lexicon/terms';
import type { Found } from '../lexicon/template';
import { COUNT, type Token } from '../lexicon/tokens';

/** A count as it was said. No beat: in every beat; `whole`: the beat, not only its number. */
export interface CountSaid {
  readonly bar: number | null;
  readonly beat: number | null;
  readonly syllable: string;
  readonly as: 'count' | 'beat' | 'whole';
}

/** The last beat of the phrase, whichever it is. */
export const LAST = -1;

export type BarSaid = number | 'last';

export const word = (tokens: readonly Token[], at: number): string => tokens[at]?.word ?? '';

/** A limb as it is said, or as the letter it is written by. */
export function limbAt(tokens: readonly Token[], at: number): LimbTerm | undefined {
  const raw = (i: number): string => tokens[i]?.raw ?? '';
  return LIMB_TERMS.get(word(tokens, at)) ?? limbLetter(raw(at), raw(at - 1), raw(at + 1));
}

/** "12", "1½", "5s". */
function figures(w: string): number | null {
  if (w.endsWith('½')) return Number(w.slice(0, -1)) + 0.5;
  return /^\d{1,4}$/.test(w) ? Number(w) : /^\d{1,2}s$/.test(w) ? Number(w.slice(0, -1)) : null;
}

/** A number in figures or words. */
export function numberAt(tokens: readonly Token[], at: number): readonly Found<number>[] {
  const w = word(tokens, at);
  const n = NUMBERS.get(w) ?? figures(w);
  if (w === 'a' && word(tokens, at + 1) === 'couple')
    return [{ end: at + (word(tokens, at + 2) === 'of' ? 3 : 2), value: 2 }];
  return n === null ? [] : [{ end: at + 1, value: n }];
}

/** The bar of a count said before it: "bar 2: 3e". */
function barAt(tokens: readonly Token[], at: number): Found<number> | null {
  if (!/^bars?$|^measure$/.test(word(tokens, at))) return null;
  const [n] = numberAt(tokens, at + 1);
  return n ? { end: /^[:,]$/.test(word(tokens, n.end)) ? n.end + 1 : n.end, value: n.value } : null;
}

/** One count: "3", "3e", "2:4&", "the e of 3", "beat 4", "the & of it", "the & in each beat". */
export function countAt(
  tokens: readonly Token[],
  start: number,
  it: number | null = null,
): readonly Found<CountSaid>[] {
  const found: Found<CountSaid>[] = [];
  let at = start;
  const bar = barAt(tokens, at);
  if (bar) at = bar.end;
  while (word(tokens, at) === 'the' || (word(tokens, at) === 'count' && at === start)) at++;
  const w = word(tokens, at);
  const raw = tokens[at]?.raw ?? '';
  if (COUNT.test(w) && /\d/.test(w)) {
    const [, own, beat = '', syllable = ''] = /^(?:(\d+):)?(\d+)(.*)$/.exec(w) ?? [];
    found.push({
      end: at + 1,
      value: { bar: own ? Number(own) : (bar?.value ?? null), beat: Number(beat), syllable, as: 'count' },
    });
  }
  // Numbers as words are counts where a beat can be so called: "one and four".
  const spoken = NUMBERS.get(w);
  // "One accent" says how many.
  const many = LEVEL_TERMS.has(word(tokens, at + 1)) || ORNAMENT_TERMS.has(word(tokens, at + 1));
  if (!many && spoken !== undefined && spoken <= 15 && /^[a-z]{3,}$/.test(w) && w !== 'once' && !w.endsWith('s'))
    found.push({ end: at + 1, value: { bar: bar?.value ?? null, beat: spoken, syllable: '', as: 'count' } });
  if (w === 'beat' || w === 'count') {
    const [n] = numberAt(tokens, at + 1);
    if (n) found.push({ end: n.end, value: { bar: bar?.value ?? null, beat: n.value, syllable: '', as: 'beat' } });
  }
  const syllable = SYLLABLES.get(w) ?? (raw === '&' ? '&' : undefined);
  // "As" by itself is no list of a's.
  const listed = /^(?:and|,)$/.test(word(tokens, at - 1)) && /^(?:es|&s|ands)$/.test(word(tokens, at - 2));
  const isPlural = w !== 'as' || listed || /^(?:the|all)$/.test(word(tokens, at - 1));
  if (syllable !== undefined && isPlural) {
    let next = at + 1;
    // "of", "after", "in each beat"
    if (/^(?:of|after|in|on)$/.test(word(tokens, next))) {
      next++;
      if (word(tokens, next) === 'the') next++;
      if (word(tokens, next) === 'it' && it !== null)
        found.push({ end: next + 1, value: { bar: bar?.value ?? null, beat: it, syllable, as: 'count' } });
      if (/^(?:every|each|all)$/.test(word(tokens, next))) {
        next++;
        if (word(tokens, next) === 'the') next++;
        if (/^(?:beats?|numbers?)$/.test(word(tokens, next)))
          found.push({ end: next + 1, value: { bar: bar?.value ?? null, beat: null, syllable, as: 'count' } });
      } else {
        if (word(tokens, next) === 'beat') next++;
        const [n] = numberAt(tokens, next);
        const w2 = word(tokens, next);
        const literal = /^(\d+):(\d+)$/.exec(w2);
        if (literal)
          found.push({
            end: next + 1,
            value: { bar: Number(literal[1]), beat: Number(literal[2]), syllable, as: 'count' },
          });
        else if (n && w2 !== 'a' && w2 !== 'an')
          found.push({ end: n.end, value: { bar: bar?.value ?? null, beat: n.value, syllable, as: 'count' } });
      }
    } else if (/s$/.test(w) || (word(tokens, at - 1) === 'every' && syllable !== 'a'))
      found.push({ end: next, value: { bar: bar?.value ?? null, beat: null, syllable, as: 'count' } });
  }
  return found;
}

/** So many counts are listed at most. */
const MOST_LISTED = 16;

/** "every 2 and 4": beats that come in every bar, and no two things that come every so often. */
export function isListed(tokens: readonly Token[], at: number): boolean {
  const [n] = /^(?:every|each)$/.test(word(tokens, at)) ? numberAt(tokens, at + 1) : [];
  return n !== undefined && /^(?:and|,)$/.test(word(tokens, n.end)) && numberAt(tokens, n.end + 1).length > 0;
}

/** Several counts: "1, 3 and 5", "the e of 1 and the a of 2", "beats one and four", "2 and 4 in bar 2". */
export function countsAt(tokens: readonly Token[], start: number): readonly Found<readonly CountSaid[]>[] {
  let at = start;
  const numbered = (i: number): boolean => numberAt(tokens, i).length > 0;
  // "All four" says how many, "every 2" by itself how far apart.
  if (/^(?:all|every|each)$/.test(word(tokens, start - 1)) && numbered(start)) return [];
  // "On all four", "on all four beats": every beat of a bar of so many, or of any.
  if (word(tokens, at) === 'all' && /^(?:on|at)$/.test(word(tokens, at - 1)) && numbered(at + 1)) {
    const beats = /^beats$/.test(word(tokens, at + 2));
    const every: CountSaid = { bar: null, beat: null, syllable: '', as: 'count' };
    if (beats || word(tokens, at + 1) === 'four' || word(tokens, at + 1) === '4')
      return [{ end: at + (beats ? 3 : 2), value: [every] }];
  }
  while (word(tokens, at) === 'the' || (word(tokens, at) === 'all' && !numbered(at + 1))) at++;
  // "Every 2 and 4", "every 1": beats that come in each bar.
  if (isListed(tokens, at) || (/^(?:every|each)$/.test(word(tokens, at)) && numbered(at + 1))) at++;
  const whole = word(tokens, at) === 'whole' ? ((at += word(tokens, at + 1) === 'of' ? 2 : 1), true) : false;
  const w = word(tokens, at);
  if (w === 'offbeats' || w === 'upbeats')
    return [{ end: at + 1, value: [{ bar: null, beat: null, syllable: '&', as: 'count' }] }];
  if (w === 'ones' && word(tokens, at - 1) === 'the')
    return [{ end: at + 1, value: [{ bar: null, beat: 1, syllable: '', as: 'count' }] }];
  if (w === 'downbeat') return [{ end: at + 1, value: [{ bar: null, beat: 1, syllable: '', as: 'count' }] }];
  if (w === 'downbeats' || w === 'numbers')
    return [{ end: at + 1, value: [{ bar: null, beat: null, syllable: '', as: 'count' }] }];
  const nth = ORDINALS.get(w);
  if ((nth !== undefined || w === 'last') && word(tokens, at + 1) === 'beat')
    return [{ end: at + 2, value: [{ bar: null, beat: nth ?? LAST, syllable: '', as: whole ? 'whole' : 'beat' }] }];
  // "On the beat": on each.
  if (
    w === 'beat' &&
    word(tokens, start) === 'the' &&
    word(tokens, start - 1) === 'on' &&
    numberAt(tokens, at + 1).length === 0
  )
    return [{ end: at + 1, value: [{ bar: null, beat: null, syllable: '', as: 'count' }] }];
  // "The beats", "both beats": each of them.
  const both = w === 'both' ? 1 : 0;
  if (word(tokens, at + both) === 'beats' && numberAt(tokens, at + both + 1).length === 0)
    return [{ end: at + both + 1, value: [{ bar: null, beat: null, syllable: '', as: 'count' }] }];
  if (/^(?:every|each)$/.test(w) && word(tokens, at + 1) === 'beat')
    return [{ end: at + 2, value: [{ bar: null, beat: null, syllable: '', as: 'count' }] }];
  if (/^(?:every|each)$/.test(w) && SYLLABLES.has(word(tokens, at + 1)) && word(tokens, at + 1) !== 'a')
    return [
      {
        end: at + 2,
        value: [{ bar: null, beat: null, syllable: SYLLABLES.get(word(tokens, at + 1)) ?? '&', as: 'count' }],
      },
    ];
  const many = w === 'beats' || w === 'counts';
  if (many) at++;
  const out: Found<readonly CountSaid[]>[] = [];
  const go = (from: number, list: readonly CountSaid[], shared: readonly string[]): void => {
    if (list.length >= MOST_LISTED) return;
    const it = list.findLast((c) => c.beat !== null)?.beat ?? null;
    for (const f of listedAt(tokens, from, it)) {
      const spread = shared.length > 0 && isBareNumber(tokens, from);
      const own = spread ? f.value.flatMap((c) => shared.map((syllable) => ({ ...c, syllable }))) : f.value;
      const all = [
        ...list,
        ...own.map((c): CountSaid => ({
          ...c,
          bar: c.bar ?? list.at(-1)?.bar ?? null,
          as: whole ? 'whole' : many ? 'beat' : c.as,
        })),
      ];
      // A list that goes on behind a comma is not cut there.
      const goesOn = word(tokens, f.end) === ',' && countAt(tokens, f.end + 1).length > 0 && all.length < MOST_LISTED;
      if (!goesOn) out.push({ end: f.end, value: all });
      // "1 & 3" is 1 and 3, or the & of 1 and 3.
      const [only, ...none] = f.value;
      const and = tokens[f.end]?.raw === '&' && numberAt(tokens, f.end + 1).length > 0;
      if (and && only?.syllable === '' && only.as === 'count' && none.length === 0 && only.beat !== null)
        go(f.end + 1, [...list, { ...only, bar: only.bar ?? list.at(-1)?.bar ?? null, syllable: '&' }], []);
      let next = f.end;
      const comma = word(tokens, next) === ',';
      if (comma) next++;
      // In "1, & of 3" it is the syllable.
      const joined = /^(?:and|&|or)$/.test(word(tokens, next)) && word(tokens, next + 1) !== 'of';
      if (joined) next++;
      const spoken = tokens.slice(from, f.end);
      const of = spread || spoken.some((t) => t.word === 'of');
      // Behind numbers that have none, a syllable is that of one beat: "1, the & of 2 and 3".
      const isSaidOfAll = all.every((c) => c.syllable !== '');
      const sharing = isSaidOfAll && of && (joined || spoken.some((t) => /^(?:ands|&s|es)$/.test(t.word)) || spread);
      // "1 2 and 4": numbers side by side, rising.
      const isRising =
        placeOf(word(tokens, f.end)) > placeOf(word(tokens, f.end - 1)) && placeOf(word(tokens, f.end - 1)) > 0;
      if (next === f.end && isRising) go(next, all, []);
      if (next > f.end) go(next, all, sharing ? [...new Set(own.map((c) => c.syllable).filter(Boolean))] : []);
    }
  };
  go(at, [], []);
  return out;
}

/** Where a count in figures stands among others; 0 for any other word. */
function placeOf(w: string): number {
  const [, beat, syllable = ''] = /^(\d{1,2})([e&a]?)$/.exec(w) ?? [];
  return beat === undefined ? 0 : Number(beat) * 4 + ['', 'e', '&', 'a'].indexOf(syllable);
}

/** A number by itself: of a syllable said before, it is another beat ("the & of 2 and 4"). */
function isBareNumber(tokens: readonly Token[], at: number): boolean {
  return /^\d{1,2}$/.test(word(tokens, at)) || (NUMBERS.get(word(tokens, at)) ?? 1) > 1 || word(tokens, at) === 'one';
}

/** One count of a list, or several syllables of one beat: "the e and a of 2". */
function listedAt(tokens: readonly Token[], from: number, it: number | null): readonly Found<readonly CountSaid[]>[] {
  const syllables: string[] = [];
  let at = from;
  for (;;) {
    while (word(tokens, at) === 'the') at++;
    // An "&" joins where a syllable stands behind it.
    const syllable = SYLLABLES.get(word(tokens, at));
    if (syllable === undefined) break;
    syllables.push(syllable);
    at++;
    if (word(tokens, at) === 'of') break;
    if (!/^(?:and|,|&)$/.test(word(tokens, at))) break;
    if (word(tokens, at) === ',' && /^(?:and|&)$/.test(word(tokens, at + 1))) at++;
    at++;
  }
  const [n] = syllables.length > 1 && word(tokens, at) === 'of' ? numberAt(tokens, at + 1) : [];
  if (n)
    return [
      {
        end: n.end,
        value: syllables.map((syllable) => ({ bar: null, beat: n.value, syllable, as: 'count' as const })),
      },
    ];
  return countAt(tokens, from, it).map((f) => ({ end: f.end, value: [f.value] }));
}

/** Bars as they are said: "bar 2", "bars 1 and 2", "the second bar", "the last bar". */
export function barsAt(tokens: readonly Token[], start: number): readonly Found<readonly BarSaid[]>[] {
  let at = start;
  while (word(tokens, at) === 'the' || word(tokens, at) === 'all' || word(tokens, at) === 'of') at++;
  const w = word(tokens, at);
  if (/^(?:bars?|measures?)$/.test(w)) {
    const out: Found<readonly BarSaid[]>[] = [];
    let list: readonly BarSaid[] = [];
    let next = at + 1;
    for (;;) {
      const [n] = numberAt(tokens, next);
      if (!n || word(tokens, next) === 'a') break;
      list = [...list, n.value];
      out.push({ end: n.end, value: list });
      next = n.end;
      if (!/^(?:and|,|&)$/.test(word(tokens, next))) break;
      next++;
    }
    return out;
  }
  const nth: BarSaid | undefined = w === 'last' ? 'last' : ORDINALS.get(w);
  return nth !== undefined && /^(?:bar|measure)$/.test(word(tokens, at + 1)) ? [{ end: at + 2, value: [nth] }] : [];
}

/** A count as the moves take it; one that stands in every beat is none of a phrase. */
export function textOfCount({ beat, syllable }: CountSaid): string {
  return `${beat ?? ''}${syllable}`;
}

/** The same with its bar, where one was said. */
export function refOf(c: CountSaid): string {
  return `${c.bar === null ? '' : `${c.bar}:`}${textOfCount(c)}`;
}
