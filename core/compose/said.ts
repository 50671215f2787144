import { NUMBER_WORDS } from '../base';
import {
  beatTicks,
  barTicks,
  countedBeats,
  gridName,
  gridsOf,
  parseCount,
  parseMeter,
  ticks,
  type Grid,
  type Schools,
} from '../time';
import { canStrike, type Limb, type Voice } from '../stroke';
import { searchRudiments } from '../rudiments';
import { beatIn } from '../selection';
import {
  LEXIS,
  SLOTS,
  Template,
  tokensOf,
  type BarSaid,
  type CountSaid,
  type Lexis,
  type LimbTerm,
  type SlotReader,
  type SlotReaders,
  type SpaceSaid,
  type Token,
  type Values,
  type VoicesSaid,
} from '../language';
import type { SlotWish, Wish } from './asked';
import { meterOf, mostBars, slotsAsked, startOf, type Block, type Demands, type Keep } from './demands';

/** A line that asks for a phrase, read: what is asked for then; or the words that are not understood. */
export type AskingRead =
  | { readonly ok: true; readonly demands: Demands }
  | { readonly ok: false; readonly unread: readonly string[]; readonly words: string };

/** What stands around a line: how it is counted. */
interface Scene {
  readonly schools: Schools;
}
type Change = (demands: Demands, scene: Scene) => Demands;
/** A clause, and what it changes. The space is read before what stands on its counts. */
interface Clause {
  readonly say: readonly Template[];
  readonly isSpace: boolean;
  readonly change: (values: Values) => Change | null;
}

const clause = (say: readonly string[], change: Clause['change'], isSpace = false): Clause => ({
  say: say.map((s) => new Template(s)),
  isSpace,
  change,
});
const set =
  (fields: Partial<Demands>): (() => Change) =>
  () =>
  (d) => ({ ...d, ...fields });

const word = (tokens: readonly Token[], at: number): string => tokens[at]?.word ?? '';
const UNITS: ReadonlyMap<string, number> = new Map([
  ['two', 2],
  ['four', 4],
  ['eight', 8],
  ['sixteen', 16],
]);

/** "7/8", "seven eight". */
const meterSlot: SlotReader = (tokens, at) => {
  const w = word(tokens, at);
  if (w.includes('/')) return parseMeter(w) ? [{ end: at + 1, value: w }] : [];
  const unit = UNITS.get(word(tokens, at + 1).replace(/s$/, ''));
  if (unit === undefined) return [];
  return (SLOTS['n']?.(tokens, at) ?? []).flatMap((n) =>
    n.end === at + 1 && parseMeter(`${String(n.value)}/${unit}`)
      ? [{ end: at + 2, value: `${String(n.value)}/${unit}` }]
      : [],
  );
};

/** The name of a rudiment, also of several: the longest that is one. A plain "paradiddle" is the single one. */
const rudimentSlot: SlotReader = (tokens, at) => {
  for (let long = Math.min(5, tokens.length - at); long > 0; long--) {
    const said = Array.from({ length: long }, (_, i) => tokens[at + i]?.raw.toLowerCase() ?? '')
      .map((w, i) => (i === 0 && /^\d{1,2}$/.test(w) ? (NUMBER_WORDS[Number(w) - 1] ?? w) : w))
      .join(' ');
    const name = said.replace(/s$/, '');
    const is = (own: string): boolean => own.toLowerCase().replace(/-/g, ' ') === name.replace(/-/g, ' ');
    const found =
      searchRudiments('').find((r) => is(r.name)) ??
      searchRudiments('').find((r) => is(r.name.replace(/^Single /, '')));
    if (found) return [{ end: at + long, value: found.name.toLowerCase() }];
  }
  return [];
};

/** Sizes of groups that are named as such: "threes", "5s", "threes fours and fives". */
const groupsSlot: SlotReader = (tokens, start) => {
  const out: { readonly end: number; readonly value: readonly number[] }[] = [];
  let [at, list] = [start, [] as readonly number[]];
  for (;;) {
    const [n] = /s$/.test(word(tokens, at)) ? (SLOTS['n']?.(tokens, at) ?? []) : [];
    if (!n || n.end !== at + 1) break;
    list = [...list, n.value as number];
    if (areSizes(list)) out.push({ end: n.end, value: list });
    at = n.end;
    while (/^(?:,|and|\+|plus|or)$/.test(word(tokens, at))) at++;
  }
  return out;
};
/** Sizes in figures or words, behind a word for groups. */
const sizesSlot: SlotReader = (tokens, at) =>
  (SLOTS['sizes']?.(tokens, at) ?? []).filter((f) => areSizes(f.value as readonly number[]));
