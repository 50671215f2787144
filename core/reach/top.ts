import type { Ceiling } from './ceiling';
import type { Profile } from './profile';

/** Beyond this, in counted beats a minute, nobody plays: what breaks there first is no limit. */
export const NO_LIMIT = 400;

/**
 * A ceiling as it is told, in counted beats a minute; null where there is none, or none that matters.
 * @example
 * limitOf(544.2) // => null
 * limitOf(203.9) // => 203.9
 */
export function limitOf(bpm: number | null): number | null {
  return bpm === null || bpm >= NO_LIMIT ? null : bpm;
}

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
    }
  /** Clean tries of another phrase showed that the limbs can do more than was worked out. */
  | {
      readonly kind: 'learnt';
      readonly at: number;
      readonly name: string;
      readonly was: number;
      readonly by: 'estimate' | 'test';
    };

/** A ceiling with what other phrases showed, and which of them did. */
export interface Taught {
  readonly bpm: number;
  readonly name: string;
  readonly at: number;
}

/** The highest tempo, in counted beats a minute; null when nothing limits it. */
export interface Top {
  readonly bpm: number | null;
  readonly rests: Rests;
}

/**
 * The highest tempo a phrase can be played at, as far as is known: what was worked out, or, where clean tries of it or
 * of others went beyond it, what they showed. So it is never below what was played.
 * @example
 * topOf({ bpm: 73.4, estimate: true }, [], { bpm: 97, at: 5, how: 'measured' }).bpm // => 97
 * topOf({ bpm: 120.9, estimate: true }, [], { bpm: 97, at: 5, how: 'ear' }) // => { bpm: 120, rests: { kind: 'default' } }
 * topOf({ bpm: 73.4, estimate: true }, [], null, { bpm: 80.2, name: 'Rope', at: 5 }).bpm // => 80
 */
export function topOf(
  { bpm, estimate }: Pick<Ceiling, 'bpm' | 'estimate'>,
  measured: Profile['measured'],
  shown: { readonly bpm: number; readonly at: number; readonly how: 'measured' | 'ear' } | null,
  taught: Taught | null = null,
): Top {
  const limit = limitOf(bpm);
  const whole = limit === null ? null : Math.floor(limit);
  const by = estimate ? 'estimate' : 'test';
  const learnt = taught ? Math.floor(taught.bpm) : 0;
  if (whole !== null && shown && shown.bpm > whole && shown.bpm >= learnt)
    return { bpm: shown.bpm, rests: { kind: 'shown', at: shown.at, how: shown.how, was: whole, by } };
  if (whole !== null && taught && learnt > whole)
    return { bpm: learnt, rests: { kind: 'learnt', at: taught.at, name: taught.name, was: whole, by } };
  const at = Math.max(0, ...measured.map((m) => m.at));
  return { bpm: whole, rests: estimate || at === 0 ? { kind: 'default' } : { kind: 'test', at } };
}
