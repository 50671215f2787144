import { numberAt, word } from '../grammar/counts';
import { ORDINAL_ONLY, pickAt, scopesAt, type Pick } from '../grammar/pick';
import { isOneOf, SLOTS } from '../grammar/slots';
import type { RoleName } from './role-names';
import { ROLE_TABLE } from './words';
import { LEVEL_TERMS, ORNAMENT_TERMS } from '../lexicon/terms';
import type { Found } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';

export interface RoleSaid {
  readonly end: number;
  readonly role: RoleName;
  readonly value: unknown;
  /** The words before it that say what it is to the rest: "to", "with". */
  readonly by: string;
}

const MARKERS: Partial<Record<RoleName, readonly string[]>> = {
  pick: [
    '',
    'for',
    'on',
    'of',
    'at',
    'with',
    'to',
    'in',
    'under',
    'underneath',
    'beneath',
    'below',
    'along with',
    'together with',
    'from',
    'over',
    'into',
    'onto',
    'behind',
    'after',
  ],
  voices: [
    ...[
      '',
      'to',
      'on',
      'onto',
      'over to',
      'down to',
      'up to',
      'up on',
      'down on',
      'over on',
      'back to',
      'back on',
      'at',
    ],
    ...['into', 'over', 'across', 'across to', 'between', 'with', 'using', 'out to', 'out on', 'off to', 'as', 'from'],
    ...['becomes', 'become', 'is', 'are', 'turns into', 'should be', 'by', 'for', 'of'],
  ],
  level: ['', ':', 'as', 'at', 'to', 'into', 'in', 'like', 'up to', 'down to', 'back to', 'to be', 'out as', 'with'],
  ornament: ['', 'as', 'with', 'into', 'to', 'for'],
  limb: [
    'all',
    'as all',
    'all with',
    'entirely with',
    'with',
    'by',
    'to',
    'on',
    'in',
    'for',
    'over to',
    'onto',
    'into',
    'using',
    'as',
  ],
  player: ['', 'with', 'by', 'gets', 'get'],
  grid: [
    '',
    'as',
    'in',
    'on',
    'into',
    'to',
    'onto',
    'every',
    'each',
    'on every',
    'on each',
    'in every',
    'steady',
    'in steady',
  ],
  into: ['into', 'in', 'over', 'to'],
  room: ['into', 'in', 'over', 'to', 'across'],
  groups: ['', 'in', 'as', 'by', 'groups of', 'in groups of', 'as groups of', 'it as'],
  space: ['', 'for', 'over', 'to', 'in', 'into', 'across', 'up to', 'of', 'over the', 'out to', 'after', 'down to'],
  far: ['', 'by'],
  strokes: ['', 'with'],
  size: ['', 'in', 'as'],
  count: [
    'to',
    'on',
    'at',
    'from',
    'starting on',
    'starting from',
    'starting at',
    'beginning on',
    'it starts on',
    'it begins on',
  ],
  off: ['off', 'out of', 'away from'],
  around: ['round', 'around'],
  sizes: ['', 'in', 'as', 'in a', 'as a', 'grouped', 'in groups of', 'into'],
};

/** Every word of roles, for the vocabulary. */
export const ROLE_WORDS: readonly string[] = [
  ...ROLE_TABLE.flatMap((r) => r.say.words()),
  ...Object.values(MARKERS).flatMap((m) => m.flatMap((w) => w.split(' '))),
  ...'extra more barline over line level volume height each drum tom piece twice times over through running ends is full over done these those them close closing closed finish finishing end ending copy identical same like with it per'.split(
    ' ',
  ),
];

/** Whether words stand from a place on; where they end. */
export function endOf(tokens: readonly Token[], at: number, words: readonly string[]): number | null {
  return words.every((w, i) => word(tokens, at + i) === w) ? at + words.length : null;
}

const article = (tokens: readonly Token[], at: number): number =>
  /^(?:the|a|an|some|my|its|their|your)$/.test(word(tokens, at)) ? at + 1 : at;

type Reader = (tokens: readonly Token[], at: number) => readonly Found[];

