import { Type, type Static } from '@sinclair/typebox';
import { OffsetSchema } from '../base';
import { LIMBS, ORNAMENTS, VOICES, type Limb, type Ornament, type Voice } from '../stroke';
import { STAGE_KINDS, type StageKind } from './stage';

const limb = Type.Unsafe<Limb>({ type: 'string', enum: [...LIMBS] });
const times = Type.Integer({ minimum: 0, maximum: 100_000 });
const share = Type.Number({ minimum: 0, maximum: 1e6 });

/**
 * A place of the phrase as it is counted: bar, beat and syllable. No bar where the phrase has one only; `lead` where it
 * stands before the 1, in a pick-up.
 */
export const CountedPlaceSchema = Type.Object({
  bar: Type.Union([Type.Integer({ minimum: -1e6, maximum: 1e6 }), Type.Null()]),
  beat: Type.Integer({ minimum: 0, maximum: 1e6 }),
  syllable: Type.String({ maxLength: 24 }),
  lead: Type.Optional(Type.Literal(true)),
});
export type CountedPlace = Static<typeof CountedPlaceSchema>;

/** A stroke as it is named: who strikes what, where. */
const StrokeSchema = Type.Object({
  limb,
  voice: Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] }),
  place: CountedPlaceSchema,
});
export type NamedStroke = Static<typeof StrokeSchema>;

/** What kind of thing was to be fixed: what the log counts. */
export const FIX_KINDS = [
  'late',
  'uneven',
  'left-out',
  'extra',
  'heights',
  'ornament',
  'swing',
  'tempo',
  'part',
  'silence',
] as const;
export type FixKind = (typeof FIX_KINDS)[number];

const place = Type.Union([CountedPlaceSchema, Type.Null()]);

/**
 * One thing there was to fix in a try, as its facts: the log keeps it, and every sentence about it is made of it anew.
 * Times are milliseconds, above 0 late; a stroke is null where it cannot be named.
 */
export const FindingSchema = Type.Union([
  Type.Object({ kind: Type.Literal('silence') }),
  /** Only a part of the loop was played: one of its halves, or nothing from a place on, up to a place. */
  Type.Object({
    kind: Type.Literal('part'),
    half: Type.Union([Type.Literal(1), Type.Literal(2), Type.Null()]),
    from: place,
    until: place,
  }),
  Type.Object({ kind: Type.Literal('begins'), beats: share, stays: Type.Boolean() }),
  Type.Object({ kind: Type.Literal('stops'), loops: Type.Integer({ minimum: -1e6, maximum: 1e6 }) }),
  /** The tempo that was played, as a share of the click's. */
  Type.Object({ kind: Type.Literal('tempo'), share }),
  Type.Object({ kind: Type.Literal('shift'), off: OffsetSchema }),
  Type.Object({
    kind: Type.Literal('swing'),
    on: Type.Union([Type.Literal('8ths'), Type.Literal('16ths')]),
    /** Percent of a pair that its first takes, as it was played and as it was meant. */
    percent: share,
    meant: share,
    off: OffsetSchema,
    limb: Type.Union([limb, Type.Null()]),
  }),
  Type.Object({ kind: Type.Literal('off-beats'), off: OffsetSchema }),
  Type.Object({ kind: Type.Literal('left-out'), stroke: Type.Union([StrokeSchema, Type.Null()]), times }),
  Type.Object({
    kind: Type.Literal('grace'),
    ornament: Type.Unsafe<Ornament>({ type: 'string', enum: [...ORNAMENTS] }),
    place,
    times,
  }),
  Type.Object({ kind: Type.Literal('extra'), many: times }),
  /** A whole limb, or the one stroke that it has. */
  Type.Object({
    kind: Type.Literal('limb'),
    limb,
    off: OffsetSchema,
    stroke: Type.Union([StrokeSchema, Type.Null()]),
  }),
  Type.Object({
    kind: Type.Literal('place'),
    limb,
    off: OffsetSchema,
    stroke: Type.Union([StrokeSchema, Type.Null()]),
  }),
  /** Milliseconds a minute. */
  // Milliseconds a minute, and how long it was measured; takes of before do not tell.
  Type.Object({
    kind: Type.Literal('drift'),
    off: OffsetSchema,
    seconds: Type.Optional(Type.Number({ minimum: 0, maximum: 1e6 })),
  }),
  Type.Object({ kind: Type.Literal('uneven'), spread: share }),
  Type.Object({ kind: Type.Literal('hands'), softer: Type.Union([Type.Literal('R'), Type.Literal('L')]) }),
  /** How many times as loud as soft strokes loud ones were, and were meant. */
  Type.Object({ kind: Type.Literal('heights'), heard: share, meant: share }),
  /** One of which only the sentence was kept, before its facts were. */
  Type.Object({
    kind: Type.Literal('earlier'),
    words: Type.String({ maxLength: 300 }),
    fix: Type.Union([Type.Unsafe<FixKind>({ type: 'string', enum: [...FIX_KINDS] }), Type.Null()]),
    stage: Type.Union([Type.Unsafe<StageKind>({ type: 'string', enum: [...STAGE_KINDS] }), Type.Null()]),
  }),
]);
export type KeptFinding = Static<typeof FindingSchema>;

/**
 * Of what kind a fix is; null for a sentence of before that told none.
 * @example
 * fixKindOf({ kind: 'drift', off: 60 }) // => 'tempo'
 * fixKindOf({ kind: 'begins', beats: 1, stays: false }) // => 'late'
 */
export function fixKindOf(finding: KeptFinding): FixKind | null {
  switch (finding.kind) {
    case 'silence':
    case 'part':
    case 'tempo':
    case 'swing':
    case 'left-out':
    case 'extra':
    case 'uneven':
    case 'heights':
      return finding.kind;
    case 'stops':
      return 'part';
    case 'drift':
      return 'tempo';
    case 'grace':
      return 'ornament';
    case 'hands':
      return 'heights';
    case 'begins':
    case 'shift':
    case 'off-beats':
    case 'limb':
    case 'place':
      return 'late';
    case 'earlier':
      return finding.fix;
  }
}

/**
 * The kind of stage that mends it; null where none does. A foot that is late is heard best in the skeleton, a hand in
 * the bare sticking.
 * @example
 * remedyFor({ kind: 'limb', limb: 'K', off: 20, stroke: null }) // => 'skeleton'
 * remedyFor({ kind: 'limb', limb: 'L', off: 20, stroke: null }) // => 'bare'
 * remedyFor({ kind: 'silence' }) // => null
 */
export function remedyFor(finding: KeptFinding): StageKind | null {
  switch (finding.kind) {
    case 'silence':
      return null;
    case 'part':
    case 'stops':
    case 'left-out':
    case 'grace':
      return 'part';
    case 'begins':
    case 'shift':
    case 'swing':
    case 'off-beats':
    case 'extra':
    case 'uneven':
      return 'bare';
    case 'tempo':
    case 'drift':
      return 'steady-foot';
    case 'hands':
    case 'heights':
      return 'dynamics';
    case 'limb':
      return isFoot(finding.limb) ? 'skeleton' : 'bare';
    case 'place':
      return isFoot(finding.limb) ? 'skeleton' : 'part';
    case 'earlier':
      return finding.stage;
  }
}

const isFoot = (limb: Limb): boolean => limb !== 'R' && limb !== 'L';
