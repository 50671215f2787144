import { fraction } from '../base';
import { gridName, meterText, parseMeter, TEMPO, type Grid } from '../time';
import { GOAL_DAYS, type Family } from '../recipe';
import { LIMBS, VOICE, type Limb, type Voice } from '../stroke';
import {
  folded,
  LIMB_TERMS,
  LONG_NAMES,
  SLOTS,
  Template,
  voiceTerm,
  type Lexis,
  type LimbTerm,
  type SlotReader,
  type SlotReaders,
  type Values,
} from '../language';
import type { Asked, AskContext } from './asked';
import type { Facts } from './facts';

/** What a part of a question asks for, in the words its chip has, and whether a phrase has it. */
export interface Asks {
  readonly words: string;
  readonly holds: (phrase: Asked) => boolean;
}

/** Sentences that ask the same thing; null where they ask nothing that can be told. */
export interface AskRule {
  readonly say: readonly Template[];
  readonly mean: (values: Values, context: AskContext) => Asks | null;
}

const DAY = 24 * 60 * 60 * 1000;

const FAMILY_TERMS: ReadonlyMap<string, Family> = new Map<string, Family>([
  ['fill', 'fill'],
  ['fills', 'fill'],
  ['lick', 'lick'],
  ['licks', 'lick'],
  ['groove', 'groove'],
  ['grooves', 'groove'],
  ['beat', 'groove'],
  ['warm-up', 'warm-up'],
  ['warmup', 'warm-up'],
  ['warmups', 'warm-up'],
]);

/** The words of the Bench, as they stand: a name is not set right to a word that is like it. */
export const ASK_LEXIS: Lexis = {
  words: new Set(),
  names: [{ words: ['warm', 'ups'], as: 'warm-up' }, { words: ['warm', 'up'], as: 'warm-up' }, ...LONG_NAMES],
  exact: true,
};

/** The tempo that is ready; null where it cannot be said. */
const readyOf = ({ believed }: Asked): number | null => (believed?.ready.kind === 'ready' ? believed.ready.bpm : null);

const TEMPO_WORDS: ReadonlyMap<string, { readonly words: string; readonly of: (phrase: Asked) => number | null }> =
  new Map([
    ['goal', { words: 'goal', of: (p: Asked) => p.goal }],
    ['clean', { words: 'clean at', of: (p: Asked) => p.best.clean }],
    ['ready', { words: 'ready at', of: readyOf }],
    ['ceiling', { words: 'ceiling', of: (p: Asked) => p.top?.bpm ?? null }],
  ]);
type TempoWord = NonNullable<ReturnType<(typeof TEMPO_WORDS)['get']>>;

const oneOf =
  (get: (word: string) => unknown): SlotReader =>
  (tokens, at) => {
    const value = get(tokens[at]?.word ?? '');
    return value === undefined ? [] : [{ end: at + 1, value }];
  };