const READERS: Partial<Record<RoleName, Reader>> = {
  pick: pickAt,
  around: pickAt,
  voices: SLOTS['voices'],
  level: (tokens, start) => {
    const at = article(tokens, start);
    const level = LEVEL_TERMS.get(word(tokens, at));
    if (isOneOf(tokens, at)) return [];
    if (!level || /^(?:un|non-)/.test(word(tokens, at))) return [];
    const end = at + 1;
    const noun = /^(?:notes?|strokes?|level|volume|ones|height|dynamics?)$/.test(word(tokens, end));
    return [{ end, value: level }, ...(noun ? [{ end: end + 1, value: level }] : [])];
  },
  ornament: (tokens, start) => {
    let at = article(tokens, start);
    if (/^(?:little|quick)$/.test(word(tokens, at))) at++;
    const found = ORNAMENT_TERMS.get(word(tokens, at));
    return found ? [{ end: at + 1, value: found }] : [];
  },
  limb: SLOTS['limb'],
  player: SLOTS['limb'],
  grid: SLOTS['grid'],
  space: SLOTS['space'],
  // "A" by itself says how many of what stands behind it, and not how far.
  far: (tokens, at) =>
    (SLOTS['far']?.(tokens, at) ?? []).filter((f) => f.end > at + 1 || !/^(?:a|an|another)$/.test(word(tokens, at))),
  strokes: SLOTS['strokes'],
  size: sizeAt,
  sizes: sizesAt,
  groups: (tokens, at) => (SLOTS['sizes']?.(tokens, at) ?? []).filter((f) => (f.value as readonly number[]).length > 1),
  room: SLOTS['space'],
  count: (tokens, at) =>
    (SLOTS['count']?.(tokens, at) ?? []).flatMap((f) =>
      word(tokens, at - 1) === 'from' && /^(?:on|onwards)$/.test(word(tokens, f.end))
        ? [f, { ...f, end: f.end + 1 }]
        : [f],
    ),
  off: SLOTS['counts'],
  into: SLOTS['n'],
};

/** "in twos", "2 each", "two at a time", "two to a drum", "2 on each". */
function sizeAt(tokens: readonly Token[], at: number): readonly Found<number>[] {
  if (word(tokens, at) === 'ones') return [{ end: at + 1, value: 1 }];
  return numberAt(tokens, at).flatMap((n): Found<number>[] => {
    if (/^(?:twos|threes|fours|fives|sixes|pairs)$/.test(word(tokens, at))) return [n];
    let end = n.end;
    if (/^(?:strokes?|notes?|hits?)$/.test(word(tokens, end))) end++;
    const said = [
      'each',
      'at a time',
      'to a drum',
      'per drum',
      'on each',
      'to each',
      'on each drum',
      'each drum',
      'on every drum',
      'a drum',
      'to each drum',
      'on each tom',
    ];
    const found = said.map((s) => endOf(tokens, end, s.split(' '))).filter((e) => e !== null);
    return found.map((e) => ({ end: e, value: n.value }));
  });
}

/** "One beat on each", "two beats each drum": how many beats each piece has. */
function beatsEachAt(tokens: readonly Token[], at: number): readonly RoleSaid[] {
  return numberAt(tokens, at).flatMap((n): RoleSaid[] => {
    if (!/^beats?$/.test(word(tokens, n.end))) return [];
    const ends = [
      'each',
      'on each',
      'to each',
      'per drum',
      'on each drum',
      'each drum',
      'to a drum',
      'on every drum',
      'to each drum',
      'on each tom',
      'on each one',
      'per piece',
      'on each piece',
    ].map((s) => endOf(tokens, n.end + 1, s.split(' ')));
    return ends.flatMap((end) => (end === null ? [] : [{ end, role: 'beats', value: n.value, by: '' }]));
  });
}

/** "3-3-2", "3 3 2", "groups of 3", "threes": sizes one after the other. */
function sizesAt(tokens: readonly Token[], start: number): readonly Found<readonly number[]>[] {
  const groups = endOf(tokens, start, ['groups', 'of']);
  // "Groups of 3", "groups of 3, 3 and 2"
  if (groups !== null) return (SLOTS['sizes']?.(tokens, groups) ?? []) as readonly Found<readonly number[]>[];
  const found: Found<readonly number[]>[] = [];
  const all: number[] = [];
  let at = start;
  for (;;) {
    const [n] = numberAt(tokens, at);
    if (!n || n.value < 1 || n.value > 16 || /^(?:a|an)$/.test(word(tokens, at))) break;
    all.push(n.value);
    at = n.end;
    if (all.length > 1) found.push({ end: at, value: [...all] });
    if (/^(?:\+|plus|,|-)$/.test(word(tokens, at))) at++;
  }
  return found;
}

/** Strokes as letters of hands only, "RLL RLL RL": what hands are to play in turn. */
function handsAt(tokens: readonly Token[], start: number): Found<string> | null {
  let [at, text] = [start, ''];
  while (/^[rl]+$/i.test(tokens[at]?.raw ?? '')) text += (tokens[at++]?.raw ?? '').toUpperCase();
  return text.length > 1 ? { end: at, value: text } : null;
}

/** "Until the end of bar 2", "till bar 2 ends": so many bars from the start. */
function untilBarAt(tokens: readonly Token[], at: number): readonly RoleSaid[] {
  if (!/^(?:until|till|to|up)$/.test(word(tokens, at))) return [];
  const from = word(tokens, at) === 'up' ? at + 1 : at;
  const lead = ['the end of', 'end of', ''].map((w) => endOf(tokens, from + 1, w === '' ? [] : w.split(' ')));
  return lead.flatMap((next, i): RoleSaid[] => {
    if (next === null || word(tokens, next) !== 'bar') return [];
    return numberAt(tokens, next + 1).flatMap((n): RoleSaid[] => {
      const over = /^(?:ends|is)$/.test(word(tokens, n.end));
      const end = over ? n.end + (word(tokens, n.end) === 'is' ? 2 : 1) : n.end;
      if (i === 2 && !over) return [];
      return [{ end, role: 'until', value: n.value, by: '' }];
    });
  });
}