const areSizes = (sizes: readonly number[]): boolean => sizes.every((n) => n >= 3 && n <= 7);

/** Strokes of two letters at least: a cell. */
const cellSlot: SlotReader = (tokens, at) =>
  (SLOTS['letters']?.(tokens, at) ?? []).filter((f) => (f.value as string).includes(' ')).slice(-1);

const READERS: SlotReaders = {
  ...SLOTS,
  meter: meterSlot,
  rudiment: rudimentSlot,
  groups: groupsSlot,
  sizes: sizesSlot,
  cell: cellSlot,
  standing: (tokens, at) => standing(tokens, at),
};

/** Slots of the space that counts stand for, in every bar where none was said; `whole` beats have all of theirs. */
function slotsOf(said: readonly CountSaid[], d: Demands, { schools }: Scene, whole: boolean): readonly number[] | null {
  const meter = meterOf(d);
  const [bar, start, many] = [barTicks(meter), startOf(d, schools), slotsAsked(d, schools)];
  const counting = { meter, grid: ticks(d.grid), schools };
  const beats = countedBeats(meter);
  const out = new Set<number>();
  for (const c of said) {
    const numbers = c.beat === null ? beats.map((b) => b.number) : [c.beat < 0 ? (beats.at(-1)?.number ?? 1) : c.beat];
    for (const n of numbers) {
      const at = parseCount(`${n}${c.syllable}`, counting);
      if (at === null) return null;
      const beat = beatIn(meter, n);
      const long = whole && c.as !== 'count' ? (beat ? beat.until - beat.from : beatTicks(meter)) : d.grid;
      for (let b = c.bar === null ? 0 : c.bar - 1; b < (c.bar ?? Math.ceil(d.bars)); b++)
        for (let t: number = at; t < at + long; t += d.grid) {
          const slot = (b * bar + t - start) / d.grid;
          if (slot >= 0 && slot < many && Number.isInteger(slot)) out.add(slot);
        }
    }
  }
  return out.size > 0 ? [...out].sort((a, b) => a - b) : null;
}

/** The same wish of every slot; what it contradicts there goes. */
export function withWishes(d: Demands, slots: readonly number[], what: Wish, must: boolean): Demands {
  const rest = d.wishes.filter((w) => !(slots.includes(w.slot) && w.what === what));
  return { ...d, wishes: [...rest, ...slots.map((slot): SlotWish => ({ slot, what, must }))] };
}

const limbsOf = (said: LimbTerm): readonly ('R' | 'L' | 'K')[] =>
  said.limbs.filter((l: Limb): l is 'R' | 'L' | 'K' => l === 'R' || l === 'L' || l === 'K');
const limbsSaid = (v: Values): readonly ('R' | 'L' | 'K')[] => limbsOf(v['limb'] as LimbTerm);
const handSaid = (v: Values): 'R' | 'L' | null => {
  const [one, other] = (v['limb'] as LimbTerm).limbs;
  return (one === 'R' || one === 'L') && other === undefined ? one : null;
};
const voiceSaid = (v: Values): Voice | null => {
  const voice = (v['voices'] as VoicesSaid)[0]?.[0];
  return voice && canStrike('R', voice) ? voice : null;
};

const blocks =
  (...more: readonly Block[]): (() => Change) =>
  () =>
  (d) => ({ ...d, blocks: [...d.blocks.filter((b) => !more.includes(b)), ...more] });
const keeps =
  (what: Keep): (() => Change) =>
  () =>
  (d) => ({ ...d, keeps: [...d.keeps.filter((k) => k !== what), what] });

