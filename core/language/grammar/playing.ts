import { barTicks, GRID, TEMPO } from '../../time';
import { clamp, listed } from '../../base';
import { isHand, LIMB_WORDS, LIMBS, pieceName, type Limb, type Voice } from '../../stroke';
import type { Pattern } from '../../pattern';
import { places } from './places';
import { isWrong, stretchesOf } from './stretches';
import type { ShelfPhrase } from '../lexicon/phrases';
import type { BarSaid } from './counts';
import type { Pick } from './pick';
import { SLOTS } from './slots';
import type { LimbTerm } from '../lexicon/terms';
import { Template, type Values } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';

/** What is said to the player, and is no change of the phrase. Tempos are counted beats a minute. */
export type Order =
  | { readonly kind: 'tempo'; readonly to: number }
  | { readonly kind: 'half'; readonly on: boolean }
  | { readonly kind: 'play' | 'stop' | 'hear-all' | 'loop-all' | 'straight' | 'undo' | 'redo' }
  /** To the room: all of it, or a part, in ticks from the start; between two tempos, or those that are proposed. */
  | { readonly kind: 'drill'; readonly part: DrillPart | null; readonly at: number | null; readonly to: number | null }
  /** Another phrase of the shelf; a question for the shelf. */
  | { readonly kind: 'open'; readonly id: string }
  | { readonly kind: 'ask'; readonly question: string }
  | { readonly kind: 'only'; readonly limbs: readonly Limb[] }
  /** All but these pieces, by their names. */
  | { readonly kind: 'mute'; readonly pieces: readonly string[] }
  /** The kick and the accents, without what keeps time or fills in. */
  | { readonly kind: 'only-groove' }
  /** Round and round; at a tempo where one is said. */
  | { readonly kind: 'loop'; readonly from: number; readonly until: number; readonly at: number | null }
  | { readonly kind: 'show'; readonly what: Shown }
  | { readonly kind: 'swing'; readonly on: 'eighths' | '16ths'; readonly ratio: number }
  | { readonly kind: 'keep'; readonly name: string };

/** What is laid open by a button of its own. */
export const SHOWN = ['stickings', 'variants', 'staff', 'travel', 'compare', 'print', 'share', 'versions'] as const;
export type Shown = (typeof SHOWN)[number];

/** A part of the phrase that is drilled, and what it was called. */
export interface DrillPart {
  readonly from: number;
  readonly until: number;
  readonly said: string;
}

/** What a line for the player says, in words; no order where it is set by hand. */
export interface Playing {
  readonly order: Order | null;
  readonly says: string;
}

/** What an order is carried out on. */
export interface OrderContext {
  readonly pattern: Pattern;
  readonly tempo: number;
  readonly phrases?: readonly ShelfPhrase[];
}

type Meaning = (v: Values, scene: OrderContext) => Playing | null;
const SWUNG_BY = 67;

const tempo = (to: number): Playing => {
  const bpm = clamp(Math.round(to), TEMPO.least, TEMPO.most);
  return { order: { kind: 'tempo', to: bpm }, says: `Play it at ${bpm}` };
};
const number = (v: Values): number => v['n'] as number;
/** A number that can be a tempo: "play it at 3" is a count. */
const at = (n: number): Playing | null => (n >= TEMPO.least && n <= TEMPO.most ? tempo(n) : null);

const DRILL = '(drill|practise|practice)';
/** "at 70", "from 75 to 97", "75 to 97". */
const TEMPOS = '((at|from) {n} [bpm]|[from] {n} [bpm] (to|up to) {n:to} [bpm])';
const barsOf = (v: Values): Pick => ({ base: null, bars: v['bars'] as readonly BarSaid[], said: 'it' });

