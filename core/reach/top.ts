import type { Ceiling } from './ceiling';
import type { Profile } from './profile';

/** What the highest tempo of a phrase rests on. Times are milliseconds since 1970. */
export type Rests =
  | { readonly kind: 'default' }
  | { readonly kind: 'test'; readonly at: number }
  /** A clean try showed more than was worked out: `was` is what that came to, by estimate or by test. */
  | {
      readonly kind: 'shown';
      readonly at: number;
      readonly how: 'measured' | 'ear';
      readonly was: number;
      readonly by: 'estimate' | 'test';
    };

/** The highest tempo, in counted beats a minute; null when nothing limits it. */
export interface Top {
  readonly bpm: number | null;
  readonly rests: Rests;
}

/**
 * The highest tempo a phrase can be played at, as far as is known: what was worked out, or, where a clean try went
 * beyond it, what was shown. So it is never below what was played.
 * @example
 * topOf({ bpm: 73.4, estimate: true }, [], { bpm: 97, at: 5, how: 'measured' }).bpm // => 97
 * topOf({ bpm: 120.9, estimate: true }, [], { bpm: 97, at: 5, how: 'ear' }) // => { bpm: 120, rests: { kind: 'default' } }
 */
export function topOf(
  { bpm, estimate }: Pick<Ceiling, 'bpm' | 'estimate'>,
  measured: Profile['measured'],
  shown: { readonly bpm: number; readonly at: number; readonly how: 'measured' | 'ear' } | null,
): Top {
  const whole = bpm === null ? null : Math.floor(bpm);
  if (whole !== null && shown && shown.bpm > whole) {
    const { at, how } = shown;
    return { bpm: shown.bpm, rests: { kind: 'shown', at, how, was: whole, by: estimate ? 'estimate' : 'test' } };
  }
  const at = Math.max(0, ...measured.map((m) => m.at));
  return { bpm: whole, rests: estimate || at === 0 ? { kind: 'default' } : { kind: 'test', at } };
}
