import { folded, tokensOf, type SlotReaders, type Token } from '../language';
import { ASK_LEXIS, ASK_RULES, askSlots, type Asks } from './ask-rules';
import type { Asked, AskContext } from './asked';

/** One thing that is asked for, with the words it was read from. */
export interface Condition {
  readonly words: string;
  /** What was typed, to be taken out of the box. */
  readonly typed: string;
  /** Whether a phrase has it. Facts that are not known yet have nothing. */
  readonly holds: (phrase: Asked) => boolean;
}

/** A question as it was understood: conditions, and words that are looked for in names, tags and notes. */
export interface Question {
  readonly conditions: readonly Condition[];
  readonly rest: readonly string[];
}

const FILLERS: ReadonlySet<string> = new Set(['a', 'an', 'the', 'and', 'in', 'of', 'with', 'has', 'all', 'my', '&']);

/** A question is read up to here; what is longer is none. */
const MOST_READ = 400;

/**
 * Reads a question. What is understood becomes conditions; the rest is looked for in names, tags and notes. Never an
 * error.
 * @example
 * readQuestion('half bar 16ths no toms rope', { now: 0, named: () => null }).conditions.map((c) => c.words) // => ['half a bar', '16ths', 'no toms']
 * readQuestion('half bar 16ths no toms rope', { now: 0, named: () => null }).rest // => ['rope']
 */
export function readQuestion(text: string, context: AskContext): Question {
  const line = text.slice(0, MOST_READ);
  const tokens = tokensOf(line, ASK_LEXIS);
  const slots = askSlots(context, line);
  const conditions: Condition[] = [];
  let rest = '';
  let from = 0;
  for (let at = 0; at < tokens.length;) {
    const found = asksAt(line, tokens, at, slots, context);
    if (!found) {
      at++;
      continue;
    }
    const [first, last] = [tokens[at]?.from ?? 0, tokens[found.end - 1]?.until ?? line.length];
    conditions.push({ ...found.asks, typed: line.slice(first, last) });
    rest += `${line.slice(from, first)} `;
    [at, from] = [found.end, last];
  }
  rest += line.slice(from);
  const words = rest.split(/[\s,]+/).filter((w) => w !== '' && !FILLERS.has(w.toLowerCase()));
  return { conditions, rest: words.map(folded) };
}

/** What is asked at a place of the line, by the rule that reads most of its words; null where nothing is. */
function asksAt(
  line: string,
  tokens: readonly Token[],
  at: number,
  slots: SlotReaders,
  context: AskContext,
): { readonly end: number; readonly asks: Asks } | null {
  // A part of a word, as "kick" of "kick-off", is none.
  if (/[^\s,]/.test(line[(tokens[at]?.from ?? 0) - 1] ?? '')) return null;
  const fits = ASK_RULES.flatMap(({ say, mean }) =>
    say.flatMap((t) => t.fits(tokens, at, slots)).map((m) => ({ ...m, mean })),
  ).filter((f) => !/[^\s,.!?]/.test(line[tokens[f.end - 1]?.until ?? 0] ?? ''));
  for (const { end, values, mean } of fits.sort((a, b) => b.end - a.end)) {
    const asks = mean(values, context);
    if (asks) return { end, asks };
  }
  return null;
}

/** A question's answer: which phrases, the best first, and how many are left after each condition. */
export interface Answer {
  readonly found: readonly number[];
  readonly leaves: readonly number[];
}

/**
 * Which phrases a question finds, as places in the list. A word in the name counts three times one elsewhere; of the
 * same weight they stay in the order they come in.
 */
export function answer(phrases: readonly Asked[], { conditions, rest }: Question): Answer {
  let left: readonly number[] = phrases.map((_, i) => i);
  const leaves: number[] = [];
  for (const { holds } of conditions) {
    left = left.filter((i) => {
      const p = phrases[i];
      return p !== undefined && holds(p);
    });
    leaves.push(left.length);
  }
  if (rest.length === 0) return { found: left, leaves };
  // It is asked at every key, of ten thousand: they are ranked without a thing made for each.
  const byRank: number[][] = [];
  for (const i of left) {
    const rank = rankOf(phrases[i]?.text ?? '', rest);
    if (rank > 0) (byRank[rank] ??= []).push(i);
  }
  return { found: byRank.reverse().flat(), leaves };
}

/** What a text weighs that begins with a name and a line break; nothing where one of the words is not in it. */
function rankOf(text: string, words: readonly string[]): number {
  let rank = 0;
  for (const word of words) {
    const at = text.indexOf(word);
    if (at < 0) return 0;
    const end = text.indexOf('\n');
    rank += end < 0 || at < end ? 3 : 1;
  }
  return rank;
}
