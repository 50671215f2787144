import { count, listed } from '../base';
import { barTicks, USUAL_SCHOOLS } from '../time';
import { isHand, LIMBS, VOICE, type Limb } from '../stroke';
import { countOfStroke, type Pattern } from '../pattern';
import type { Selection, SelectionKind, SelectionOf, Which } from './selection';
import {
  EDGE_WORDS,
  LIMB_ADJECTIVES,
  LIMB_NOUNS,
  PART_WORDS,
  SPOKEN_ORDINALS,
  SPOKEN_SYLLABLES,
  WITHIN_WORDS,
} from './terms';

/**
 * A selection as a drummer would say it, in one line; `readSelection` reads it back. Places that were pressed one by
 * one are named by their counts in the pattern they are of; without one they are only counted.
 * @example
 * selectionWords(chooses({ limbs: ['R'], levels: ['accent'], counts: ['2', '4'] })) // => "right accents on 2 and 4"
 * selectionWords(chooses({ counts: ['2&', '4&', '1'] })) // => "all strokes on 1 and the & of 2 and 4"
 * selectionWords({ is: 'but', of: { is: 'limb', limbs: ['R'] }, not: { is: 'count', counts: ['2'] } }) // => "rights except on 2"
 * selectionWords({ is: 'order', of: { is: 'limb', limbs: ['K'] }, which: { last: 1 }, within: 'bar' }) // => "the last kick of each bar"
 * selectionWords(chooses({ every: { n: 3, offset: 1, of: 'slot' } })) // => "every third slot from the second"
 * selectionWords({ is: 'all' }) // => "all strokes"
 */
export function selectionWords(selection: Selection, on?: Pattern): string {
  return printed(selection, 0, on);
}

/** How tightly each kind holds together: what holds less is put in brackets inside what holds more. */
const TIGHT: Partial<Record<SelectionKind, number>> = { but: 0, or: 1, and: 2, beside: 3, alone: 3 };
const BESIDE = { with: 'together with', before: 'just before', after: 'just after' } as const;

function printed(s: Selection, least: number, on: Pattern | undefined): string {
  const nouns = s.is === 'and' ? nounPhrases(s) : null;
  const tight = nouns?.length === 1 && nouns[0]?.is === 'noun' ? 4 : (TIGHT[s.is] ?? 4);
  const words = wordsOf(s, on);
  return tight < least ? `(${words})` : words;
}

function wordsOf(s: Selection, on: Pattern | undefined): string {
  switch (s.is) {
    case 'but': {
      const except = nounOf(s.not);
      const where = except ? bareWhere(except) : null;
      return `${printed(s.of, 0, on)} except ${where ?? printed(s.not, 1, on)}`;
    }
    case 'or':
      return s.any.map((one) => printed(one, 2, on)).join(' as well as ');
    case 'and':
      return nounPhrases(s)
        .map((part) => (part.is === 'noun' ? nounWords(part, on) : printed(part.of, 3, on)))
        .join(' that are also ');
    case 'beside':
      return `${printed(s.of, 4, on)} ${BESIDE[s.how]} ${printed(s.what, 4, on)}`;
    case 'alone':
      return `${printed(s.of, 4, on)} alone`;
    case 'order':
      return orderWords(s, on);
    default:
      return nounWords(noun([s]), on);
  }
}

/** What one noun with its places can say: one node of a kind, but for the edges of stretches. */
interface Noun {
  readonly is: 'noun';
  readonly parts: readonly Selection[];
}
const noun = (parts: readonly Selection[]): Noun => ({ is: 'noun', parts });

const LEAVES: ReadonlySet<SelectionKind> = new Set<SelectionKind>([
  'all',
  'limb',
  'height',
  'piece',
  'ornament',
  'role',
  'part',
  'count',
  'beat',
  'bar',
  'half',
  'stretch',
  'place',
  'repeat',
  'slots',
  'hand',
]);

const kindOf = (s: Selection): string => (s.is === 'stretch' ? `stretch ${s.edge}` : s.is);

/** A conjunction as nouns, each with what can be said in one breath, and what needs a sentence of its own. */
function nounPhrases(s: SelectionOf<'and'>): readonly (Noun | { readonly is: 'else'; readonly of: Selection })[] {
  const flat = (all: readonly Selection[]): readonly Selection[] =>
    all.flatMap((one) => (one.is === 'and' ? flat(one.all) : [one]));
  const nouns: Selection[][] = [];
  const others: Selection[] = [];
  for (const part of flat(s.all)) {
    if (!LEAVES.has(part.is)) {
      others.push(part);
      continue;
    }
    const own = nouns.find((n) => n.every((p) => kindOf(p) !== kindOf(part)));
    if (own) own.push(part);
    else nouns.push([part]);
  }
  return [...nouns.map(noun), ...others.map((of) => ({ is: 'else' as const, of }))];
}

