import { word } from './counts';
import { GENERIC, nouns, said } from './pick-nouns';
import { narrowed } from './pick-parts';
import type { Pick } from './picked';
import type { Found } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';

export { PICK_WORDS } from './pick-parts';
export type { Each, Order, Pick } from './picked';

/** What is said before a clause and holds for its strokes: "in bar 2", "from 3 on", "before the & of 4". */
export function scopesAt(tokens: readonly Token[], at: number): readonly Found<Partial<Pick>>[] {
  if (!/^(?:in|from|before|after|until|on|for)$/.test(word(tokens, at))) return [];
  return narrowed(tokens, { end: at, value: {} }, 0).filter((f) => f.end > at);
}

const readings = new WeakMap<readonly Token[], Map<number, readonly Found<Pick>[]>>();

/** "The second", and not of what. */
export const ORDINAL_ONLY = /^(?:the )?(?:first|second|third|fourth|last)$/i;

/** Strokes as they are said, from a place of the line on: every way they can be read. */
export function pickAt(tokens: readonly Token[], start: number): readonly Found<Pick>[] {
  const known = readings.get(tokens) ?? new Map<number, readonly Found<Pick>[]>();
  readings.set(tokens, known);
  const before = known.get(start);
  if (before) return before;
  // Guards against reading itself while it is read.
  known.set(start, []);
  const whole = nouns(tokens, start).flatMap((f) => narrowed(tokens, f, 0));
  const out: Found<Pick>[] = whole.map((f) => ({
    end: f.end,
    value: { base: null, ...f.value, said: said(tokens, start, f.end) },
  }));
  for (const f of [...out]) {
    let at = f.end;
    if (word(tokens, at) === ',') at++;
    const w = word(tokens, at);
    if (/^(?:except|but|other-than|apart-from|without)$/.test(w)) {
      let next = at + 1;
      if (/^(?:for|not|on)$/.test(word(tokens, next))) next++;
      const behind = word(tokens, at + 1) === 'not' ? at + 2 : at + 1;
      for (const s of scopesAt(tokens, behind)) {
        const words = { base: null, said: said(tokens, behind, s.end) };
        const except = [{ ...words, ...s.value }];
        out.push({ end: s.end, value: { ...f.value, except, said: said(tokens, start, s.end) } });
      }
      for (const e of pickAt(tokens, next))
        out.push({ end: e.end, value: { ...f.value, except: [e.value], said: said(tokens, start, e.end) } });
    }
  }
  for (const f of [...out]) {
    if (word(tokens, f.end) !== 'and' && word(tokens, f.end) !== 'or') continue;
    // What is said after "except" belongs to it.
    if (f.value.base !== null || f.value.except) continue;
    for (const { end, value } of pickAt(tokens, f.end + 1)) {
      // Counts that are listed are read as a list: "kicks on 2 and 4" is no kick on 2 and whatever is on 4.
      const listed =
        f.value.counts !== undefined && Object.keys(value).every((k) => /^(?:base|said|counts|except)$/.test(k));
      // "The first half … and the second" names another half, and no stroke.
      const bare = value.order?.kind === 'nth' && ORDINAL_ONLY.test(value.said) && f.value.order === undefined;
      if (value.base !== null || listed || bare) continue;
      const words = said(tokens, start, end);
      out.push({ end, value: { ...together(f.value, value), and: value, said: words } });
      // "Rights and lefts on 2": what narrows the last may narrow both.
      const both = narrowedToo(f.value, value);
      if (both) out.push({ end, value: { ...both, and: value, said: words } });
    }
  }
  const kept = distinct(out);
  known.set(start, kept);
  return kept;
}

/** "The first and third of each beat", "the first and third left": what is said behind the last holds for both. */
function together(first: Pick, { and: _, ...second }: Pick): Pick {
  const { base, order, said: words, ...rest } = first;
  const named = GENERIC.has(words.slice(words.lastIndexOf(' ') + 1).toLowerCase());
  const bare = base === null && !named && order?.kind === 'nth' && Object.keys(rest).length === 0;
  // "The second and fourth beat", "the first and third bar": both are beats, both are bars.
  const [count, ...counts] = second.counts ?? [];
  if (bare && !second.order && count?.as === 'beat' && count.beat !== null && counts.length === 0)
    return { ...second, counts: [{ ...count, beat: order.n }], said: words };
  if (bare && !second.order && !second.counts && second.bars?.length === 1)
    return { ...second, bars: [order.n], said: words };
  if (!bare || (second.order?.kind !== 'of' && second.order?.kind !== 'nth')) return first;
  return { ...second, order: second.order.kind === 'of' ? { ...second.order, which: order.n } : order, said: words };
}

/** The first with what narrows the second; null where the first has a place of its own, or the second has none. */
function narrowedToo(first: Pick, second: Pick): Pick | null {
  const where = ({ counts, bars, half, before, after, since, to, until, between }: Pick): Partial<Pick> =>
    JSON.parse(JSON.stringify({ counts, bars, half, before, after, since, to, until, between })) as Partial<Pick>;
  const own = Object.keys(where(first)).length > 0 || first.order !== undefined || first.grid !== undefined;
  const theirs = where(second);
  const named = second.limb ?? second.levels ?? second.voices ?? second.ornaments;
  return own || !named || Object.keys(theirs).length === 0 ? null : { ...first, ...theirs };
}

/** Two readings of the same words with the same parts are one. */
function distinct(found: readonly Found<Pick>[]): readonly Found<Pick>[] {
  const seen = new Set<string>();
  return found.filter((f) => {
    const key = `${f.end} ${JSON.stringify(f.value)}`;
    return !seen.has(key) && seen.add(key);
  });
}
