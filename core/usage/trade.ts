import { count, listed } from '../base';
import { barTicks, ticks, type Meter } from '../time';
import { tidy, untilLanding, type Pattern } from '../pattern';
import type { Stroke } from '../stroke';
import type { Played } from './ground';
import { likenessAt, playedOn, shareAlike } from './likeness';
import type { UsablePhrase } from './profile';
import type { Came } from './recognise';

/** Bars that the machine plays in a trade: phrases of the shelf, one after the other. */
export interface Trade {
  readonly pattern: Pattern;
  /** The phrases in it, in order, each once. */
  readonly ids: readonly string[];
}

/** How an answer is asked for. */
export const TRADE_ASKED = ['anything', 'the same', 'another', 'one change'] as const;
export type TradeAsked = (typeof TRADE_ASKED)[number];

/**
 * Bars made of phrases of the shelf on one subdivision, one after the other, wherever in the bar each is written; what
 * is left over stays silent. Null where no phrase goes into so many bars.
 * @param roll gives numbers from 0 to below 1
 * @example
 * tradeOf([], 2, meter(4, 4), () => 0) // => null
 */
export function tradeOf(shelf: readonly UsablePhrase[], bars: number, meter: Meter, roll: () => number): Trade | null {
  const bar = barTicks(meter);
  const long = bars * bar;
  const some = shelf
    .map((one) => ({ id: one.id, own: untilLanding(one.pattern) }))
    .filter(({ own }) => own.strokes.length > 0 && own.length > 0 && bar % own.grid === 0 && own.length <= long);
  const pick = <T>(all: readonly T[]): T | null => all[Math.floor(roll() * all.length)] ?? null;
  const first = pick(some);
  if (!first) return null;
  const alike = some.filter(({ own }) => own.grid === first.own.grid && own.feel.kind === first.own.feel.kind);
  const strokes: Stroke[] = [];
  const ids: string[] = [];
  let one: (typeof some)[number] | null = first;
  for (let at = 0; at < long && one;) {
    const { id, own }: (typeof some)[number] = one;
    if (!ids.includes(id)) ids.push(id);
    for (const s of own.strokes) strokes.push({ ...s, at: ticks(at + s.at) });
    at += own.length;
    const left: number = long - at;
    // What was played once may come again: half of the time it does, where it goes in.
    const again: boolean = own.length <= left && roll() < 0.5;
    one = again ? one : pick(alike.filter((o) => o.own.length <= left));
  }
  const { grid, feel } = first.own;
  return {
    ids,
    pattern: tidy({ meter, grid, feel, start: ticks(0), length: ticks(long), strokes, groups: [] }),
  };
}

/** What came back in a trade. */
export type Answered =
  | { readonly kind: 'nothing' }
  | { readonly kind: 'the same' }
  /** Nearly what was sent: strokes that were left out and put in. */
  | { readonly kind: 'one change'; readonly missing: number; readonly extra: number; readonly bars: readonly number[] }
  | { readonly kind: 'another'; readonly ids: readonly string[] }
  | { readonly kind: 'own'; readonly strokes: number };

const SAME = 0.94;
const CHANGED = 0.7;

/**
 * What came back of what was sent, in the bars behind `from`. What is nearly the same is told by the bars that differ,
 * from 1; what is another phrase of the shelf by its name; all else is the player's own.
 * @param came what was recognised in all that was played
 */
export function answerTo(trade: Trade, played: Played, from: number, came: readonly Came[]): Answered {
  const { pattern } = trade;
  const lattice = playedOn(played, pattern);
  const until = from + pattern.length;
  const many = (lattice?.slots ?? []).reduce(
    (n, hits, i) => (i * pattern.grid >= from && i * pattern.grid < until ? n + hits.length : n),
    0,
  );
  if (!lattice || many < 3) return { kind: 'nothing' };
  const like = likenessAt(pattern, lattice, from);
  const share = shareAlike(like);
  if (share >= SAME) return { kind: 'the same' };
  if (share >= CHANGED) {
    const bar = barTicks(pattern.meter);
    const bars = Array.from({ length: Math.ceil(pattern.length / bar) }, (_, b) => b).filter((b) => {
      const part = {
        ...pattern,
        length: ticks(Math.min(bar, pattern.length - b * bar)),
        strokes: pattern.strokes
          .filter((s) => s.at >= b * bar && s.at < (b + 1) * bar)
          .map((s) => ({ ...s, at: ticks(s.at - b * bar) })),
      };
      const { missing, extra } = likenessAt(part, lattice, from + b * bar);
      return missing + extra > 0;
    });
    return { kind: 'one change', missing: like.missing, extra: like.extra, bars: bars.map((b) => b + 1) };
  }
  const here = came.filter((c) => c.from < until && c.until > from);
  const ids = [...new Set(here.map((c) => c.id))];
  if (ids.length > 0) return { kind: 'another', ids };
  return { kind: 'own', strokes: many };
}

/**
 * What came back, in words; where something else was asked, that too.
 * @param nameOf the name of a phrase of the shelf
 * @example
 * answeredWords({ kind: 'the same' }, 'another', () => 'Net') // => "The same came back; another was asked."
 * answeredWords({ kind: 'another', ids: ['n'] }, 'anything', () => 'Net') // => "Net came back."
 * answeredWords({ kind: 'own', strokes: 12 }, 'anything', () => '') // => "Your own: 12 strokes, none of the shelf."
 */
export function answeredWords(answer: Answered, asked: TradeAsked, nameOf: (id: string) => string): string {
  const wanted = asked === 'anything' || asked === answer.kind || answer.kind === 'nothing';
  const behind = wanted ? '.' : `; ${asked} was asked.`;
  switch (answer.kind) {
    case 'nothing':
      return 'Nothing came back.';
    case 'the same':
      return `The same came back${behind}`;
    case 'one change': {
      const parts = [
        answer.missing > 0 ? `${count(answer.missing, 'stroke')} left out` : '',
        answer.extra > 0 ? `${count(answer.extra, 'stroke')} put in` : '',
        answer.missing + answer.extra === 0 ? 'other accents' : '',
      ].filter((p) => p !== '');
      const where =
        answer.bars.length === 0
          ? ''
          : `, in ${answer.bars.length === 1 ? 'bar' : 'bars'} ${listed(answer.bars.map(String))}`;
      return `Nearly the same: ${listed(parts)}${where}${behind}`;
    }
    case 'another':
      return `${listed(answer.ids.map(nameOf))} came back${behind}`;
    case 'own':
      return `Your own: ${count(answer.strokes, 'stroke')}, none of the shelf${behind}`;
  }
}
