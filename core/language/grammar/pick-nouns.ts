import { ticks } from '../../time';
import type { Level, Ornament } from '../../stroke';
import { GRID_TERMS, LEVEL_TERMS, LIMB_TERMS, NUMBERS, ORDINALS, ORNAMENT_TERMS, voiceTerm } from '../lexicon/terms';
import { barsAt, countsAt, isListed, limbAt, numberAt, word, type CountSaid } from './counts';
import type { Each, Order, Pick } from './picked';
import type { Found } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';

export type Part = Omit<Pick, 'said' | 'base'> & { readonly base?: Pick['base'] };

export const GENERIC = new Set([
  'strokes',
  'stroke',
  'notes',
  'note',
  'hits',
  'hit',
  'ones',
  'one',
  'part',
  'parts',
  'line',
  'pattern',
]);
export const ALL = new Set([
  'everything',
  'all',
  'it',
  'this',
  'that',
  'phrase',
  'whole',
  'lot',
  'fill',
  'lick',
  'groove',
  'thing',
  'every',
]);
/** Words of more than one stroke. Accents, kicks and grace strokes are single ones wherever they stand. */
const SEVERAL = new Set([
  'rights',
  'lefts',
  'hands',
  'strokes',
  'notes',
  'hits',
  'ones',
  'ghosts',
  'taps',
  'both hands',
]);
/** What is said to be none of a height. */
export const NOT_SO: ReadonlyMap<string, readonly Level[]> = new Map<string, readonly Level[]>([
  // Ghosts have no accent either.
  ...['unaccented', 'non-accented', 'nonaccented', 'nonaccents'].map((w): [string, readonly Level[]] => [
    w,
    ['tap', 'ghost'],
  ]),
  ...['unghosted', 'non-ghosted', 'nonghosted', 'nonghosts'].map((w): [string, readonly Level[]] => [
    w,
    ['tap', 'accent'],
  ]),
]);
export const THEM = new Set(['them', 'those', 'these']);
export const LEAD = new Set(['the', 'all', 'of', 'my', 'any', 'every', 'each', 'both', 'a', 'an', 'whole']);
/** How a repeat of the cell is called where it is named by itself. */
export const REPEAT = /^(?:repeat|repetition|time|round|go)$/;
export const EACH: ReadonlyMap<string, Each> = new Map<string, Each>([
  ['beat', 'beat'],
  ['beats', 'beat'],
  ['triplet', 'beat'],
  ['sextuplet', 'beat'],
  ['quintuplet', 'beat'],
  ['septuplet', 'beat'],
  ['bar', 'bar'],
  ['bars', 'bar'],
  ['measure', 'bar'],
  ['group', 'group'],
  ['groups', 'group'],
  ['repeat', 'repeat'],
  ['repeats', 'repeat'],
  ['cell', 'repeat'],
  ['round', 'repeat'],
  ['double', 'double'],
  ['doubles', 'double'],
  ['pair', 'double'],
]);

/** Words that begin a stretch: "from the e of 2 to 3" are all strokes there. */
const RANGES = new Set(['from', 'before', 'after', 'until', 'till', 'between']);

export const said = (tokens: readonly Token[], from: number, end: number): string =>
  tokens
    .slice(from, end)
    .map((t) => t.raw)
    .join(' ');

/** Words that describe a stroke, one after the other: "right hand accents", "snare notes". */
export function described(tokens: readonly Token[], start: number): readonly Found<Part>[] {
  const out: Found<Part>[] = [];
  const go = (at: number, part: Part, many: number): void => {
    if (many > 0) out.push({ end: at, value: part });
    const w = word(tokens, at);
    if (GENERIC.has(w) && many > 0) out.push({ end: at + 1, value: SEVERAL.has(w) ? { ...part, many: true } : part });
    const several = SEVERAL.has(w) || part.many ? { many: true as const } : {};
    const limb = limbAt(tokens, at);
    if (limb && !part.limb) go(at + 1, { ...part, ...several, limb }, many + 1);
    const level = LEVEL_TERMS.get(w);
    const levels: readonly Level[] = NOT_SO.get(w) ?? (level ? [level] : []);
    if (level && !part.levels) go(at + 1, { ...part, ...several, levels }, many + 1);
    const ornament = ORNAMENT_TERMS.get(w);
    if (ornament && !part.ornaments) go(at + 1, { ...part, ornaments: [ornament] }, many + 1);
    const graces = w === 'ornaments' || (w === 'grace' && /^(?:notes?|strokes?)$/.test(word(tokens, at + 1)));
    if (graces && !part.ornaments) go(w === 'grace' ? at + 2 : at + 1, { ...part, ornaments: ALL_ORNAMENTS }, many + 1);
    const voice = voiceTerm(w);
    if (voice && !part.voices) go(at + 1, { ...part, voices: voice.of }, many + 1);
    if (w === 'backbeat' || w === 'backbeats') go(at + 1, { ...part, counts: BACKBEATS }, many + 1);
  };
  go(start, {}, 0);
  return out;
}

