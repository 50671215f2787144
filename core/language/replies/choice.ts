import { listed } from '../../base';
import { USUAL_SCHOOLS, type Schools } from '../../time';
import { countingOf, parseSelector, select, selectorWords, type Pattern, type Selector } from '../../pattern';
import { chosen } from '../grammar/choose';
import { selectorOf } from '../grammar/said-select';
import { isWrong } from '../grammar/stretches';
import { LEXIS } from '../rules/lexis';
import { pickAt } from '../grammar/pick';
import { tokensOf } from '../lexicon/tokens';

/** Strokes that were chosen by words; or why they were not, in a sentence. */
export type ChosenStrokes =
  { readonly ok: true; readonly select: Selector } | { readonly ok: false; readonly words: string };

const refused = (words: string): ChosenStrokes => ({ ok: false, words });

/**
 * Reads which strokes of a phrase are meant, in the same words as the box: "right accents on 2", "the last two", "bar
 * 2: 3e". What a selector prints is read back to it. Where words could mean several things, none is taken.
 * @example
 * readChoice('the right hand', patternOfText(parseStrokeText('R L K').value, meter(3, 4), GRID.quarters)) // => { ok: true, select: { limbs: ['R'] } }
 * readChoice('purple', patternOfText(parseStrokeText('R').value, meter(4, 4), GRID.quarters)).words // => "“purple” is not understood here. Try: right accents on 2 and 4."
 */
export function readChoice(text: string, pattern: Pattern, schools: Schools = USUAL_SCHOOLS): ChosenStrokes {
  const line = text.trim();
  const exact = parseSelector(line, countingOf(pattern, schools), pattern.start);
  if (exact.ok && selectorWords(exact.value, pattern) === line) return found(exact.value, pattern);
  const tokens = tokensOf(line, LEXIS);
  const strange = tokens.filter((t) => !t.known);
  const picks = pickAt(tokens, 0).filter((f) => f.end === tokens.length);
  if (picks.length === 0) {
    if (exact.ok) return found(exact.value, pattern);
    return strange.length > 0
      ? refused(`“${listed(strange.map((t) => t.raw))}” is not understood here. Try: right accents on 2 and 4.`)
      : refused(exact.problems[0].message);
  }
  const ways = new Map<string, Selector>();
  let why = '';
  for (const { value } of picks) {
    const read = chosen(value, { pattern, them: null });
    if (isWrong(read)) why ||= read.why;
    else for (const own of read.ways) ways.set(own.join(), selectorOf(value, pattern, own));
  }
  const all = [...ways.values()];
  const [one, two] = all;
  if (!one) return refused(why || `There are no ${line} here.`);
  if (two)
    return refused(
      `This has ${all.length} meanings: ${all
        .slice(0, 3)
        .map((s) => selectorWords(s, pattern))
        .join('; or ')}.`,
    );
  return { ok: true, select: one };
}

function found(selector: Selector, pattern: Pattern): ChosenStrokes {
  return select(pattern, selector).length > 0
    ? { ok: true, select: selector }
    : refused(`There are no ${selectorWords(selector, pattern)} here.`);
}