/** What opens, how that is said, and in which words it is asked for. */
const SHOWN_BY: readonly (readonly [Shown, string, ...string[]])[] = [
  [
    'stickings',
    'Open Stickings',
    '[find|show] [a|the|other] (sticking|stickings) [for it]',
    '[play] [it] (in|as) (doubles|paradiddles|singles)',
  ],
  ['variants', 'Open Variants', '[find|show] [me] [the|some|other] variants'],
  ['staff', 'Show the staff', '[show] [me] [the] (staff|notation|notes)'],
  ['travel', 'Show the travel of the hands', '[show] [me] [the] travel [of the hands]'],
  ['compare', 'Compare with another phrase', 'compare [it|this] [with another]'],
  ['print', 'Print a page', 'print [it|this|a page]'],
  ['share', 'Share or export', '(share|export) [it|this]'],
  ['versions', 'Open the earlier versions', '[show] [me] [the] earlier versions'],
];
const ask = (question: string): Playing => ({
  order: { kind: 'ask', question },
  says: `Ask the shelf: ${question}`,
});

const RULES: readonly (readonly [readonly string[], Meaning])[] = [
  [
    ['[go|play|play it|a bit|make it] (slower|down) by {n} [bpm]', '{n} [bpm] slower'],
    (v, s) => tempo(s.tempo - number(v)),
  ],
  [
    ['[go|play|play it|a bit|make it] (faster|up) by {n} [bpm]', '{n} [bpm] faster'],
    (v, s) => tempo(s.tempo + number(v)),
  ],
  [
    ['(tempo|speed) [to] {n} [bpm]', '[play] [it] at {n} [bpm]', '{n} bpm', 'set [the] tempo to {n}'],
    (v) => at(number(v)),
  ],
  [['[a bit|a little|much|play it|go] slower'], (_, s) => tempo(s.tempo - 5)],
  [['[a bit|a little|much|play it|go] faster'], (_, s) => tempo(s.tempo + 5)],
  [
    ['[play|take|slow] [it] [down] [at|to] half [the] speed'],
    () => ({ order: { kind: 'half', on: true }, says: 'Play it at half speed' }),
  ],
  [
    ['[play] [it] [at] (full|normal) speed'],
    () => ({ order: { kind: 'half', on: false }, says: 'Play it at full tempo' }),
  ],
  [['undo [it|that]', 'take (it|that) back'], () => ({ order: { kind: 'undo' }, says: 'Undo' })],
  [['redo [it|that]'], () => ({ order: { kind: 'redo' }, says: 'Redo' })],
  [['play [it]', 'play that', 'start'], () => ({ order: { kind: 'play' }, says: 'Play it' })],
  [['stop [it]', 'silence', 'pause'], () => ({ order: { kind: 'stop' }, says: 'Stop' })],
  [
    [
      '(only|just) [hear|play] {limb}',
      '[let me] (play|hear) (only|just) {limb}',
      'hear [only|just] {limb} [only|alone]',
    ],
    (v) => only(v['limb'] as LimbTerm),
  ],
  [['mute (everything|all) (but|except|apart-from) {limb}'], (v) => only(v['limb'] as LimbTerm)],
  [
    ['(only|just) [hear] the groove', 'hear [only|just] the groove', 'the groove only'],
    () => ({ order: { kind: 'only-groove' }, says: 'Hear only the groove' }),
  ],
  [['mute {limb}', '[hear it] without {limb}'], (v) => mute(v['limb'] as LimbTerm)],
  [['hear (all|everything)', 'everything again'], () => ({ order: { kind: 'hear-all' }, says: 'Hear everything' })],
  [
    [
      'loop [only|just] {pick}',
      'loop [only|just] {pick} [,] at {n} [bpm]',
      '(play|hear|give me) [only|just] {bars} (alone|by itself|on its own)',
    ],
    (v, s) => loop((v['pick'] as Pick | undefined) ?? barsOf(v), s.pattern, v['n'] as number | undefined),
  ],
  [
    ['loop (all|everything|the whole|the whole thing|the whole phrase)'],
    () => ({ order: { kind: 'loop-all' }, says: 'Loop the whole phrase' }),
  ],
  [
    ['swing [it] [by|at] {n}', '{grid} (swung|swing) [at|by] {n}', 'swing [the] {grid} [by|at] {n}'],
    (v) => swing(v, number(v)),
  ],
  [['swing [it]', 'swing [the] {grid}', '{grid} swung', 'with swing'], (v) => swing(v, SWUNG_BY)],
  [
    ['[play] [it] straight', 'no swing', 'without swing'],
    () => ({ order: { kind: 'straight' }, says: 'Play it straight' }),
  ],
  [[`${DRILL} [it|this|all|everything]`, `${DRILL} [it|this|all|everything] ${TEMPOS}`], (v) => drill(undefined, v)],
  [
    [`${DRILL} [only|just] {pick} [,] ${TEMPOS}`, `${DRILL} [only|just] {pick}`],
    (v, s) => drill(loop(v['pick'] as Pick, s.pattern), v),
  ],
  ...SHOWN_BY.map(([what, says, ...say]): readonly [readonly string[], Meaning] => [
    say,
    () => ({ order: { kind: 'show', what }, says }),
  ]),
  [
    ['open {phrase}'],
    (v, { phrases = [] }) => {
      const phrase = phrases[v['phrase'] as number];
      return phrase ? { order: { kind: 'open', id: phrase.id }, says: `Open “${phrase.name}”` } : null;
    },
  ],
  [
    ['[what is|find|phrases] like {phrase}'],
    (v, { phrases = [] }) => {
      const phrase = phrases[v['phrase'] as number];
      return phrase ? ask(`like ${phrase.name}`) : null;
    },
  ],
];

