import type { Hand } from '../stroke';

/** Ways of finding a sticking, all offered side by side. */
export const STICKING_SCHOOLS = ['alternating', 'doubles', 'lead hand', 'paradiddle-like'] as const;
export type StickingSchool = (typeof STICKING_SCHOOLS)[number];

export const SCHOOL_WORDS: Readonly<Record<StickingSchool, string>> = Object.freeze({
  alternating: 'Strict singles: the hands take turns.',
  doubles: 'Pairs where the speed asks for them, singles where there is time.',
  'lead hand': 'One hand takes the beats and the accents, the other fills in.',
  'paradiddle-like': 'One hand keeps the accents; singles and doubles mix to bring it there.',
});

/** What one stroke looks like to a school. */
export interface Preference {
  readonly hand: Hand;
  readonly leads: Hand;
  /** Which hand-stroke in a row by this hand: 1 for the first after the other hand. */
  readonly run: number;
  /** How many the run before had that this stroke ended; 0 when it ended none. */
  readonly ended: number;
  readonly accent: boolean;
  readonly downbeat: boolean;
  /** Slot from the bar line; odd ones are the other hand's in natural sticking. */
  readonly slot: number;
  /** Whether the hand stroke before is nearer than one hand keeps up singles. */
  readonly fast: boolean;
}

/**
 * What a school would rather not have, as a cost in the solver's units: about 1 for a matter of taste, 5 for what it
 * stands for, 20 for what it forbids.
 */
export function preferenceCost(school: StickingSchool, p: Preference): number {
  const other = p.hand !== p.leads;
  switch (school) {
    case 'alternating':
      return p.run > 1 ? 20 : 0;
    case 'doubles':
      // A lone single in a fast place breaks the pairs; a double in a slow one is not called for.
      return (p.fast && p.ended === 1 ? 8 : 0) + (!p.fast && p.run > 1 ? 2 : 0);
    case 'lead hand':
      return (
        (other && p.downbeat ? 5 : 0) + (other && p.accent ? 5 : 0) + (other === Math.abs(p.slot % 2) < 0.5 ? 1.5 : 0)
      );
    case 'paradiddle-like':
      return (p.accent && other ? 8 : 0) + (p.run > 2 ? 6 : 0) + (p.run === 2 ? 0.5 : 0);
  }
}