const ALL_ORNAMENTS: readonly Ornament[] = ['flam', 'drag', 'ruff', 'buzz'];
const BACKBEATS: readonly CountSaid[] = [2, 4].map((beat) => ({ bar: null, beat, syllable: '', as: 'count' }));

/** "of every double", "in each bar", "of the repeat". */
function eachAt(tokens: readonly Token[], start: number): Found<Each> | null {
  let at = start;
  if (!/^(?:of|in)$/.test(word(tokens, at))) return null;
  at++;
  const every = /^(?:every|each|all)$/.test(word(tokens, at)) || word(tokens, at) === 'the';
  if (!every) return null;
  at++;
  if (word(tokens, at) === 'the') at++;
  const each = EACH.get(word(tokens, at));
  return each ? { end: at + 1, value: each } : null;
}

/** "of every group of three", "of each three", "of every three notes": how many stand together. */
function groupSizeAt(tokens: readonly Token[], start: number): Found<number> | null {
  if (!/^(?:of|in)$/.test(word(tokens, start)) || !/^(?:every|each)$/.test(word(tokens, start + 1))) return null;
  const grouped = /^groups?$/.test(word(tokens, start + 2)) && word(tokens, start + 3) === 'of';
  const at = grouped ? start + 4 : start + 2;
  const [n] = numberAt(tokens, at);
  if (!n || n.value < 2 || n.value > 16 || word(tokens, at) === 'a') return null;
  return { end: GENERIC.has(word(tokens, n.end)) ? n.end + 1 : n.end, value: n.value };
}

