import type { VariantKind } from '@core/variants';

/** What each kind of change is called. */
export const KIND_WORDS: Readonly<Record<VariantKind, string>> = Object.freeze({
  accents: 'accents',
  'accent shift': 'accents moved',
  voice: 'other pieces',
  'snare and kick': 'kick for snare',
  mirrored: 'hands swapped',
  displaced: 'displaced',
  grid: 'other subdivision',
  regrouped: 'regrouped',
});
