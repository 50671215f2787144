import { count } from '../../base';
import { barsSpan } from '../../pattern';
import { build, offerOf, type MoveParams } from '../../recipe';
import type { BarSaid } from '../grammar/counts';
import type { ShelfPhrase } from '../lexicon/phrases';
import { acts, rule, wrong, type Rule, type Said, type RuleContext } from './rule';

type Join = MoveParams['join'];

function barsSaid(said: readonly BarSaid[], many: number): Join['own'] | null {
  const own = said.map((b) => (b === 'last' ? many : b));
  const from = Math.min(...own);
  // Bars that are joined follow each other.
  return own.every((b, i) => b === from + i) && from >= 1 && from + own.length - 1 <= many
    ? { from, bars: own.length }
    : null;
}

function joined(
  at: number,
  { phrases = [], built }: RuleContext,
  parts: { readonly own?: readonly BarSaid[] | undefined; readonly their?: readonly BarSaid[] | undefined },
): Said {
  const phrase = phrases[at];
  if (!phrase) return wrong('', 'That phrase is not on this shelf.');
  const { name, recipe } = phrase;
  if (!recipe) return wrong(name, `“${name}” is already joined from others, so it cannot be joined again.`);
  const spans = { own: barsSpan(built.pattern).bars, their: barsSpan(build(recipe).pattern).bars };
  const params: Join = { other: recipe, name: name.slice(0, 80) };
  for (const key of ['own', 'their'] as const) {
    const said = parts[key];
    if (!said) continue;
    const bars = barsSaid(said, spans[key]);
    const whose = key === 'own' ? 'This' : `“${name}”`;
    if (!bars) return wrong('bar', `${whose} has ${count(spans[key], 'bar')}; choose bars that follow each other.`);
    params[key] = bars;
  }
  return acts([offerOf('join', params)]);
}

const JOINED = '[join|joined to|joined with|joined by|followed by|answered by|answer with|join with|join to]';
const KEPT = '(keep|only) {bars:own} [of this] [,] [and] then';
const bars = (v: unknown): readonly BarSaid[] | undefined => v as readonly BarSaid[] | undefined;

/** Phrases of the shelf in a line: "…, then Cold rope", "then bar 2 of Cold rope", "keep bar 1, then Cold rope". */
export const JOIN_RULES: readonly Rule[] = [
  rule(
    [JOINED, `${KEPT} ${JOINED}`].flatMap((before) => [`${before} {phrase}`, `${before} {bars:their} of {phrase}`]),
    (v, scene) => joined(v['phrase'] as number, scene, { own: bars(v['own']), their: bars(v['their']) }),
  ),
  rule([`${JOINED} (a|1|one) bar of {phrase}`], (v, scene) => joined(v['phrase'] as number, scene, { their: [1] })),
];

const PARTS = '(?:bar (\\d+)|bars (\\d+) to (\\d+))';
const PRINTED = new RegExp(`^(?:Keep ${PARTS} of this, then join|Join) (?:${PARTS} of )?“(.*)”$`);
const PRINTED_ALONE = new RegExp(
  `^(?:(?:Bar|bar) (\\d+) of |(?:Bars|bars) (\\d+) to (\\d+) of )?“(.*)” in place of this$`,
);

/** What the card of a joined phrase says, read back; null for other words, and where no phrase is called so. */
export function readJoin(sentence: string, phrases: readonly ShelfPhrase[]): Join | null {
  const alone = PRINTED_ALONE.exec(sentence);
  const found = alone ? [alone[0], undefined, undefined, undefined, ...alone.slice(1)] : PRINTED.exec(sentence);
  if (!found) return null;
  const part = (one?: string, from?: string, to?: string): Join['own'] =>
    one !== undefined
      ? { from: Number(one), bars: 1 }
      : from !== undefined
        ? { from: Number(from), bars: Number(to) - Number(from) + 1 }
        : undefined;
  const [, a, b, c, d, e, f, name = ''] = found;
  const phrase = phrases.find((p) => p.name.slice(0, 80) === name);
  const [own, their] = [part(a, b, c), part(d, e, f)];
  return phrase?.recipe
    ? {
        other: phrase.recipe,
        name,
        ...(own ? { own } : {}),
        ...(their ? { their } : {}),
        ...(alone ? { alone: true as const } : {}),
      }
    : null;
}