const SAME = [
  'the same as',
  'same as',
  'like',
  'just like',
  'as',
  'a copy of',
  'copy of',
  'identical to',
  'the same',
].map((w) => w.split(' '));

/** "Same as the first", "like bar 2": what is played again; "in bar 2", "to beat 3": where. */
function placesAt(tokens: readonly Token[], at: number): readonly RoleSaid[] {
  const from = (role: 'source' | 'target', start: number, by: string): readonly RoleSaid[] => {
    const next = article(tokens, start);
    // "The second half same as the first"
    const bare = /^(?:first|second)$/.test(word(tokens, next)) && !/^(?:half|bar|beat)$/.test(word(tokens, next + 1));
    const ordinal = bare && next > start ? [{ end: next + 1, value: word(tokens, next) }] : [];
    const places = pickAt(tokens, start).filter(({ value: v }) =>
      Object.keys(v).every(
        (k) =>
          v[k as keyof Pick] == null ||
          /^(?:counts|bars|half|halfOf|said)$/.test(k) ||
          // "The first beat onto the second"
          (k === 'order' && ORDINAL_ONLY.test(v.said)),
      ),
    );
    return [...ordinal, ...places].map((f): RoleSaid => ({ end: f.end, role, value: f.value, by }));
  };
  const all = word(tokens, at) === 'all' ? at + 1 : at;
  const same = SAME.flatMap((words) => {
    const end = endOf(tokens, all, words);
    return end === null ? [] : from('source', end, words.join(' '));
  });
  const to = /^(?:in|to|on|onto|into|for|at|over|as)$/.test(word(tokens, at))
    ? from('target', at + 1, word(tokens, at))
    : [];
  return [...same, ...to];
}

/** "Except the accents", "but not in bar 2", "apart from 3": what is taken out of what is meant. */
function lessAt(tokens: readonly Token[], at: number): readonly RoleSaid[] {
  if (!/^(?:except|other-than|apart-from|but|without|save)$/.test(word(tokens, at))) return [];
  const not = word(tokens, at + 1) === 'not' ? at + 2 : at + 1;
  const next = /^(?:for|on|at)$/.test(word(tokens, not)) ? not + 1 : not;
  const scopes = scopesAt(tokens, not).map((f) => ({ end: f.end, value: { base: null, said: 'except', ...f.value } }));
  return [...pickAt(tokens, next), ...scopes].map((f): RoleSaid => ({
    end: f.end,
    role: 'less',
    value: f.value,
    by: '',
  }));
}

/** What says where, and nothing of what it is. */
const WHERE: ReadonlySet<string> = new Set(
  'counts bars half halfOf before after since to until between repeat'.split(' '),
);

/** Every role that can be read at a place of a line. */
export function rolesAt(tokens: readonly Token[], at: number): readonly RoleSaid[] {
  const known = readBefore.get(tokens) ?? new Map<number, readonly RoleSaid[]>();
  readBefore.set(tokens, known);
  const found = known.get(at) ?? rolesRead(tokens, at);
  known.set(at, found);
  return found;
}
const readBefore = new WeakMap<readonly Token[], Map<number, readonly RoleSaid[]>>();

function rolesRead(tokens: readonly Token[], at: number): readonly RoleSaid[] {
  const found: RoleSaid[] = [];
  for (const [role, markers] of Object.entries(MARKERS) as [RoleName, readonly string[]][]) {
    for (const by of markers) {
      const from = by === '' ? at : endOf(tokens, at, by.split(' '));
      if (from === null) continue;
      for (const { end, value } of READERS[role]?.(tokens, from) ?? [])
        if (end > from && end <= tokens.length) found.push({ end, role, value, by });
    }
  }
  for (const { role, say, value } of ROLE_TABLE)
    for (const m of say.fits(tokens, at, SLOTS))
      if (m.end > at) found.push({ end: m.end, role, value: value(m.values), by: '' });
  found.push(...beatsEachAt(tokens, at));
  found.push(...untilBarAt(tokens, at), ...placesAt(tokens, at), ...lessAt(tokens, at));
  for (const { end, value } of scopesAt(tokens, at))
    if (Object.keys(value).every((key) => WHERE.has(key))) found.push({ end, role: 'scope', value, by: '' });
  for (const by of ['', 'with'])
    if (by === '' || word(tokens, at) === by) {
      const hands = handsAt(tokens, by === '' ? at : at + 1);
      if (hands) found.push({ end: hands.end, role: 'hands', value: hands.value, by });
    }
  return found;
}