const TEMPLATES = RULES.map(([say, mean]) => ({ say: say.map((t) => new Template(t)), mean }));

/** Words of the player and the drill. */
export const playingWords = (): readonly string[] => [
  ...TEMPLATES.flatMap(({ say }) => say.flatMap((t) => t.words())),
  ...'click metronome tempo bpm speed loop swing swung find search shuffle louder quieter volume mute unmute save'.split(
    ' ',
  ),
];

/** A piece is not heard, or all of them are again. */
function muted(voices: readonly Voice[], back: boolean): Playing {
  if (back) return { order: { kind: 'hear-all' }, says: 'Hear everything' };
  const pieces = [...new Set(voices.map(pieceName))];
  return { order: { kind: 'mute', pieces }, says: `Mute ${listed(pieces.map((p) => `the ${p}`))}` };
}

/** All but these are heard. */
function mute({ limbs, open }: LimbTerm): Playing {
  const own = open === 'left foot' ? (['H', 'J'] as const) : limbs;
  const says = own.length === 1 ? LIMB_WORDS[own[0] ?? 'R'] : own.some(isHand) ? 'hands' : 'feet';
  return { order: { kind: 'only', limbs: LIMBS.filter((l) => !own.includes(l)) }, says: `Mute the ${says}` };
}

function only({ limbs, open }: LimbTerm): Playing {
  const own = open === 'left foot' ? (['H', 'J'] as const) : limbs;
  const names = own.includes('R') && own.includes('L') ? 'hands' : own.length > 1 ? 'feet' : null;
  return { order: { kind: 'only', limbs: own }, says: `Hear only the ${names ?? LIMB_WORDS[own[0] ?? 'R']}` };
}

/** A part that could not be made out is no order; nor is a tempo that is none. */
function drill(part: Playing | null | undefined, v: Values): Playing | null {
  const [at, to] = [v['n'] as number | undefined, v['to'] as number | undefined];
  const isTempo = (n: number | undefined): boolean => n === undefined || (n >= TEMPO.least && n <= TEMPO.most);
  if (!isTempo(at) || !isTempo(to)) return null;
  const from = at === undefined ? '' : `, from ${at}${to === undefined ? '' : ` to ${to}`}`;
  if (part === null) return null;
  const own = part?.order?.kind === 'loop' ? { ...part.order, said: part.says.replace(/^Loop /, '') } : null;
  return {
    order: {
      kind: 'drill',
      part: own && { from: own.from, until: own.until, said: own.said },
      at: at ?? null,
      to: to ?? null,
    },
    says: `Open in Drill${own ? `: ${own.said}` : ''}${from}`,
  };
}