/** The noun of a picking: what is meant before it is narrowed down. */
export function nouns(tokens: readonly Token[], start: number): readonly Found<Part>[] {
  const out: Found<Part>[] = [];
  let at = start;
  while (LEAD.has(word(tokens, at)) && !(word(tokens, at) === 'every' && isOrdinalWord(word(tokens, at + 1)))) {
    const w = word(tokens, at);
    // "all" by itself, and "a" as a count, are read below.
    if (w === 'all' || w === 'every' || w === 'each' || w === 'whole') {
      if (GENERIC.has(word(tokens, at + 1))) out.push({ end: at + 2, value: { base: 'all' } });
      else if (w === 'all') out.push({ end: at + 1, value: { base: 'all' } });
    }
    at++;
  }
  // "A kick under each", "with each of them"
  const each = word(tokens, start);
  const under = /^(?:under|underneath|beneath|below|with|behind)$/.test(word(tokens, start - 1));
  if (under && (each === 'each' || each === 'every')) {
    const of = /^(?:of|one)$/.test(word(tokens, start + 1)) ? start + 2 : start + 1;
    const end = word(tokens, start + 1) === 'of' && THEM.has(word(tokens, of)) ? of + 1 : of;
    if (each === 'each' || end > start + 1) out.push({ end, value: { base: 'them' } });
  }
  // "Those rights", "these accents" are named, not pointed at.
  if (/^(?:those|these)$/.test(word(tokens, at)) && described(tokens, at + 1).length > 0) at++;
  const w = word(tokens, at);
  if (w === 'rest' || w === 'elsewhere') out.push({ end: at + 1, value: { base: 'else' } });
  if (w === 'others') out.push({ end: at + 1, value: { base: 'else', others: true } });
  // "Other rights": those that were not spoken of.
  if (w === 'other')
    for (const f of described(tokens, at + 1)) out.push({ end: f.end, value: { ...f.value, base: 'else' } });
  if (w === 'other' && GENERIC.has(word(tokens, at + 1)))
    out.push({ end: at + 2, value: { base: 'else', others: true } });
  const isJoined = w === 'that' && /^(?:is|are|the|it|they)$/.test(word(tokens, at + 1));
  if (ALL.has(w) && w !== 'all' && w !== 'every' && !isJoined) {
    if (word(tokens, at + 1) === 'else') out.push({ end: at + 2, value: { base: 'else' } });
    // "everything my left plays"
    let next = at + 1;
    if (w === 'everything') {
      while (/^(?:that|which|my|the)$/.test(word(tokens, next))) next++;
      const limb = LIMB_TERMS.get(word(tokens, next));
      if (limb && /^plays?$/.test(word(tokens, next + 1))) out.push({ end: next + 2, value: { limb } });
    }
    const base = /^(?:it|this|that)$/.test(w) ? ('it' as const) : ('all' as const);
    out.push({ end: at + 1, value: { base, ...(w === 'everything' ? { everything: true as const } : {}) } });
    if (w === 'it' && word(tokens, at + 1) === 'all') out.push({ end: at + 2, value: { base: 'all' } });
  }
  if (/^(?:what|whatever|anything|all)$/.test(w)) {
    let next = at + 1;
    while (/^(?:my|the)$/.test(word(tokens, next))) next++;
    const limb = LIMB_TERMS.get(word(tokens, next));
    if (limb && /^plays?$/.test(word(tokens, next + 1))) out.push({ end: next + 2, value: { limb } });
  }
  // "Whatever is not on a beat", "everything that is on 2"
  if (/^(?:what|whatever|everything|anything|all)$/.test(w)) {
    const is = /^(?:that|which)$/.test(word(tokens, at + 1)) ? at + 2 : at + 1;
    const not = /^(?:isnt|arent)$/.test(word(tokens, is)) || word(tokens, is + 1) === 'not';
    const on = word(tokens, is + 1) === 'not' ? is + 2 : is + 1;
    if (/^(?:is|are|isnt|arent)$/.test(word(tokens, is)) && /^(?:on|at)$/.test(word(tokens, on))) {
      const next = /^an?$/.test(word(tokens, on + 1)) ? on + 2 : on + 1;
      const beat: readonly Found<readonly CountSaid[]>[] =
        next > on + 1 && word(tokens, next) === 'beat'
          ? [{ end: next + 1, value: [{ bar: null, beat: null, syllable: '', as: 'count' }] }]
          : [];
      for (const { end, value: counts } of [...beat, ...countsAt(tokens, next)]) {
        const there = { counts };
        const except = [{ base: null, ...there, said: said(tokens, next, end) }];
        out.push({ end, value: not ? { base: 'all', except } : there });
      }
    }
  }
  if (/^(?:double|pair)$/.test(w) && /^(?:each|every)$/.test(word(tokens, at - 1)))
    out.push({ end: at + 1, value: { order: { kind: 'doubles' } } });
  if (/^(?:double|single)$/.test(w) && /^(?:strokes|notes)$/.test(word(tokens, at + 1)))
    out.push({ end: at + 2, value: { order: { kind: w === 'double' ? 'doubles' : 'singles' } } });
  if (w === 'doubles' || w === 'singles') out.push({ end: at + 1, value: { order: { kind: w } } });
  if (/^(?:notes?|strokes?|slots?)$/.test(w)) {
    const [from] = numberAt(tokens, at + 1);
    const [to] = from && /^(?:to|till|until)$/.test(word(tokens, from.end)) ? numberAt(tokens, from.end + 1) : [];
    if (from && word(tokens, at + 1) !== 'a')
      out.push({ end: from.end, value: { order: { kind: 'range', from: from.value, to: from.value } } });
    if (from && to) out.push({ end: to.end, value: { order: { kind: 'range', from: from.value, to: to.value } } });
  }
  if (RANGES.has(w)) out.push({ end: at, value: { base: 'all' } });
  // "The same notes as quintuplets"
  if (w === 'same' && (GENERIC.has(word(tokens, at + 1)) || word(tokens, at + 1) === 'thing'))
    out.push({ end: at + 2, value: { base: 'it' } });
  if (THEM.has(w)) out.push({ end: at + 1, value: { base: 'them' } });
  // "On the one" is the count, and so are "the ones" where nothing says which.
  const isCount =
    w === 'one' ||
    (w === 'ones' && !/^(?:on|in|at|from|that|which|with|of|before|after|where|by)$/.test(word(tokens, at + 1)));
  if (GENERIC.has(w) && at > start && !isCount) out.push({ end: at + 1, value: { base: 'all' } });
  // "The two rights", "all three kicks": they are so many.
  const [much] = /^(?:the|all|those|these|my)$/.test(word(tokens, at - 1)) ? numberAt(tokens, at) : [];
  if (much && much.value > 1 && much.value <= 16)
    for (const f of described(tokens, much.end)) out.push({ end: f.end, value: { ...f.value, howMany: much.value } });
  out.push(...described(tokens, at));
  out.push(...ordered(tokens, at));
  for (const f of countsAt(tokens, start)) {
    // "Two notes", "two of the lefts" say how many, and not which.
    const [only, ...more] = f.value;
    const many = only?.as === 'count' && only.syllable === '' && more.length === 0;
    const next = word(tokens, f.end);
    if (
      many &&
      (/^(?:notes|strokes|hits|ones)$/.test(next) ||
        (next === 'of' && described(tokens, skipThe(tokens, f.end + 1)).length > 0))
    )
      continue;
    out.push({ end: f.end, value: { counts: f.value } });
    if (GENERIC.has(word(tokens, f.end))) out.push({ end: f.end + 1, value: { counts: f.value } });
  }
  for (const f of barsAt(tokens, start)) out.push({ end: f.end, value: { bars: f.value } });
  const [beats] = w === 'first' ? numberAt(tokens, at + 1) : [];
  if (beats && beats.value <= 16 && word(tokens, beats.end) === 'beats') {
    const counts = Array.from({ length: beats.value }, (_, i): CountSaid => ({
      bar: 1,
      beat: i + 1,
      syllable: '',
      as: 'whole',
    }));
    out.push({ end: beats.end + 1, value: { counts } });
  }
  if (/^(?:first|last)$/.test(w) && REPEAT.test(word(tokens, at + 1)))
    out.push({ end: at + 2, value: { base: 'all', repeat: w === 'first' ? 'first' : 'last' } });
  if (/^(?:where|wherever)$/.test(w))
    for (const f of whereAt(tokens, at + 1)) out.push({ end: f.end, value: { base: 'all', where: f.value } });
  if (/^(?:where|wherever)$/.test(w))
    for (const f of notWhereAt(tokens, at + 1))
      out.push({ end: f.end, value: { base: 'all', except: [{ base: 'all', where: f.value, said: f.value.said }] } });
  if (/^(?:first|second)$/.test(w) && word(tokens, at + 1) === 'half') {
    const half = w === 'first' ? (1 as const) : (2 as const);
    out.push({ end: at + 2, value: { half } });
    const [of, the, whole] = [2, 3, 4].map((n) => word(tokens, at + n));
    if (of === 'of' && /^(?:the|each|every)$/.test(the ?? ''))
      for (const halfOf of ['bar', 'phrase'] as const)
        if (whole === halfOf) out.push({ end: at + 5, value: { half, halfOf } });
  }
  return out;
}

