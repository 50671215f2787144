import type { ClickKind } from '@core/playback';

/** The click's names, as they stand in a list. */
export const CLICK_WORDS: Readonly<Record<ClickKind, string>> = Object.freeze({
  beats: 'beats',
  subdivision: 'every slot',
  'off-beats': 'off-beats',
  'two-and-four': '2 and 4',
  bar: 'bar only',
  none: 'off',
});
