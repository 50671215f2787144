import { listed } from '../../base';
import { USUAL_SCHOOLS, type Schools } from '../../time';
import { countingOf, type Pattern } from '../../pattern';
import { readSelection, select, selectionWords, type Selection } from '../../selection';
import { chosen } from '../grammar/choose';
import { selectionOf } from '../grammar/said-select';
import { isWrong } from '../grammar/stretches';
import { LEXIS } from './lexis';
import { pickAt } from '../grammar/pick';
import { tokensOf } from '../lexicon/tokens';

/** Strokes that were chosen by words; or why they were not, in a sentence. */
export type ChosenStrokes =
  { readonly ok: true; readonly select: Selection } | { readonly ok: false; readonly words: string };

const refused = (words: string): ChosenStrokes => ({ ok: false, words });

/**
 * Reads which strokes of a phrase are meant, in the same words as the box: "right accents on 2", "the last two", "bar
 * 2: 3e". What a selection prints is read back to it. Where words could mean several things, none is taken.
 * @example
 * readChoice('the right hand', patternOfText(parseStrokeText('R L K').value, meter(3, 4), GRID.quarters)) // => { ok: true, select: { is: 'limb', limbs: ['R'] } }
 * readChoice('purple', patternOfText(parseStrokeText('R').value, meter(4, 4), GRID.quarters)).words // => "“purple” is not understood here. Try: right accents on 2 and 4."
 */
export function readChoice(text: string, pattern: Pattern, schools: Schools = USUAL_SCHOOLS): ChosenStrokes {
  const line = text.trim();
  const exact = readSelection(line, { counting: countingOf(pattern, schools), start: pattern.start });
  if (exact) return found(exact, pattern);
  const tokens = tokensOf(line, LEXIS);
  const strange = tokens.filter((t) => !t.known);
  const picks = pickAt(tokens, 0).filter((f) => f.end === tokens.length);
  if (picks.length === 0) {
    return strange.length > 0
      ? refused(`“${listed(strange.map((t) => t.raw))}” is not understood here. Try: right accents on 2 and 4.`)
      : refused(`“${line}” is not understood here. Try: right accents on 2 and 4.`);
  }
  const ways = new Map<string, Selection>();
  let why = '';
  for (const { value } of picks) {
    const read = chosen(value, { pattern, them: null });
    if (isWrong(read)) why ||= read.why;
    else for (const own of read.ways) ways.set(own.join(), selectionOf(value, pattern, own));
  }
  const all = [...ways.values()];
  const [one, two] = all;
  if (!one) return refused(why || `There are no ${line} here.`);
  if (two)
    return refused(
      `This has ${all.length} meanings: ${all
        .slice(0, 3)
        .map((s) => selectionWords(s, pattern))
        .join('; or ')}.`,
    );
  return { ok: true, select: one };
}

function found(selection: Selection, pattern: Pattern): ChosenStrokes {
  return select(pattern, selection).length > 0
    ? { ok: true, select: selection }
    : refused(`There are no ${selectionWords(selection, pattern)} here.`);
}