/** "the kick is", "my left plays": strokes that say where others are meant. */
export function whereAt(tokens: readonly Token[], start: number): readonly Found<Pick>[] {
  let at = start;
  while (/^(?:the|my|a)$/.test(word(tokens, at))) at++;
  return described(tokens, at).flatMap((d) => {
    if (!/^(?:is|are|plays?|falls?|lands?|stands?|comes?|hits?)$/.test(word(tokens, d.end))) return [];
    return [{ end: d.end + 1, value: { base: null, ...d.value, said: said(tokens, start, d.end) } }];
  });
}

/** "the kick is not", "my left doesn't play": strokes that say where others are not meant. */
export function notWhereAt(tokens: readonly Token[], start: number): readonly Found<Pick>[] {
  let at = start;
  while (/^(?:the|my|a)$/.test(word(tokens, at))) at++;
  return described(tokens, at).flatMap((d) => {
    const [one, two] = [word(tokens, d.end), `${word(tokens, d.end)} ${word(tokens, d.end + 1)}`];
    const value: Pick = { base: null, ...d.value, said: said(tokens, start, d.end) };
    if (/^(?:isnt|arent)$/.test(one)) return [{ end: d.end + 1, value }];
    if (/^(?:is not|are not|doesnt play|dont play|does not|do not|plays nothing|is silent|rests|is free)$/.test(two))
      return [{ end: d.end + (/^(?:does|do) not$/.test(two) ? 3 : 2), value }];
    return [];
  });
}