const SPACE: readonly Clause[] = [
  clause(
    ['[over|for|lasting|across] {space} [long|fill|phrase|lick]', '[over] bar [long]'],
    (v) => (d) => {
      const space = (v['space'] ?? { bars: 1 }) as SpaceSaid;
      const meter = meterOf(d);
      const bars = 'bars' in space ? space.bars : (space.beats * beatTicks(meter)) / barTicks(meter);
      return { ...d, bars: Math.min(mostBars(d), bars) };
    },
    true,
  ),
  clause(['[in|of] {meter} [time]'], (v) => (d) => ({ ...d, meter: v['meter'] as string }), true),
  clause(
    ['[in|of|on] {grid}'],
    (v) => (d) => {
      const grid = v['grid'] as Grid;
      return gridsOf(meterOf(d)).includes(grid) ? { ...d, grid } : d;
    },
    true,
  ),
  clause(
    ['(start|starts|starting|begin|begins|beginning) (on|at|from) {count}', 'from {count} [on|to the end]'],
    (v) => {
      const { beat, syllable } = v['count'] as CountSaid;
      return beat === null
        ? null
        : (d) => ({ ...d, from: beat === 1 && syllable === '' ? null : `${beat}${syllable}` });
    },
    true,
  ),
  clause(
    ['[over|in|on] [the] last {n} beats [of the bar]', '[over|in|on] [the] last beat [of the bar]'],
    (v) => (d) => {
      const beats = countedBeats(meterOf(d));
      const first = beats.at(-((v['n'] as number | undefined) ?? 1));
      return { ...d, from: first && first.number > 1 ? String(first.number) : null };
    },
    true,
  ),
];