/** A selection as one noun with its places; null where it is more. */
function nounOf(s: Selection): Noun | null {
  if (LEAVES.has(s.is)) return noun([s]);
  if (s.is !== 'and') return null;
  const [own, ...more] = nounPhrases(s);
  return own?.is === 'noun' && more.length === 0 ? own : null;
}

type Parts = { readonly [K in SelectionKind]?: SelectionOf<K> };
const partsOf = ({ parts }: Noun): Parts => Object.fromEntries(parts.map((p) => [p.is, p]));

/** Whether it chooses nothing whatever the pattern is. */
function isNone(s: Selection): boolean {
  return Object.values(s).some((v) => Array.isArray(v) && v.length === 0) || (s.is === 'count' && counts(s) === '');
}

/** Only where, when nothing is said of what it is: "on 2", "in bar 3". */
function bareWhere(own: Noun): string | null {
  const { limb, height, role, ornament, part, place, slots, hand, all } = partsOf(own);
  if (limb ?? height ?? role ?? ornament ?? part ?? place ?? slots ?? hand ?? all) return null;
  return own.parts.some(isNone) ? null : whereWords(own).join(' ');
}

function nounWords(own: Noun, on: Pattern | undefined, many = true): string {
  if (own.parts.some(isNone)) return 'no strokes';
  const { limb, height, role, ornament, part, place, slots, hand } = partsOf(own);
  const where = whereWords(own);
  const said = [
    ...(part ? [PART_WORDS[part.part]] : []),
    ...(place ? [placeWords(place.places)] : []),
    ...(slots ? [slotWords(slots)] : []),
  ];
  const by = hand ? handWords(hand.at, on) : null;
  const plain = !limb && !height && !role && !ornament;
  const [first, ...others] = said;
  if (plain && many && first !== undefined)
    return [first, ...others.map((w) => `that are ${w}`), ...(by ? [`at ${by}`] : []), ...where].join(' ');
  if (plain && many && by && where.length === 0) return by;
  const head = [...(role ? [listed(role.roles)] : []), described(limb?.limbs, height?.levels, many, plain && many)];
  const graced = ornament ? [`with a ${ornament.ornaments.join(' or ')}`] : [];
  return [...head, ...graced, ...said.map((w) => `that are ${w}`), ...(by ? [`at ${by}`] : []), ...where].join(' ');
}

/** "rights", "right accents", "right and kick strokes", "all strokes". */
function described(
  limbs: readonly Limb[] | undefined,
  levels: readonly string[] | undefined,
  many: boolean,
  all: boolean,
): string {
  const s = many ? 's' : '';
  const level = levels ? listed(levels.map((l) => `${l}${s}`)) : null;
  if (!limbs) return level ?? `${all ? 'all ' : ''}stroke${s}`;
  const own = LIMBS.filter((l) => limbs.includes(l));
  const [only, ...others] = own;
  const adjective = own.length === 2 && own.every(isHand) ? 'hand' : listed(own.map((l) => LIMB_ADJECTIVES[l]));
  if (level) return `${adjective} ${level}`;
  return only && others.length === 0 ? `${LIMB_NOUNS[only]}${s}` : `${adjective} stroke${s}`;
}

function whereWords(own: Noun): string[] {
  const { piece, count: counted, beat, bar, half, repeat } = partsOf(own);
  const words: string[] = [];
  if (piece) words.push(`on the ${listed(piece.voices.map((v) => VOICE[v].name))}`);
  if (counted) words.push(`on ${counts(counted)}`);
  if (beat) words.push(numbered('beat', beat.beats));
  if (bar) words.push(numbered('bar', bar.bars));
  if (half) words.push(`in the ${half.half === 1 ? 'first' : 'second'} half of the ${half.of}`);
  for (const p of own.parts)
    if (p.is === 'stretch') {
      const [before, behind] = EDGE_WORDS[p.edge];
      words.push(`${before} ${spokenCount(p.count)}${behind}`);
    }
  if (repeat) words.push(repeatWords(repeat.repeats));
  return words;
}

/** "in bar 2", "in bars 1, 2 and the last", "in the last beat". */
function numbered(what: string, all: readonly (number | 'last')[]): string {
  const [only, ...more] = all;
  if (more.length === 0) return only === 'last' ? `in the last ${what}` : `in ${what} ${only ?? ''}`;
  return `in ${what}s ${listed(all.map((n) => (n === 'last' ? 'the last' : String(n))))}`;
}

