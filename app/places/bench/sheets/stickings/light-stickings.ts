import type { Sticking, Stickings } from '@core/sticking';

/**
 * Answers without their patterns: the letters of the limbs are all that is new in them, and a fraction of what would be
 * copied between threads.
 */
export interface LightStickings extends Omit<Stickings, 'found'> {
  readonly found: readonly Omit<Sticking, 'pattern'>[];
}

export function lightened({ found, unplayable, silent }: Stickings): LightStickings {
  return {
    unplayable,
    silent,
    found: found.map(({ school, limbs, cost, parts, load, fits, breaksAt, words }) => ({
      school,
      limbs,
      cost,
      parts,
      load,
      fits,
      breaksAt,
      words,
    })),
  };
}
