import { parseStrokeText, type Level, type Voice } from '../../stroke';
import { barsAt, countAt, countsAt, limbAt, numberAt, word } from './counts';
import { phraseAt } from '../lexicon/phrases';
import { pickAt } from './pick';
import type { Found, SlotReader, SlotReaders } from '../lexicon/template';
import { GRID_TERMS, LEVEL_TERMS, LIMB_TERMS, ORDINALS, ORNAMENT_TERMS, voiceTerm } from '../lexicon/terms';
import type { Token } from '../lexicon/tokens';

const LEAD = new Set(['the', 'a', 'an', 'my', 'some']);

function skip(tokens: readonly Token[], start: number): number {
  let at = start;
  while (LEAD.has(word(tokens, at))) at++;
  return at;
}

/** Pieces strokes are sent to: one list for each way to understand them. */
export type VoicesSaid = readonly (readonly Voice[])[];

const SHARED: ReadonlyMap<string, string> = new Map([
  ['high', 'high tom'],
  ['mid', 'mid tom'],
  ['middle', 'mid tom'],
  ['low', 'low tom'],
  ['hi', 'high tom'],
]);

const isPiece = (w: string): boolean => voiceTerm(w) !== undefined || SHARED.has(w);

/** Words that name a tom only beside other pieces, for the vocabulary. */
export const SHARED_WORDS: readonly string[] = [...SHARED.keys(), 'dotted'];

/** Pieces of a list so far, and what each word of it stands for. */
interface Listed {
  readonly own: readonly Voice[];
  readonly by: ReadonlyMap<string, Voice>;
}

/** One piece more; a word means the same wherever it stands, and not what another word of the list names. */
function listedWith(lists: readonly Listed[], said: string, to: readonly Voice[]): readonly Listed[] {
  return lists.flatMap(({ own, by }) => {
    const before = by.get(said);
    const named = [...by.values()];
    const free = to.filter((v) => !named.includes(v));
    const meant = before ? [before] : free.length > 0 ? free : to;
    return meant.map((v): Listed => ({ own: [...own, v], by: new Map([...by, [said, v]]) }));
  });
}

const voices: SlotReader = (tokens, start) => {
  const out: Found<VoicesSaid>[] = [];
  const go = (from: number, lists: readonly Listed[], many: number, beside = false): void => {
    const at = skip(tokens, from);
    // "High, mid and floor tom", "snare high mid low": the noun is said once, or not at all.
    const behind = word(tokens, at + 1);
    const listed = /^(?:,|and)$/.test(behind) || many > 0 || isPiece(behind);
    const said = (listed ? SHARED.get(word(tokens, at)) : undefined) ?? word(tokens, at);
    const term = voiceTerm(said);
    if (!term || many > 8) return;
    const next = listedWith(lists, said, term.to);
    // Pieces side by side are a list where there are three.
    if (!beside || many > 1) out.push({ end: at + 1, value: next.map((l) => l.own) });
    let end = at + 1;
    if (word(tokens, end) === ',') end++;
    if (/^(?:and|then|or)$/.test(word(tokens, end))) end++;
    if (end > at + 1) go(end, next, many + 1);
    else if (isPiece(word(tokens, end))) go(end, next, many + 1, true);
  };
  go(start, [{ own: [], by: new Map() }], 0);
  return out;
};

const term =
  <T>(terms: ReadonlyMap<string, T>, leads = true): SlotReader =>
  (tokens, start) => {
    const at = leads ? skip(tokens, start) : start;
    const found = terms.get(word(tokens, at));
    return found === undefined ? [] : [{ end: at + 1, value: found }];
  };

const limb: SlotReader = (tokens, start) => {
  const at = skip(tokens, start);
  const found = limbAt(tokens, at);
  return found === undefined ? [] : [{ end: at + 1, value: found }];
};

/** Strokes to be put in, in words: "a kick", "two kicks", "a rest", "three lefts". */
const countedOne: SlotReader = (tokens, start) => {
  const out: Found<string>[] = [];
  let at = start;
  const [n] = numberAt(tokens, at);
  const many = n ? n.value : 1;
  if (n) at = n.end;
  // "Two more kicks"; "one" by itself can be a count.
  if (n && (many > 1 || /^an?$/.test(word(tokens, start))) && /^(?:more|extra|further)$/.test(word(tokens, at))) at++;
  const letter = strokeCalled(tokens, at);
  if (letter && many > 0 && many <= 64)
    out.push({ end: letter.end, value: Array.from({ length: many }, () => letter.value).join(' ') });
  return out;
};

