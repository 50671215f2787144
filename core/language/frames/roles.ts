import type { Level } from '../../stroke';
import { numberAt, word } from '../grammar/counts';
import { pickAt, scopesAt, type Pick } from '../grammar/pick';
import { SLOTS } from '../grammar/slots';
import { LEVEL_TERMS, ORNAMENT_TERMS } from '../lexicon/terms';
import type { Found } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';

/**
 * What a clause can say beside its verb: which strokes, to what piece, how high, with what ornament, by which limb, on
 * what grid, how long, how far and which way, which strokes are new and where they are put, how many at a time, which
 * way over the kit.
 */
export type RoleName =
  | 'pick'
  | 'voices'
  | 'level'
  | 'ornament'
  | 'limb'
  | 'player'
  | 'grid'
  | 'space'
  | 'far'
  | 'way'
  | 'strokes'
  | 'where'
  | 'size'
  | 'sizes'
  | 'route'
  | 'only'
  | 'under'
  | 'close'
  | 'swapped'
  | 'hands'
  | 'first'
  | 'until'
  | 'times'
  | 'sticking'
  | 'count'
  | 'scope';

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
  ],
  level: ['', ':', 'as', 'at', 'to', 'into', 'in', 'like'],
  ornament: ['', 'as', 'with', 'into', 'to'],
  limb: ['with', 'by', 'to', 'on', 'in', 'for', 'over to', 'onto', 'into', 'using', 'as'],
  player: ['', 'with', 'by'],
  grid: ['', 'as', 'in', 'on', 'into', 'to', 'onto'],
  space: ['', 'for', 'over', 'to', 'in', 'into', 'across', 'up to', 'of', 'over the', 'out to'],
  far: ['', 'by'],
  strokes: ['', 'with'],
  size: ['', 'in', 'as'],
  count: ['on', 'at', 'from'],
  sizes: ['', 'in', 'as', 'in a', 'as a', 'grouped', 'in groups of', 'into'],
};

/** Ways and places that are said in words of their own. */
const SAID: readonly (readonly [RoleName, string, string])[] = [
  ...'until the bar is full, to the end of the bar, until the end of the bar, till the bar is full, till the end of the bar, to fill the bar, up to the bar line, until the bar line'
    .split(', ')
    .map((w) => ['until', w, 'bar'] as const),
  ...'until it comes out on 1, until it comes out on 1 again, until it comes out, until it comes out even, until it is back on 1, until it lands on 1, until it lands on 1 again, until it comes round, until it comes round to 1, until it comes out on the 1 again, until it ends with the bar, until it comes back to 1'
    .split(', ')
    .map((w) => ['until', w, 'even'] as const),
  ...(
    [
      [
        'RL',
        'single strokes, singles, strict alternation, alternate sticking, alternating sticking, strictly alternating, hand to hand, alternate the hands, alternate hands, alternating hands, single stroke sticking, with alternating hands, with alternate sticking',
      ],
      ['RRLL', 'double strokes, double sticking, double stroke sticking, with double strokes'],
      ['RLRRLRLL', 'paradiddle sticking, a paradiddle sticking, with a paradiddle sticking, with paradiddle sticking'],
    ] as const
  ).flatMap(([hands, words]) => words.split(', ').map((w) => ['sticking', w, hands] as const)),
  ...(
    [
      [
        'R',
        'right first, starting with the right, starting on the right, right hand first, leading with the right, beginning with the right, from the right, right lead, so the right leads, so that the right leads, so right leads',
      ],
      [
        'L',
        'left first, starting with the left, starting on the left, left hand first, leading with the left, beginning with the left, from the left, left lead, so the left leads, so that the left leads, so left leads',
      ],
    ] as const
  ).flatMap(([hand, words]) => words.split(', ').map((w) => ['first', w, hand] as const)),
  ...(
    [
      ['later', 'later, late, to the right, further on, further along, later on, further back'],
      ['earlier', 'earlier, early, to the left, ahead, sooner, further forward'],
      ['back', 'back, forward, forwards, backwards'],
    ] as const
  ).flatMap(([way, words]) => words.split(', ').map((w) => ['way', w, way] as const)),
  ...(
    [
      [
        'end',
        'at the end, on the end, to the end, behind it, behind, after it, to finish, to finish it, at the back, on the back, onto the end, after the last stroke, after the last note, after the last one',
      ],
      [
        'start',
        'in front, in front of it, at the front, at the start, at the beginning, before it, to start, to begin, to start with, at the top, before the first stroke, before the first note, before the first one',
      ],
    ] as const
  ).flatMap(([where, words]) => words.split(', ').map((w) => ['where', w, where] as const)),
  ...(
    [
      ['down', 'down the toms, down round the toms, down across the toms, round the toms, around the toms'],
      ['up', 'up the toms'],
      ['round', 'round the kit, around the kit, round the drums, around the drums, over the drums'],
    ] as const
  ).flatMap(([route, words]) => words.split(', ').map((w) => ['route', w, route] as const)),
  ...'only, just, nothing but, nothing except, no more than, exclusively'
    .split(', ')
    .map((w) => ['only', w, 'only'] as const),
  ...'with a kick, with a kick under it, with a kick under them, with a kick underneath, with the kick, with the kick under it, with the kick under them, with kick, with a bass drum, with the bass drum, kick underneath, kick under it, kick under them, and a kick under it, with kick under it, and a kick, plus a kick, plus kick'
    .split(', ')
    .map((w) => ['under', w, 'K'] as const),
  ...(
    [
      [
        'cut',
        'cut it off, cut it off at the end, cut off, cut off at the end, cut it short, cut the last one, cut the last one short, cut the rest, cutting the last one, cut at the end, chop the end, chop off the end, chop off the rest, cutting off the end, cut short, cut it at the end',
      ],
      [
        'rest',
        'leave the rest empty, rest at the end, leave the rest, rest for what is left, rests at the end, with a rest at the end, with rests at the end, leave the end empty, rest of it empty, silence at the end, nothing after that, rest after that',
      ],
    ] as const
  ).flatMap(([close, words]) => words.split(', ').map((w) => ['close', w, close] as const)),
  ...'hands swapped, with hands swapped, with the hands swapped, hands swapped each time, with the hands swapped each time, with the hands swapped every time, swap hands each time, swap the hands each time, swap hands every time, swap hands every time it repeats, hands reversed, with the hands reversed, and swap hands every time it repeats, and swap hands every time, and swap hands each time, and swap the hands each time, and swap the hands every time, and swap the hands every time it repeats, swapping hands each time, swapping the hands each time, alternating hands each time'
    .split(', ')
    .map((w) => ['swapped', w, 'swapped'] as const),
];
const SAID_BY_WORD = new Map<string, (typeof SAID)[number][]>();
for (const s of SAID) {
  const [first = ''] = s[1].split(' ');
  SAID_BY_WORD.set(first, [...(SAID_BY_WORD.get(first) ?? []), s]);
}