const HITS = new Set([
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
const RESTS = new Set(['rest', 'rests', 'gap', 'gaps', 'silence', 'silent', 'nothing', 'empty', 'free', 'out', 'open']);
const NOT = new Set(['no', 'not', 'never', 'without', 'avoid']);
/** Words of a clause that stand between what is asked and where. */
const GLUE = new Set([
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
interface Standing {
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
const standing: SlotReader = (tokens, start) => {
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
function countsIn({ counts, bars }: Standing, d: Demands): readonly CountSaid[] {
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

const STANDING: readonly Clause[] = [
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

const START = '(start|starts|starting|lead|leads|leading|begin|begins|beginning|open|opens|opening)';
const END = '(end|ends|ending|finish|finishes|finishing|close|closes|closing)';
const HOLDS =
  '(hold|holds|holding|playable|plays|play|good|works|work|fine|ok|safe|clean|possible|doable|comfortable|easy|fast enough)';
const WHOLE: readonly Clause[] = [
  clause(
    ['[all] linear', 'one limb at a time', 'no unisons', 'nothing together', 'linear only'],
    set({ linear: true }),
  ),
  clause(
    [
      'not linear',
      'not [necessarily] linear',
      '(hand|hands) and (kick|feet|foot) [may be|can be|may|can] together [is fine|are fine|allowed]',
      'unisons [are|is] (fine|allowed|ok|welcome)',
      'with unisons',
    ],
    set({ linear: false }),
  ),
  clause(
    [
      '(no|not|never) more than {n} in a row [with one hand|by one hand|of one hand|with a hand|per hand]',
      '(no|not|never) more than {n} (with|by|per|of) [one|a|either|the same] hand [in a row]',
      '(at most|maximum|up to) {n} [lefts|rights|strokes] (in a row|with one hand|by one hand|per hand) [with one hand]',
    ],
    (v) => (d) => ({ ...d, hand: Math.min(8, v['n'] as number) }),
  ),
  clause(['(no|never) {n} in a row [with one hand|by one hand]', '(no|never) {n} with one hand'], (v) => (d) => ({
    ...d,
    hand: Math.max(1, (v['n'] as number) - 1),
  })),
  clause(
    [
      '(nothing|no run|no runs) (bigger|longer|more) than [a] (double|doubles)',
      '(at most|up to) doubles',
      'doubles at most',
    ],
    set({ hand: 2 }),
  ),
  clause(['(no|without|never) [any] doubles', 'hand to hand', 'alternating [hands]'], set({ hand: 1 })),
  clause(
    [
      '(no|never) two kicks [in a row|together]',
      '(no|never) double kicks',
      '(no|not|never) more than one kick [in a row|at a time]',
      'single kicks [only]',
    ],
    set({ foot: 1 }),
  ),
  clause(
    ['(hands|sticks) only', 'only [the] hands', '(no|without) (kick|kicks|feet|bass drum) [at all]'],
    () =>
      (d, { schools }) => {
        const slots = Array.from({ length: slotsAsked(d, schools) }, (_, i) => i);
        const own = d.blocks.filter((b) => b === 'singles' || b === 'rests' || b === 'rudiments' || b === 'own');
        return {
          ...withWishes(d, slots, 'K', false),
          blocks: own.length > 0 || d.rudiments.length > 0 ? own : ['singles'],
        };
      },
  ),
  clause(
    ['(no|not|never) more than {n} kicks [in a row|at a time]', '(at most|maximum|up to) {n} (kick|kicks) [in a row]'],
    (v) => (d) => ({ ...d, foot: Math.min(8, v['n'] as number) }),
  ),
  clause([`${START} [with|on|off] {limb}`, '{limb} (lead|leads|first|leading)'], (v) => {
    const hand = handSaid(v);
    return hand && ((d) => ({ ...d, lead: hand }));
  }),
  clause([`${START} and ${END} (with|on) {limb}`], (v) => {
    const hand = handSaid(v);
    return hand && ((d) => ({ ...d, lead: hand, end: hand }));
  }),
  clause([`${END} [with|on] {limb}`, `{limb} (last|end|ends|finishes)`], (v) => {
    const hand = handSaid(v);
    return hand && ((d) => ({ ...d, end: hand }));
  }),
  clause(
    [
      '(land|lands|landing) [on|with] {voices} [and [the] kick] [with {limb}]',
      '(land|lands|landing) with {limb} on {voices}',
      '(land|lands|landing) [on] {limb}',
      '(land|lands|landing) [on the (1|one)] [with {limb}]',
    ],
    (v) => {
      if (v['limb'] && limbsSaid(v)[0] === 'K') return (d) => ({ ...d, lands: 'kick' });
      const voice = v['voices'] ? voiceSaid(v) : 'crash-right';
      if (voice !== 'crash-right' && voice !== 'crash-left') return null;
      const hand = v['limb'] ? handSaid(v) : null;
      return (d) => ({ ...d, lands: hand === 'L' || (hand === null && voice === 'crash-left') ? 'left' : 'right' });
    },
  ),
  clause(
    [
      `[must|should|can|to] [be] ${HOLDS} (at|for|up to|to) {n} [bpm]`,
      '(not|no) faster than i can play [at] {n} [bpm]',
      '[at|up to|around|about] {n} bpm',
      '(at|tempo) {n} [bpm]',
    ],
    (v) => (d) => ({ ...d, holds: Math.min(400, v['n'] as number) }),
  ),
  clause(['{n} (slots|strokes|notes) (unlike|off|from|away from) (my|the) shelf'], (v) => (d) => ({
    ...d,
    unlike: Math.min(64, v['n'] as number),
  })),
  clause(
    [
      '(nothing|not|unlike) [like] (what|anything) i (have|know|play) [already]',
      '(nothing|not) like (my|the) shelf',
      'unlike (my|the) shelf',
      '[something] new to me',
      'something new',
      'nothing i (have|know|play) [already]',
    ],
    () =>
      (d, { schools }) => ({ ...d, unlike: Math.max(4, Math.floor(slotsAsked(d, schools) / 4)) }),
  ),
  clause(
    [
      '[with] [the] last [one|group|cell] [may be|can be|is|may|can] cut [off]',
      'cut [off] [the] last [one|group|cell] [off]',
    ],
    set({ cut: true }),
  ),
  clause(['whole groups [only]', 'nothing cut [off]'], set({ cut: false })),
  clause(
    [
      '[the] kick (as it (stands|is)|stays|stands) [as it is]',
      '[keep|the same|same] (round|around) [the|this|my] kick [as it stands|as it is]',
      '(keep|same|hold) [the|my|this] kick [as it is|as it stands]',
    ],
    keeps('kick'),
  ),
  clause(
    ['(keep|same) [the|my] (hands|sticking) [as they are]', '[the] (hands|sticking) (stays|stay) [as they are]'],
    keeps('hands'),
  ),
  clause(
    [
      '(keep|same) [the|my] accents [where they are]',
      '[the] accents (stay|where they are) [now|as they are|where they are]',
    ],
    keeps('accents'),
  ),
  clause(
    [
      '(change|swap|other) [only] {n} (strokes|slots|notes) [at most]',
      '{n} (strokes|slots|notes) (may|can) (change|differ|be different)',
      'like this [one] [but] {n} (strokes|slots|notes) (different|other|changed|off|away) [at most]',
      '{n} (strokes|slots|notes) (different|other|changed) [at most]',
    ],
    (v) => (d) => ({ ...d, like: Math.min(32, v['n'] as number) }),
  ),
  clause(['like this [one] [but different]'], set({ like: 4 })),
  clause(['sparse', '[lots of|with|more] space', 'half as dense', 'few strokes', '[lots of] air'], () => (d) => ({
    ...d,
    density: 'half',
    blocks: d.blocks.includes('rests') ? d.blocks : [...d.blocks, 'rests'],
  })),
  clause(
    [
      'dense',
      'busy',
      'no (rests|gaps)',
      'without (rests|gaps)',
      'every (slot|note|stroke|sixteenth) [is] [played|struck|filled]',
      'every {grid} [is] [played|struck|filled]',
    ],
    set({ density: 'every' }),
  ),
  clause(['down the toms'], set({ way: 'down' })),
  clause(['up the toms [from the floor]', 'from the floor tom up'], set({ way: 'up' })),
  clause(['hands apart'], set({ way: 'apart' })),
  clause(['[all] on [the] floor_tom'], set({ way: 'floor' })),
  clause(['accents on [the] (crash|crashes|cymbals)'], set({ way: 'crashes' })),
  clause(
    ['(different|another|new|other) (sticking|hands)', '(move|change) the kicks', 'hands free', 'on (my|this) kit'],
    () => (d) => d,
  ),
  clause(['fill the rest [with]', '[the] rest (free|is free)'], () => (d) => d),
];

/** What it is built from: said anew, what was chosen before goes. */
const BUILT: readonly Clause[] = [
  clause(
    [
      '[in|of|from|with|using|only] {groups} [only]',
      'linear {sizes}',
      '(closing|ending|finishing) with [a] {sizes}',
      '(groups|group|cells) of {sizes}',
      'in groups of {sizes}',
    ],
    (v) => {
      const said = (v['groups'] ?? v['sizes']) as readonly number[];
      const own = (['3', '4', '5', '6', '7'] as const).filter((b) => said.includes(Number(b)));
      return blocks(...own)();
    },
  ),
  clause(
    ['[with] [a|the] (kick|kicks) inside [[of] (groups|group) of {sizes}|{groups}|the groups]'],
    blocks('kick-inside'),
  ),
  clause(
    ['[with] (two|double) kicks [at the end|behind] [of (each|every) group]', 'ending in two kicks'],
    blocks('two-kicks'),
  ),
  clause(['[only] (singles|single strokes) [only]'], blocks('singles')),
  clause(['[only|with] (kicks|single kicks) allowed', '[with] [a] (few|some|occasional) kicks'], blocks('kicks')),
  clause(['[and|with] rests [allowed]'], blocks('rests')),
  clause(['[only] rudiments [only]'], blocks('rudiments')),
  clause(['[only|in|of|from|using] {rudiment} [only]'], (v) => (d) => ({
    ...d,
    rudiments: [...d.rudiments.filter((r) => r !== v['rudiment']), v['rudiment'] as string],
  })),
  clause(['[only|from|using] {cell} [only]'], (v) => (d) => ({
    ...d,
    own: d.blocks.includes('own') && d.own.trim() !== '' ? `${d.own}, ${v['cell'] as string}` : (v['cell'] as string),
    blocks: [...d.blocks.filter((b) => b !== 'own'), 'own'],
  })),
];

/** Of two clauses of one length the one that stands first is meant: idioms before what stands on counts. */
const CLAUSES: readonly Clause[] = [...SPACE, ...WHOLE, ...BUILT, ...STANDING];
/** Words between clauses that ask for nothing. */
const JOINTS = new Set(
  `, ; . : a an the with and that please something some me give want i need phrase fill lick one it is should be but then for of in to make find just only there all inside within over mostly mainly built made from hands closing some few can could would like have has`.split(
    ' ',
  ),
);

/** Every word that is known here: those of the box, and those of these clauses. */
const ASKED_LEXIS: Lexis = {
  get words() {
    return (known ??= new Set([
      ...LEXIS.words,
      ...[...JOINTS, ...HITS, ...RESTS, ...NOT, ...GLUE],
      ...CLAUSES.flatMap((c) => c.say.flatMap((t) => t.words())),
      ...searchRudiments('').flatMap((r) => r.name.toLowerCase().split(/[ -]/)),
    ]));
  },
  names: LEXIS.names,
};
let known: ReadonlySet<string> | null = null;

interface Reading {
  readonly clauses: readonly { readonly of: Clause; readonly values: Values }[];
}

/** The clauses of a line, leaving no word out; the longest first. Null where there are none. */
function clausesOf(tokens: readonly Token[]): Reading | null {
  const dead = new Set<number>();
  const go = (at: number): Reading['clauses'] | null => {
    if (at >= tokens.length) return [];
    if (dead.has(at)) return null;
    const fits = CLAUSES.flatMap((of) => of.say.flatMap((t) => t.fits(tokens, at, READERS).map((m) => ({ of, ...m }))))
      .filter((m) => m.end > at && m.of.change(m.values) !== null)
      .sort((a, b) => b.end - a.end);
    for (const { of, values, end } of fits) {
      const rest = go(end);
      if (rest) return [{ of, values }, ...rest];
    }
    const over = JOINTS.has(word(tokens, at)) ? go(at + 1) : null;
    if (!over) dead.add(at);
    return over;
  };
  const clauses = go(0);
  return clauses && clauses.length > 0 ? { clauses } : null;
}

/** Words that no clause and no joint takes, walking from the left. */
function unreadIn(tokens: readonly Token[]): readonly string[] {
  const out: string[] = [];
  for (let at = 0; at < tokens.length;) {
    const ends = CLAUSES.flatMap((c) =>
      c.say.flatMap((t) => t.fits(tokens, at, READERS).flatMap((m) => (c.change(m.values) ? [m.end] : []))),
    );
    const end = Math.max(at, ...ends);
    if (end > at) at = end;
    else {
      if (!JOINTS.has(word(tokens, at))) out.push(tokens[at]?.raw ?? '');
      at++;
    }
  }
  return out;
}

/** Letters of a line that is read at most. */
const MOST_LETTERS = 300;

/**
 * Reads a line that asks for a phrase, in the words of the box, on top of what is asked already. Counts without a bar
 * are meant in every bar. Nothing is taken of a line that is not understood to its end.
 * @example
 * readAsking('two bars of 16ths, hits on 1 and the a of 2, linear, playable at 110', USUAL_DEMANDS, USUAL_SCHOOLS).demands.holds // => 110
 * readAsking('linear and purple', USUAL_DEMANDS, USUAL_SCHOOLS).unread // => ["purple"]
 */
export function readAsking(line: string, before: Demands, schools: Schools): AskingRead {
  const tokens = tokensOf(line.slice(0, MOST_LETTERS), ASKED_LEXIS);
  const reading = clausesOf(tokens);
  if (!reading) {
    const unread = unreadIn(tokens);
    return {
      ok: false,
      unread,
      words:
        unread.length > 0
          ? `“${unread.slice(0, 4).join(' ')}” is not understood here.`
          : 'Say what it must have: “hits on 1 and the & of 3, linear”.',
    };
  }
  const space = reading.clauses.filter((c) => c.of.isSpace);
  // A meter is known before the bars and subdivisions it has.
  const ordered = [...space.filter((c) => c.values['meter']), ...space.filter((c) => !c.values['meter'])];
  const apply = (d: Demands, all: Reading['clauses']): Demands =>
    all.reduce((now, c) => c.of.change(c.values)?.(now, { schools }) ?? now, d);
  const laid = apply(before, ordered);
  // In another space slots lie elsewhere: what was asked of them goes.
  const isSame = (['meter', 'grid', 'bars', 'from'] as const).every((f) => laid[f] === before[f]);
  const room: Demands = isSame ? laid : { ...laid, wishes: [], held: null };
  const built = reading.clauses.some((c) => BUILT.includes(c.of))
    ? { ...room, blocks: [], own: '', rudiments: [], shelf: [] }
    : room;
  const rest = reading.clauses.filter((c) => !c.of.isSpace);
  const demands = apply(built, rest);
  const lost = rest
    .flatMap((c) => {
      const own = c.values['standing'] as Standing | undefined;
      return own ? countsIn(own, demands) : [];
    })
    .find((c) => slotsOf([c], demands, { schools }, false) === null);
  if (lost) {
    const place = lost.beat === null || lost.beat < 0 ? lost.syllable : `${lost.beat}${lost.syllable}`;
    const bar = lost.bar === null ? '' : ` of bar ${lost.bar}`;
    return {
      ok: false,
      unread: [],
      words: `${place}${bar} is not a slot of what is asked for: ${demands.meter} in ${gridName(demands.grid)}.`,
    };
  }
  return { ok: true, demands };
}
