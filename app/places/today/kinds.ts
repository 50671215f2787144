import type { BlockKind } from '@core/plan';
import type { Term } from '../../guide/terms';

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

/** Kinds whose names are words of ours. */
export const KIND_TERMS: Readonly<Partial<Record<BlockKind, Term>>> = Object.freeze({
  keep: 'refresh',
  rise: 'faster',
  mend: 'fix',
});