function isOrdinalWord(w: string): boolean {
  return w === 'other' || ORDINALS.has(w) || /^\d+$/.test(w) || (NUMBERS.get(w) ?? 1) > 1;
}

/** "the second left", "last two", "every other kick", "the first of every triplet", "the fourth eighth". */
export function ordered(tokens: readonly Token[], start: number): readonly Found<Part>[] {
  const out: Found<Part>[] = [];
  let at = start;
  const very = word(tokens, at) === 'very';
  if (very) at++;
  const w = word(tokens, at);
  const orders: Found<Order>[] = [];
  const nth = ORDINALS.get(w);
  if (w === 'every' && isOrdinalWord(word(tokens, at + 1)) && !isListed(tokens, at)) {
    const other = word(tokens, at + 1);
    const n = other === 'other' ? 2 : (ORDINALS.get(other) ?? numberAt(tokens, at + 1)[0]?.value ?? 2);
    const counted = !ORDINALS.has(other) && other !== 'other';
    let end = at + 2;
    const slots = /^slots?$/.test(word(tokens, end));
    if (slots) end++;
    // "Every 1" is that of each bar.
    if (!counted || n > 1) orders.push({ end, value: { kind: 'every', n, of: counted || slots ? 'slot' : 'stroke' } });
  }
  if (w === 'next') {
    const count = numberAt(tokens, at + 1)[0];
    if (count && word(tokens, at + 1) !== 'a') orders.push({ end: count.end, value: { kind: 'next', n: count.value } });
    else if (GENERIC.has(word(tokens, at + 1))) orders.push({ end: at + 1, value: { kind: 'next', n: 1 } });
  }
  if (w === 'start' || w === 'beginning' || w === 'end')
    orders.push({ end: at + 1, value: { kind: 'nth', n: w === 'end' ? -1 : 1, very: false } });
  if (nth !== undefined || w === 'last') {
    const count = numberAt(tokens, at + 1)[0];
    if (count && word(tokens, at + 1) !== 'a' && (w === 'last' || nth === 1))
      orders.push({ end: count.end, value: { kind: w === 'last' ? 'last' : 'first', n: count.value } });
    orders.push({ end: at + 1, value: w === 'last' ? { kind: 'last', n: 1 } : { kind: 'nth', n: nth ?? 1, very } });
  }
  const middle = w === 'middle' ? eachAt(tokens, at + (GENERIC.has(word(tokens, at + 1)) ? 2 : 1)) : null;
  if (middle) out.push({ end: middle.end, value: { order: { kind: 'middle', each: middle.value } } });
  const bare = w === 'start' || w === 'beginning' || w === 'end';
  for (const o of orders) {
    const heads: Found<Part>[] = [{ end: o.end, value: {} }, ...described(tokens, o.end)];
    if (GENERIC.has(word(tokens, o.end))) heads.push({ end: o.end + 1, value: {} });
    const grid = GRID_TERMS.get(word(tokens, o.end));
    if (grid !== undefined) {
      const end = GENERIC.has(word(tokens, o.end + 1)) ? o.end + 2 : o.end + 1;
      heads.push({ end, value: { grid: ticks(grid) } });
    }
    for (const h of heads) {
      // "The first of each three": slots, the first among them.
      const size = groupSizeAt(tokens, h.end);
      if (size && o.value.kind === 'nth' && o.value.n === 1)
        out.push({
          end: size.end,
          value: { ...h.value, order: { kind: 'every', n: size.value, of: 'slot', first: true } },
        });
      const each = eachAt(tokens, h.end);
      if (each) {
        const which =
          o.value.kind === 'last' || (o.value.kind === 'nth' && o.value.n < 0)
            ? 'last'
            : o.value.kind === 'nth'
              ? o.value.n
              : 1;
        const many = o.value.kind === 'first' || o.value.kind === 'last' ? o.value.n : 1;
        if (o.value.kind !== 'every' && o.value.kind !== 'next')
          out.push({
            end: each.end,
            value: {
              ...h.value,
              order: { kind: 'of', which, each: each.value, ...(many > 1 ? { many } : {}) },
            },
          });
      }
      if (!bare) out.push({ end: h.end, value: { ...h.value, order: o.value } });
    }
  }
  return out;
}

export const skipThe = (tokens: readonly Token[], at: number): number => (word(tokens, at) === 'the' ? at + 1 : at);