function repeatWords(all: readonly ('first' | 'last' | number)[]): string {
  const [only, ...more] = all;
  if (all.every((r) => typeof r === 'string'))
    return `in the ${listed(all)} ${more.length === 0 ? 'repeat' : 'repeats'}`;
  return `in ${more.length === 0 ? 'repeat' : 'repeats'} ${only !== undefined && more.length === 0 ? only : listed(all.map(String))}`;
}

function placeWords(places: readonly number[]): string {
  const spoken = places.map((p) => SPOKEN_ORDINALS[p - 1]);
  return spoken.every((w) => w !== undefined)
    ? `the ${listed(spoken)} of every group`
    : `${places.length === 1 ? 'place' : 'places'} ${listed(places.map(String))} of every group`;
}

/** "the first 2", "the second and third", "every third …": which of several, with their noun in between. */
function whichWords(which: Which, one: string, many: string): string {
  if ('first' in which) return which.first === 1 ? `the first ${one}` : `the first ${which.first} ${many}`;
  if ('last' in which) return which.last === 1 ? `the last ${one}` : `the last ${which.last} ${many}`;
  if ('middle' in which) return `the middle ${one}`;
  if ('nth' in which) {
    const spoken = which.nth.map((n) => SPOKEN_ORDINALS[n - 1]);
    if (spoken.every((w) => w !== undefined)) return `the ${listed(spoken)} ${which.nth.length === 1 ? one : many}`;
    const of = many.startsWith('of ') ? many : `of the ${many}`;
    return `${which.nth.length === 1 ? 'number' : 'numbers'} ${listed(which.nth.map(String))} ${of}`;
  }
  const spoken = SPOKEN_ORDINALS[which.every - 1];
  const start = SPOKEN_ORDINALS[which.from - 1];
  const from = which.from === 1 ? '' : ` from ${start === undefined ? `number ${which.from}` : `the ${start}`}`;
  const single = which.single ? ', one by one' : '';
  if (which.every === 1) return `every single ${one}${from}${single}`;
  return spoken === undefined
    ? `every ${which.every} ${many}${from}${single}`
    : `every ${spoken} ${one}${from}${single}`;
}

function slotWords({ which, within }: SelectionOf<'slots'>): string {
  const where = within === 'phrase' ? '' : ` of every ${WITHIN_WORDS[within]}`;
  // "The first of every beat": but a place of the cell is said so too.
  const named = within === 'phrase' || within === 'cell' || within === 'run' || 'every' in which || 'nth' in which;
  const words = named ? whichWords(which, 'slot', 'slots') : whichWords(which, '', '').trim();
  return `${words}${where}`;
}

function orderWords({ of, which, within }: SelectionOf<'order'>, on: Pattern | undefined): string {
  const own = nounOf(of);
  const where = within === 'phrase' ? '' : ` of each ${WITHIN_WORDS[within]}`;
  const { part, place, slots, hand } = own ? partsOf(own) : {};
  // What has no noun of its own to be put in the singular is named in brackets.
  if (!own || own.parts.some(isNone) || (part ?? place ?? slots ?? hand)) {
    const inner = `of (${printed(of, 0, on)})`;
    return `${whichWords(which, inner, inner)}${where}`;
  }
  return `${whichWords(which, nounWords(own, on, false), nounWords(own, on).replace(/^all /, ''))}${where}`;
}

/** Places by their counts, with their bars where there are several. */
function handWords(at: readonly number[], on: Pattern | undefined): string {
  if (!on) return `${count(at.length, 'place')} chosen by hand`;
  const long = on.start + on.length > barTicks(on.meter);
  const refs = at.map((t) => {
    const { bar, text } = countOfStroke(on, t, USUAL_SCHOOLS);
    return long || bar !== 1 ? `${bar}:${text}` : text;
  });
  return `${listed(refs)}, by hand`;
}

/** Counts in a list: numbers first, then what comes in every beat, then syllables with all their beats. */
function counts({ counts: all }: SelectionOf<'count'>): string {
  const plain: string[] = [];
  const every: string[] = [];
  const spoken = new Map<string, string[]>();
  for (const text of all) {
    const [, number, syllable = ''] = /^(\d+)(.*)$/.exec(text) ?? [];
    if (text === '*') every.push('every beat');
    else if (text.startsWith('*')) every.push(`every ${text.slice(1)}`);
    else if (number !== undefined && SPOKEN_SYLLABLES.has(syllable))
      spoken.set(syllable, [...(spoken.get(syllable) ?? []), number]);
    else if (number !== undefined) plain.push(text);
  }
  return listed([...plain, ...every, ...[...spoken].map(([syllable, of]) => `the ${syllable} of ${listed(of)}`)]);
}

function spokenCount(text: string): string {
  return counts({ is: 'count', counts: [text] }) || text;
}
