import { Type, type Static } from '@sinclair/typebox';
import { TimeSchema } from '../base';
import { isHand, LIMBS, otherHand, VOICES, type Hand, type Limb, type Voice } from '../stroke';
import type { Fitts } from './travel';

/** What is timed: strokes one by one, or in pairs with a breath between. */
export const STROKE_KINDS = ['singles', 'doubles'] as const;
export type StrokeKind = (typeof STROKE_KINDS)[number];

/** Bounds of a believable rate, in strokes a second: slower is no test, faster than anybody has been timed at. */
export const RATE_LIMITS = Object.freeze({ least: 0.5, most: 25 });

const Rate = Type.Number({ minimum: RATE_LIMITS.least, maximum: RATE_LIMITS.most });
const Rates = Type.Object({ singles: Rate, doubles: Rate });

/** A way that was timed: one hand to and fro between two places, with its mean difficulty in bits. */
const WayTimeSchema = Type.Object({
  hand: Type.Unsafe<Hand>({ type: 'string', enum: ['R', 'L'] }),
  from: Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] }),
  to: Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] }),
  /** cm; bits; seconds of one way. */
  distance: Type.Number({ minimum: 0, maximum: 1000 }),
  bits: Type.Number({ minimum: 0, maximum: 8 }),
  seconds: Type.Number({ minimum: 0.02, maximum: 5 }),
  at: TimeSchema,
});
export type WayTime = Static<typeof WayTimeSchema>;

/**
 * How fast one drummer's limbs are, in strokes a second: singles kept up, and the two strokes of a double. `measured`
 * says when a rate was last timed (milliseconds since 1970); what was never timed is a default and makes the ceiling an
 * estimate.
 */
export const ProfileSchema = Type.Object({
  leads: Type.Union([Type.Literal('R'), Type.Literal('L')]),
  leadsFoot: Type.Union([Type.Literal('right foot'), Type.Literal('left foot')]),
  rates: Type.Object({ R: Rates, L: Rates, K: Rates, J: Rates, H: Rates }),
  measured: Type.Array(
    Type.Object({
      limb: Type.Unsafe<Limb>({ type: 'string', enum: [...LIMBS] }),
      kind: Type.Unsafe<StrokeKind>({ type: 'string', enum: [...STROKE_KINDS] }),
      at: TimeSchema,
    }),
    { maxItems: 10 },
  ),
  ways: Type.Optional(Type.Array(WayTimeSchema, { maxItems: 24 })),
});
export type Profile = Static<typeof ProfileSchema>;

/** What a player can do: their profile, with the constants of their ways where more is known than the tests say. */
export interface Able extends Profile {
  readonly fitts?: Fitts;
}

/**
 * Rates before any test. Hands: practised drummers tap 6 to 8 strokes a second with one wrist, the other hand about a
 * tenth slower (Fujii et al. 2009, Tapping performance and underlying wrist muscle activity; Peters 1980, Why the
 * preferred hand taps more quickly). The second stroke of a double is a rebound: it comes in 65–75 ms, and so never
 * slower than two single strokes of both hands. Feet: 5 to 7 a second at the ankle, the second of a double faster by
 * the same rebound; the foot that plays less a tenth slower. Fitted so that what working drummers do without heroics
 * can be played and what nobody does cannot (`core/testing/feats.json`).
 */
export const USUAL_PROFILE: Profile = Object.freeze({
  leads: 'R',
  leadsFoot: 'right foot',
  rates: {
    R: { singles: 7.5, doubles: 15 },
    L: { singles: 6.8, doubles: 14 },
    K: { singles: 5.8, doubles: 9.2 },
    J: { singles: 5.2, doubles: 8.2 },
    H: { singles: 5.2, doubles: 7.6 },
  },
  measured: [],
});

/** Whether every rate of some limbs has been timed. */
export function isMeasured(profile: Profile, limbs: readonly Limb[]): boolean {
  return limbs.every((limb) =>
    STROKE_KINDS.some((kind) => profile.measured.some((m) => m.limb === limb && m.kind === kind)),
  );
}

/**
 * How fast the two strokes of a double follow each other, in strokes a second: as timed, else as is usual, but never
 * slower than single strokes of both hands would: who has fast singles was not timed on doubles yet.
 */
export function doublesOf(profile: Profile, limb: Limb): number {
  const { singles, doubles } = profile.rates[limb];
  const timed = profile.measured.some((m) => m.limb === limb && m.kind === 'doubles');
  return timed || !isHand(limb) ? doubles : Math.max(doubles, 2 * singles);
}

/** A profile with one rate measured at a time. */
export function withRate(profile: Profile, limb: Limb, kind: StrokeKind, rate: number, at: number): Profile {
  const held = Math.max(RATE_LIMITS.least, Math.min(RATE_LIMITS.most, rate));
  return {
    ...profile,
    rates: { ...profile.rates, [limb]: { ...profile.rates[limb], [kind]: held } },
    measured: [...profile.measured.filter((m) => m.limb !== limb || m.kind !== kind), { limb, kind, at }],
  };
}

/** The profile of the same drummer with the hands changed. Twice is the profile itself. */
export function mirroredProfile(profile: Profile): Profile {
  const { R, L } = profile.rates;
  return {
    ...profile,
    leads: profile.leads === 'R' ? 'L' : 'R',
    rates: { ...profile.rates, R: L, L: R },
    measured: profile.measured.map((m) => ({ ...m, limb: otherHand(m.limb) })),
    ...(profile.ways ? { ways: profile.ways.map((w) => ({ ...w, hand: otherHand(w.hand) as Hand })) } : {}),
  };
}
