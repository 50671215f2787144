import { CLICK_KINDS, type ClickKind } from '@core/playback';
import { choicesOf } from '../widgets/choice';

/** The click's names, as they stand in a list. */
const CLICK_WORDS: Readonly<Record<ClickKind, string>> = Object.freeze({
  beats: 'beats',
  subdivision: 'every subdivision',
  'off-beats': 'off-beats',
  'two-and-four': '2 and 4',
  bar: 'the 1 only',
  none: 'off',
});

/** What the click may mark, to choose from. */
export const CLICK_CHOICES = choicesOf(CLICK_KINDS, (kind) => CLICK_WORDS[kind]);