/** The slots of questions: those of the Bench, and what only a shelf has. */
export function askSlots({ named }: AskContext, line: string): SlotReaders {
  return {
    ...SLOTS,
    // Brushes are what one plays with, and a tag, before they are a voice.
    piece: oneOf((w) => (w === 'brushes' ? undefined : voiceTerm(w))),
    foot: oneOf((w) => LIMB_TERMS.get(w)),
    family: oneOf((w) => FAMILY_TERMS.get(w)),
    what: oneOf((w) => TEMPO_WORDS.get(w)),
    tempo: (tokens, at) =>
      (SLOTS['n']?.(tokens, at) ?? []).filter(
        (f) => (f.value as number) >= TEMPO.least && (f.value as number) <= TEMPO.most,
      ),
    meter: oneOf((w) => (/^\d{1,2}\/\d{1,2}$/.test(w) ? (parseMeter(w) ?? undefined) : undefined)),
    tag: oneOf((w) => (/^#./.test(w) ? folded(w.slice(1)) : undefined)),
    // The longest name of the shelf that stands there.
    phrase: (tokens, at) => {
      for (let n = Math.min(8, tokens.length - at); n > 0; n--) {
        const value = named(line.slice(tokens[at]?.from, tokens[at + n - 1]?.until));
        if (value) return [{ end: at + n, value }];
      }
      return [];
    },
  };
}

const byFacts =
  (test: (facts: Facts) => boolean) =>
  ({ facts }: Asked): boolean =>
    facts !== null && test(facts);

const rule = (say: readonly string[], mean: AskRule['mean']): AskRule => ({
  say: say.map((s) => new Template(s)),
  mean,
});

/** A thing a phrase has, and the same asked the other way round: "no toms", "without kick". */
function both(say: readonly string[], mean: (values: Values) => Asks): readonly AskRule[] {
  return [
    rule(say, (v) => mean(v)),
    rule(
      say.map((s) => `(no|without|not) [a|any] ${s}`),
      (v) => {
        const { words, holds } = mean(v);
        return { words: `no ${words}`, holds: (p) => p.facts !== null && !holds(p) };
      },
    ),
  ];
}

const barWords = (n: number): string => (n === 0.5 ? 'half a bar' : `${fraction(n)} ${n === 1 ? 'bar' : 'bars'}`);
/** Rules about lengths in bars; other lengths are none of a phrase's. */
function lengths(
  say: readonly string[],
  words: (bars: string) => string,
  test: (own: number, n: number) => boolean,
): AskRule {
  return rule(say, (v) => {
    const space = v['space'] as { readonly bars?: number };
    const n = space.bars;
    return n === undefined ? null : { words: words(barWords(n)), holds: byFacts((f) => test(f.bars, n)) };
  });
}

/** Rules about tempos: of the goal where nothing else is named. */
function tempos(
  say: readonly string[],
  words: (low: number, high: number) => string,
  test: (own: number | null, low: number, high: number, what: TempoWord) => boolean,
): AskRule {
  return rule(say, (v) => {
    const what = (v['what'] ?? TEMPO_WORDS.get('goal')) as TempoWord;
    const [a, b] = [v['tempo'] as number, (v['until'] ?? v['tempo']) as number];
    const [low, high] = [Math.min(a, b), Math.max(a, b)];
    // A goal is what was set; what is clean at a tempo is clean below it too.
    const exact = what.words === 'goal' && say.includes(EXACTLY);
    return {
      words: `${what.words} ${exact ? low : words(low, high)}`,
      holds: (p) => (exact ? what.of(p) === low : test(what.of(p), low, high, what)),
    };
  });
}
const EXACTLY = '{what} [at|is|of] {tempo}';

const since = (days: number, words: string, now: number): Asks => ({
  words,
  holds: (p) => (p.best.lastAt === null ? Infinity : (now - p.best.lastAt) / DAY) >= days,
});
const lately = (days: number, words: string, now: number): Asks => ({
  words,
  holds: (p) => p.best.lastAt !== null && (now - p.best.lastAt) / DAY <= days,
});

/** Everything that can be asked of a shelf. Of several that fit at a place the one that reads most words counts. */
export const ASK_RULES: readonly AskRule[] = [
  lengths(
    ['[exactly] {space} [long]'],
    (bars) => bars,
    (own, n) => Math.abs(own - n) < 1e-9,
  ),
  lengths(
    ['(under|shorter) [than] {space}'],
    (bars) => `under ${bars}`,
    (own, n) => own < n,
  ),
  lengths(
    ['(over|longer) [than] {space}'],
    (bars) => `over ${bars}`,
    (own, n) => own > n,
  ),
  rule(['[in] {meter}'], (v) => {
    const [wanted = ''] = meterText(v['meter'] as Parameters<typeof meterText>[0]).split(' ');
    return { words: `in ${wanted}`, holds: byFacts((f) => f.meter.split(' ')[0] === wanted) };
  }),
  rule(['linear'], () => ({ words: 'linear', holds: byFacts((f) => f.linear) })),
  rule(['(no|not) linear'], () => ({ words: 'not linear', holds: byFacts((f) => !f.linear) })),
  rule(['(leads|leading) [with] [the] {foot}', '(starts|begins) with [the] {foot}', '{foot} (lead|leads)'], (v) => {
    const [hand, more] = (v['foot'] as LimbTerm).limbs;
    if (more !== undefined || (hand !== 'R' && hand !== 'L')) return null;
    return { words: `leads ${hand === 'L' ? 'left' : 'right'}`, holds: byFacts((f) => f.leads === hand) };
  }),
  ...(['lands', 'starts'] as const).map((verb) =>
    rule([verb === 'lands' ? '(lands|ends) on {count}' : '(starts|begins) on {count}'], (v) => {
      const { bar, beat, syllable } = v['count'] as {
        readonly bar: number | null;
        readonly beat: number | null;
        readonly syllable: string;
      };
      if (bar !== null || beat === null) return null;
      const count = `${beat}${syllable}`;
      return { words: `${verb} on ${count}`, holds: byFacts((f) => f[verb] === count) };
    }),
  ),
  tempos(
    [EXACTLY],
    (low) => `${low} or more`,
    (own, low) => (own ?? -1) >= low,
  ),
  tempos(
    ['[{what}] [at|is|of] (over|above|from) {tempo}', '[{what}] [at|is|of] {tempo} or more'],
    (low) => `${low} or more`,
    (own, low) => (own ?? -1) >= low,
  ),
  tempos(
    ['[{what}] [at|is|of] (under|below|to|up to) {tempo}', '[{what}] [at|is|of] {tempo} or less'],
    (low) => `${low} or less`,
    (own, low) => (own ?? Infinity) <= low,
  ),
  tempos(
    ['[{what}] [at|is|of] between {tempo} and {tempo:until}', '[{what}] [at|is|of] [from] {tempo} to {tempo:until}'],
    (low, high) => `${low} to ${high}`,
    (own, low, high) => own !== null && own >= low && own <= high,
  ),
  rule(['(never|not) (played|drilled)'], () => ({
    words: 'never drilled',
    holds: (p) => p.best.attempts === 0,
  })),
  rule(['not (played|drilled) for {n} (day|days)'], (v, { now }) => {
    const n = v['n'] as number;
    return since(n, `not drilled for ${n} day${n === 1 ? '' : 's'}`, now);
  }),
  rule(['not (played|drilled) for {n} (week|weeks)'], (v, { now }) => {
    const n = v['n'] as number;
    return since(7 * n, `not drilled for ${n} week${n === 1 ? '' : 's'}`, now);
  }),
  rule(['(played|drilled) today'], (_, { now }) => lately(1, 'drilled in the last day', now)),
  rule(['(played|drilled) this week'], (_, { now }) => lately(7, 'drilled in the last 7 days', now)),
  rule(['(played|drilled) this month'], (_, { now }) => lately(30, 'drilled in the last 30 days', now)),
  rule(['due [today|now]'], (_, { today }) => ({
    words: 'due',
    holds: (p) => p.believed !== null && p.believed.due <= today,
  })),
  rule(['ready'], () => ({
    words: 'ready',
    holds: (p) => (readyOf(p) ?? 0) >= p.goal && (p.best.clean ?? 0) >= p.goal,
  })),
  rule(['not ready'], () => ({
    words: 'not ready',
    holds: (p) => (readyOf(p) ?? 0) < p.goal || (p.best.clean ?? 0) < p.goal,
  })),
  ...GOAL_DAYS.filter((what) => what !== 'day').map((what) =>
    rule(what === 'night' ? ['for (the|a) (show|night)'] : [`for (the|a) ${what}`], (_, { today }) => ({
      words: `for the ${what === 'night' ? 'show' : what}`,
      holds: (p) => p.by?.what === what && p.by.day >= today,
    })),
  ),
  rule(['at (the|its) goal'], () => ({ words: 'at the goal', holds: (p) => (p.best.clean ?? 0) >= p.goal })),
  rule(['{tag}', '(tagged|tag) {tag}'], (v) => {
    const own = v['tag'] as string;
    return { words: `#${own}`, holds: (p) => p.tags.some((t) => folded(t).startsWith(own)) };
  }),
  rule(['[grown] from {phrase}'], (v) => {
    const other = v['phrase'] as Asked;
    return { words: `made from ${other.name}`, holds: (p) => p.parent?.id === other.id };
  }),
  rule(['like {phrase}'], (v) => {
    const other = v['phrase'] as Asked;
    const own = other.facts;
    return {
      words: `like ${other.name}`,
      holds: (p) => p.id !== other.id && own !== null && p.facts !== null && isAlike(own, p.facts),
    };
  }),
  ...both(['[all] [in] {grid}'], (v) => {
    const grid = v['grid'] as Grid;
    return { words: gridName(grid), holds: byFacts((f) => f.grid === grid) };
  }),
  rule(['{family}'], (v) => ({ words: `${v['family'] as Family}s`, holds: (p) => p.family === v['family'] })),
  rule(['(no|without|not) [a|any] {family}'], (v) => ({
    words: `no ${v['family'] as Family}s`,
    holds: (p) => p.family !== v['family'],
  })),
  ...both(['(second kick|double-pedal)'], () => ({
    words: 'second kick',
    holds: byFacts((f) => f.limbs.includes('J')),
  })),
  ...both(['{foot}'], (v) => {
    const { limbs } = v['foot'] as LimbTerm;
    return { words: limbWords(limbs), holds: byFacts((f) => limbs.some((l) => f.limbs.includes(l))) };
  }),
  ...both(['{piece}'], (v) => {
    const { of } = v['piece'] as { readonly of: readonly Voice[] };
    return { words: voiceWords(of), holds: byFacts((f) => of.some((voice) => f.voices.includes(voice))) };
  }),
];

/**
 * Whether two phrases are alike: the same turned or mirrored, or of the same length, grid and meter, both linear or
 * not, with the same limbs.
 */
function isAlike(a: Facts, b: Facts): boolean {
  if (a.form === b.form) return true;
  return (
    a.length === b.length &&
    a.grid === b.grid &&
    a.meter === b.meter &&
    a.linear === b.linear &&
    a.limbs.join('') === b.limbs.join('')
  );
}

function limbWords(limbs: readonly Limb[]): string {
  const words: Readonly<Record<Limb, string>> = {
    R: 'right',
    L: 'left',
    K: 'kick',
    J: 'second kick',
    H: 'hi-hat foot',
  };
  if (limbs.length === 2 && limbs.includes('R')) return 'hands';
  if (limbs.length === LIMBS.length - 2) return 'feet';
  return limbs.map((l) => words[l]).join(' or ');
}

function voiceWords(voices: readonly Voice[]): string {
  const [first] = voices;
  if (voices.length === 1 && first) return VOICE[first].name;
  if (voices.includes('floor-tom')) return 'toms';
  if (voices.includes('hat-closed')) return 'hi-hat';
  if (voices.includes('china')) return 'cymbals';
  if (voices.includes('ride')) return 'ride';
  if (voices.includes('crash-left')) return 'crash';
  return first ? VOICE[first].name : '';
}