/** Every word of roles, for the vocabulary. */
export const ROLE_WORDS: readonly string[] = [
  ...SAID.flatMap(([, words]) => words.split(' ')),
  ...Object.values(MARKERS).flatMap((m) => m.flatMap((w) => w.split(' '))),
  ...'extra more level volume height each drum tom piece twice times over through running'.split(' '),
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
  voices: SLOTS['voices'],
  level: (tokens, start) => {
    const at = article(tokens, start);
    const level = LEVEL_TERMS.get(word(tokens, at));
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
  far: SLOTS['far'],
  strokes: SLOTS['strokes'],
  size: sizeAt,
  sizes: sizesAt,
  count: SLOTS['count'],
};

/** "in twos", "2 each", "two at a time", "two to a drum", "2 on each". */
function sizeAt(tokens: readonly Token[], at: number): readonly Found<number>[] {
  return numberAt(tokens, at).flatMap((n): Found<number>[] => {
    if (/^(?:twos|threes|fours|fives|sixes|pairs)$/.test(word(tokens, at))) return [n];
    let end = n.end;
    if (/^(?:strokes|notes|hits)$/.test(word(tokens, end))) end++;
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

/** "3-3-2", "3 3 2", "groups of 3", "threes": sizes one after the other. */
function sizesAt(tokens: readonly Token[], start: number): readonly Found<readonly number[]>[] {
  const groups = endOf(tokens, start, ['groups', 'of']);
  const [every] = groups === null ? [] : numberAt(tokens, groups);
  if (every) return [{ end: every.end, value: [every.value] }];
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

/** "four times", "3 times over": how often. */
function timesAt(tokens: readonly Token[], at: number): readonly RoleSaid[] {
  if (word(tokens, at) === 'twice') return [{ end: at + 1, role: 'times', value: 2, by: '' }];
  return numberAt(tokens, at).flatMap((n): RoleSaid[] => {
    if (word(tokens, n.end) !== 'times') return [];
    const over = /^(?:over|through|running)$/.test(word(tokens, n.end + 1)) ? 1 : 0;
    return [{ end: n.end + 1 + over, role: 'times', value: n.value, by: '' }];
  });
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
  for (const [role, words, value] of SAID_BY_WORD.get(word(tokens, at)) ?? []) {
    const end = endOf(tokens, at, words.split(' '));
    if (end !== null) found.push({ end, role, value, by: '' });
  }
  found.push(...timesAt(tokens, at));
  for (const { end, value } of scopesAt(tokens, at))
    if (Object.keys(value).every((key) => WHERE.has(key))) found.push({ end, role: 'scope', value, by: '' });
  const hands = handsAt(tokens, at);
  if (hands) found.push({ end: hands.end, role: 'hands', value: hands.value, by: '' });
  return found;
}

export const pickSaid = (v: unknown): Pick => v as Pick;
export const levelSaid = (v: unknown): Level => v as Level;
