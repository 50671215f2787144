import { countWords, type Schools } from '@core/time';
import { LIMB_WORDS, VOICE } from '@core/stroke';
import { countOfStroke, type Pattern } from '@core/pattern';
import { selectionWords, type Selection } from '@core/selection';
import { inRange } from '@core/recipe';

/**
 * What stands at a place of a phrase, in words that are shown and heard by a screen reader: “bar 1, the e of 2, left
 * hand, ghost, snare”.
 */
export function placeWords(pattern: Pattern, at: number, schools: Schools): string {
  if (at >= pattern.length) return 'the end: strokes typed here make the phrase longer';
  const place = countWords(countOfStroke(pattern, at, schools), true);
  const strokes = inRange(pattern, at, at + 1).flatMap((i) => pattern.strokes[i] ?? []);
  if (strokes.length === 0) return `${place}, rest`;
  return `${place}, ${strokes.map((s) => [LIMB_WORDS[s.limb], s.ornament, s.level, VOICE[s.voice].name].filter(Boolean).join(', ')).join('; and ')}`;
}

/** How many strokes are chosen, and by which words when it was by words. */
export function chosenWords(many: number, selection: Selection | null, on: Pattern): string {
  const what = selection ? `: ${selectionWords(selection, on)}` : '';
  return `${many === 1 ? '1 stroke' : `${many} strokes`} chosen${what}`;
}