/** "A kick and a left", "a kick, a kick and a right". */
const counted: SlotReader = (tokens, start) => {
  const out: Found<string>[] = [];
  const go = (at: number, before: readonly string[]): void => {
    for (const { end, value } of countedOne(tokens, at) as readonly Found<string>[]) {
      const all = [...before, value];
      out.push({ end, value: all.join(' ') });
      let next = end;
      while (/^(?:,|and|then)$/.test(word(tokens, next))) next++;
      // Behind "and" another can be said to do something: it is one of these only with a number of its own.
      if (next > end && numberAt(tokens, next).length > 0 && all.length < 16) go(next, all);
    }
  };
  go(start, []);
  return out;
};

/** Strokes as they are typed: "R L R L". */
const letters: SlotReader = (tokens, start) => {
  const out: Found<string>[] = [];
  const raw: string[] = [];
  for (let i = start; i < tokens.length; i++) {
    const text = tokens[i]?.raw ?? '';
    if (!/^(?:[fdrz]?[rlkhj]!?|-|\+|\|)+$/i.test(text)) break;
    raw.push(text);
    if (parseStrokeText(raw.join(' ')).ok) out.push({ end: i + 1, value: raw.join(' ') });
  }
  return out;
};

function strokeCalled(tokens: readonly Token[], at: number): Found<string> | null {
  const w = word(tokens, at);
  if (/^rests?$|^gaps?$|^silences?$/.test(w)) return { end: at + 1, value: '-' };
  const level = LEVEL_TERMS.get(w);
  const next = level ? at + 1 : at;
  const found = LIMB_TERMS.get(word(tokens, next));
  const [own, ...others] = found?.limbs ?? [];
  if (!own || others.length > 0) return null;
  const end = /^(?:strokes?|notes?|hits?)$/.test(word(tokens, next + 1)) ? next + 2 : next + 1;
  return { end, value: level === 'ghost' ? own.toLowerCase() : level === 'accent' ? `${own}!` : own };
}

/** "The bar", "the whole bar": one. */
const wholeBar = (tokens: readonly Token[], at: number): number => (word(tokens, at) === 'whole' ? at + 1 : at);

/** How much room is meant, in bars or counted beats: "two bars", "half a bar", "a bar and a half", "3 beats". */
export type SpaceSaid = { readonly bars: number } | { readonly beats: number };

const space: SlotReader = (tokens, start) => {
  const out: Found<SpaceSaid>[] = [];
  const at = word(tokens, start) === 'the' ? start + 1 : start;
  const w = word(tokens, at);
  const bar = (i: number): boolean => /^(?:bars?|measures?)$/.test(word(tokens, i));
  const beat = (i: number): boolean => /^beats?$/.test(word(tokens, i));
  if (at > start && word(tokens, wholeBar(tokens, at)) === 'bar')
    out.push({ end: wholeBar(tokens, at) + 1, value: { bars: 1 } });
  if (w === 'half') {
    const next = word(tokens, at + 1) === 'a' ? at + 2 : at + 1;
    if (bar(next)) out.push({ end: next + 1, value: { bars: 0.5 } });
  }
  if (w === 'a' && word(tokens, at + 1) === 'half' && bar(at + 2)) out.push({ end: at + 3, value: { bars: 0.5 } });
  for (const number of numberAt(tokens, at)) {
    // "A whole bar", "two full bars"
    const whole = /^(?:whole|full|entire|complete)$/.test(word(tokens, number.end)) && bar(number.end + 1);
    const n = whole ? { ...number, end: number.end + 1 } : number;
    if (bar(n.end)) {
      out.push({ end: n.end + 1, value: { bars: n.value } });
      const more = [0, 1, 2].map((i) => word(tokens, n.end + 1 + i)).join(' ');
      if (more === 'and a half') out.push({ end: n.end + 4, value: { bars: n.value + 0.5 } });
    }
    if (beat(n.end)) out.push({ end: n.end + 1, value: { beats: n.value } });
    if (
      word(tokens, n.end) === 'and' &&
      word(tokens, n.end + 1) === 'a' &&
      word(tokens, n.end + 2) === 'half' &&
      bar(n.end + 3)
    )
      out.push({ end: n.end + 4, value: { bars: n.value + 0.5 } });
  }
  return out;
};

/** How far something is moved: so many slots, notes of a grid, beats or bars. */
export type FarSaid =
  | { readonly of: 'slot' | 'beat' | 'bar'; readonly n: number }
  | { readonly of: 'grid'; readonly n: number; readonly grid: number };

