import {
  SLOTS,
  type BarSaid,
  type CountSaid,
  type LimbTerm,
  type SlotReader,
  type Token,
  type VoicesSaid,
} from '../language';
import { canStrike, type Voice } from '../stroke';
import type { Wish } from './asked';
import type { Demands } from './demands';
import { clause, limbsOf, slotsOf, withWishes, type Clause } from './said-clause';
import { word } from './said-readers';

export const HITS = new Set([
  'hit',
  'hits',
  'accent',
  'accents',
  'accented',
  'hard',
  'loud',
  'stab',
  'stabs',
  'punch',
  'punches',
]);
export const RESTS = new Set([
  'rest',
  'rests',
  'gap',
  'gaps',
  'silence',
  'silent',
  'nothing',
  'empty',
  'free',
  'out',
  'open',
]);
export const NOT = new Set(['no', 'not', 'never', 'without', 'avoid']);
/** Words of a clause that stand between what is asked and where. */
export const GLUE = new Set([
  'on',
  'at',
  'in',
  'of',
  'with',
  'the',
  'a',
  'an',
  ':',
  'to',
  'only',
  'is',
  'are',
  'be',
  'leave',
  'put',
  'play',
  'want',
  'stay',
  'must',
  'any',
  'falls',
  'fall',
  'and',
  'both',
  'under',
  'keep',
  'each',
  'every',
  'bar',
  'ends',
  'end',
  'starts',
  'start',
  'just',
  'always',
  'i',
  'there',
]);

/** What is asked of some counts, in whatever order it is said. */
export interface Standing {
  readonly isNot: boolean;
  readonly hit: boolean;
  readonly rest: boolean;
  readonly limbs: readonly ('R' | 'L' | 'K')[];
  readonly voice: Voice | null;
  readonly counts: readonly CountSaid[] | null;
  readonly bars: readonly BarSaid[] | null;
}

/** Counts at a place; also as the list ends at a comma, where what follows is no count of it. */
function countsSaid(
  tokens: readonly Token[],
  at: number,
): readonly { readonly end: number; readonly value: readonly CountSaid[] }[] {
  const read = (own: readonly Token[]): readonly { readonly end: number; readonly value: readonly CountSaid[] }[] =>
    (SLOTS['counts']?.(own, at) ?? []) as readonly { readonly end: number; readonly value: readonly CountSaid[] }[];
  const all = [...read(tokens)];
  tokens.forEach((t, i) => {
    if (i > at && (t.word === ',' || t.word === 'and' || t.word === ';')) all.push(...read(tokens.slice(0, i)));
  });
  // "On the e", "the &": of every beat.
  const the = word(tokens, at) === 'the' || word(tokens, at) === 'every' ? at + 1 : at;
  const syllable = { e: 'e', '&': '&', and: '&', a: 'a' }[word(tokens, the)];
  const isAlone =
    the > at &&
    !/^(?:of|after|\d)/.test(word(tokens, the + 1)) &&
    (the + 1 >= tokens.length || /^[,;.]|then|but|linear$/.test(word(tokens, the + 1)));
  if (syllable !== undefined && isAlone)
    all.push({ end: the + 1, value: [{ bar: null, beat: null, syllable, as: 'count' }] });
  return all;
}

/** A clause of what stands where: what and counts in any order, and nothing else but words between them. */
export const standing: SlotReader = (tokens, start) => {
  const out: { readonly end: number; readonly value: Standing }[] = [];
  const go = (at: number, s: Standing): void => {
    const isAsked = s.hit || s.rest || s.limbs.length > 0 || s.voice !== null;
    if (s.counts && isAsked) out.push({ end: at, value: s });
    const w = word(tokens, at);
    if (w === '') return;
    if (NOT.has(w) && !s.isNot) go(at + 1, { ...s, isNot: true });
    if (HITS.has(w)) go(at + 1, { ...s, hit: true });
    if (RESTS.has(w) && !s.rest) go(at + 1, { ...s, rest: true });
    if (!s.bars)
      for (const f of SLOTS['bars']?.(tokens, at) ?? []) go(f.end, { ...s, bars: f.value as readonly BarSaid[] });
    if (!s.counts) for (const f of countsSaid(tokens, at)) go(f.end, { ...s, counts: f.value });
    if (s.limbs.length === 0)
      for (const f of SLOTS['limb']?.(tokens, at) ?? []) {
        const limbs = limbsOf(f.value as LimbTerm);
        if (limbs.length > 0) go(f.end, { ...s, limbs });
      }
    if (s.voice === null)
      for (const f of SLOTS['voices']?.(tokens, at) ?? []) {
        const [one, ...more] = (f.value as VoicesSaid)[0] ?? [];
        if (one && more.length === 0 && canStrike('R', one)) go(f.end, { ...s, voice: one });
      }
    if (GLUE.has(w)) go(at + 1, s);
  };
  go(start, { isNot: false, hit: false, rest: false, limbs: [], voice: null, counts: null, bars: null });
  return out;
};

/** Counts with the bars they were said of. */
export function countsIn({ counts, bars }: Standing, d: Demands): readonly CountSaid[] {
  if (!bars) return counts ?? [];
  return bars.flatMap((b) => (counts ?? []).map((c) => ({ ...c, bar: b === 'last' ? Math.ceil(d.bars) : b })));
}

/** The wishes of a clause: several limbs are asked for only where none of them is to play. */
function wishesOf(s: Standing): readonly Wish[] | null {
  if (s.limbs.length > 1 && !s.isNot) return null;
  if (s.rest && (s.hit || s.voice !== null)) return null;
  // "No rest" asks for something, "nothing of the kick on 2" for no kick.
  if (s.rest && s.limbs.length > 0) return s.limbs;
  return [
    ...(s.rest ? (['rest'] as const) : []),
    ...(s.hit ? (['hit'] as const) : []),
    ...s.limbs,
    ...(s.voice ? [s.voice] : []),
  ];
}

export const STANDING: readonly Clause[] = [
  clause(['{standing}'], (v) => {
    const own = v['standing'] as Standing;
    const whats = wishesOf(own);
    if (!whats) return null;
    const must = !own.isNot && !(own.rest && own.limbs.length > 0);
    return (d, scene) => {
      const slots = slotsOf(countsIn(own, d), d, scene, own.rest || own.isNot);
      return slots ? whats.reduce((all, what) => withWishes(all, slots, what, must), d) : d;
    };
  }),
];
