import type { Limb } from '../stroke';
import type { Ticks } from '../time';

/** How much a finding matters: a sum to read, something to know, something to mend. */
export type Weight = 'sum' | 'note' | 'check' | 'stop';

export type FindingCode =
  | 'fit'
  | 'ends'
  | 'round'
  | 'cross'
  | 'lead'
  | 'linear'
  | 'unison'
  | 'balance'
  | 'density'
  | 'nothing-chosen'
  | 'does-not-fit'
  | 'not-whole'
  | 'too-long'
  | 'too-many'
  | 'bad-text'
  | 'bad-voice'
  | 'limb-busy'
  | 'no-source'
  | 'cut'
  | 'pickup'
  | 'revoiced'
  | 'ceiling';

/**
 * One thing Loop Shelf found out about a pattern: words for people, a code for programs, the ticks and limbs it speaks
 * of.
 */
export interface Finding {
  readonly code: FindingCode;
  readonly weight: Weight;
  readonly words: string;
  readonly at?: readonly Ticks[];
  readonly limbs?: readonly Limb[];
}