/** From the first of what is said to the end of its last: beats and bars whole. */
function loop(pick: Pick, pattern: Pattern, at?: number): Playing | null {
  if (at !== undefined && (at < TEMPO.least || at > TEMPO.most)) return null;
  if (pick.limb || pick.levels || pick.voices || pick.ornaments || pick.base) return null;
  // A count with an edge beside it is no part: "beat 3 from 75".
  if (pick.counts && (pick.since ?? pick.to ?? pick.before ?? pick.after ?? pick.until ?? pick.between)) return null;
  const spans = pick.counts?.map((c) => stretchesOf(pattern, c, c.syllable === '' ? 'beat' : 'count', pick.bars));
  if (spans) {
    const all = spans.flatMap((s) => s ?? []);
    if (all.length === 0 || spans.some((s) => s === null || s.length === 0)) return null;
    // Of counts that come in every bar those of the first bar go round.
    const bar = barTicks(pattern.meter);
    const first = all.filter(
      (s) => s.from + pattern.start < (Math.floor(((all[0]?.from ?? 0) + pattern.start) / bar) + 1) * bar,
    );
    return looped(Math.min(...first.map((s) => s.from)), Math.max(...first.map((s) => s.until)), pick, at);
  }
  const there = places(pick, pattern);
  if (there === null || isWrong(there)) return null;
  const ticks = there.ways[0] ?? [];
  return ticks.length === 0 ? null : looped(Math.min(...ticks), Math.max(...ticks) + pattern.grid, pick, at);
}

function looped(from: number, until: number, { said }: Pick, at?: number): Playing {
  return {
    order: { kind: 'loop', from: Math.max(0, from), until, at: at ?? null },
    says: `Loop ${said}${at === undefined ? '' : `, at ${at}`}`,
  };
}

function swing(v: Values, percent: number): Playing | null {
  const grid = v['grid'] as number | undefined;
  const on = grid === GRID.sixteenths ? ('16ths' as const) : ('eighths' as const);
  if (percent < 50 || percent > 75 || (grid !== undefined && grid !== GRID.sixteenths && grid !== GRID.eighths))
    return null;
  return { order: { kind: 'swing', on, ratio: percent / 100 }, says: `Swing ${on} by ${percent}%` };
}

/** Whether nothing but a piece is named, to the end of the line. */
const isPieceTo =
  (end: number) =>
  (f: { readonly end: number; readonly value: unknown }): boolean => {
    const { voices, limb, levels, counts, order } = f.value as Pick;
    return f.end === end && voices !== undefined && !limb && !levels && !counts && !order;
  };

/** Lines that are for the player, though nothing can be done about them here. */
const ELSEWHERE: readonly RegExp[] = [
  /\b(?:(?<!rim[ -])click|metronome|bpm|tempo|count-in)\b|^(?:turn the )?volume\b/,
  /\b(?:swing|swung|shuffle|shuffled)\b/,
  /^(?:loop|loop it|loop that)(?: please)?$/,
];

/** A line that is for the player, with what it asks for; null for any other. */
export function playingLine(tokens: readonly Token[], raw: string, scene: OrderContext): Playing | null {
  const named = /^(?:keep|save) (?:it )?as (?:new )?(.{1,120})$/i.exec(raw.trim());
  if (named?.[1]) return { order: { kind: 'keep', name: named[1].trim() }, says: `Keep it as “${named[1].trim()}”` };
  const last = tokens.at(-1)?.word === 'please' ? tokens.length - 1 : tokens.length;
  for (const { say, mean } of TEMPLATES)
    for (const t of say)
      for (const m of t.fits(tokens, 0, SLOTS)) {
        const meant = m.end === last ? mean(m.values, scene) : null;
        if (meant) return meant;
      }
  const asked = /^(?:find|search for|search|look for|show me) (.{1,200})$/i.exec(raw.trim());
  if (asked?.[1]) return ask(asked[1].trim());
  const line = tokens.map((t) => t.word).join(' ');
  // A piece that is muted is still written.
  const piece = /^(?:mute|silence|unmute|without) /.test(line)
    ? SLOTS['pick']?.(tokens, 1).find(isPieceTo(last))
    : null;
  if (piece) return muted((piece.value as Pick).voices ?? [], line.startsWith('unmute'));
  return ELSEWHERE.some((l) => l.test(line))
    ? { order: null, says: 'Click, tempo, looping and swing are set in the bar below.' }
    : null;
}
