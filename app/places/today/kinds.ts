import type { BlockKind } from '@core/plan';

/** What each kind of block is called. */
export const KIND_WORDS: Readonly<Record<BlockKind, string>> = Object.freeze({
  'warm-up': 'Warm-up',
  keep: 'Refresh',
  rise: 'Faster',
  mend: 'Fix',
  new: 'New',
  play: 'Free play',
  break: 'Break',
});