/** Words behind a distance. */
const AWAY = /^(?:later|earlier|late|early|back|forward|forwards|along|ahead|over|to)$/;

const far: SlotReader = (tokens, start) => {
  const out: Found<FarSaid>[] = [];
  // "The last two later" says which, and not how far.
  if (/^(?:first|last|next|other|every|each)$/.test(word(tokens, start - 1))) return out;
  for (const f of space(tokens, start)) {
    const { value } = f as Found<SpaceSaid>;
    out.push({ end: f.end, value: 'bars' in value ? { of: 'bar', n: value.bars } : { of: 'beat', n: value.beats } });
  }
  if (word(tokens, start) === 'half' && word(tokens, start + 1) === 'a' && word(tokens, start + 2) === 'beat')
    out.push({ end: start + 3, value: { of: 'beat', n: 0.5 } });
  for (const { end, value: n } of numberAt(tokens, start)) {
    const dotted = word(tokens, end) === 'dotted';
    const unit = dotted ? end + 1 : end;
    const grid = GRID_TERMS.get(word(tokens, unit));
    if (grid !== undefined) {
      const noun = /^(?:notes?|slots?)$/.test(word(tokens, unit + 1));
      out.push({ end: noun ? unit + 2 : unit + 1, value: { of: 'grid', n: dotted ? n * 1.5 : n, grid } });
    } else if (/^(?:slots?|steps?|places?|positions?)$/.test(word(tokens, end)))
      out.push({ end: end + 1, value: { of: 'slot', n } });
    // "One note later"
    else if (
      /^(?:notes?|strokes?|hits?)$/.test(word(tokens, end)) &&
      (AWAY.test(word(tokens, end + 1)) || word(tokens, start - 1) === 'by')
    )
      out.push({ end: end + 1, value: { of: 'slot', n } });
    else out.push({ end, value: { of: 'slot', n } });
  }
  return out;
};

/** "First accent", "last ghost": one of them, and not how high something is. */
export function isOneOf(tokens: readonly Token[], at: number): boolean {
  const before = word(tokens, at - 1);
  return (ORDINALS.has(before) || before === 'last') && /^(?:accent|ghost)s?$/.test(word(tokens, at));
}

/** The slots of templates. */
export const SLOTS: SlotReaders = {
  pick: pickAt,
  count: countAt,
  counts: countsAt,
  bars: barsAt,
  n: numberAt,
  space,
  far,
  // "in threes", "in ones"
  each: (tokens, start) => (word(tokens, start) === 'ones' ? [{ end: start + 1, value: 1 }] : numberAt(tokens, start)),
  voices,
  limb,
  // "The first accent" is one of the accents.
  level: (tokens, start) => (isOneOf(tokens, start) ? [] : term<Level>(LEVEL_TERMS)(tokens, start)),
  ornament: term(ORNAMENT_TERMS),
  grid: (tokens, start) =>
    term(GRID_TERMS)(tokens, start).flatMap((f) =>
      /^notes?$/.test(word(tokens, f.end)) ? [f, { ...f, end: f.end + 1 }] : [f],
    ),
  nth: term(ORDINALS),
  phrase: (tokens, start) => {
    const value = phraseAt(word(tokens, start));
    return value === null ? [] : [{ end: start + 1, value }];
  },
  counted,
  letters,
  strokes: (tokens, start) => [...counted(tokens, start), ...letters(tokens, start)],
  sizes: (tokens, start) => {
    const out: Found<readonly number[]>[] = [];
    const go = (at: number, list: readonly number[]): void => {
      const article = /^(?:an?|one)$/.test(word(tokens, at)) && numberAt(tokens, at + 1).length > 0;
      const [n] = numberAt(tokens, article ? at + 1 : at);
      if (!n || n.value < 1 || n.value > 64) return;
      // "two 5s", "three fives"
      const [each] = numberAt(tokens, n.end);
      if (each && /s$/.test(word(tokens, n.end)) && each.value <= 64 && n.value * each.value <= 512) {
        const many = [...list, ...Array.from({ length: n.value }, () => each.value)];
        out.push({ end: each.end, value: many });
        let after = each.end;
        while (/^(?:,|and|\+|plus)$/.test(word(tokens, after))) after++;
        if (after > each.end) go(after, many);
        return;
      }
      const next = [...list, n.value];
      out.push({ end: n.end, value: next });
      let end = n.end;
      while (/^(?:,|and|\+|plus)$/.test(word(tokens, end))) end++;
      if (end > n.end) go(end, next);
    };
    go(start, []);
    return out;
  },
};
