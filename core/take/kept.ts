import { Type, type Static } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../base';
import { TEMPO } from '../time';
import { LIMBS, VOICES, type Limb, type Voice } from '../stroke';
import { StageSchema } from '../drill';
import { RenditionRecordSchema } from '../rendition';

const id = idSchema(80);

export const HitSchema = Type.Object({
  seconds: Type.Number({ minimum: -1e6, maximum: 1e6 }),
  limb: Type.Union([Type.Unsafe<Limb>({ type: 'string', enum: [...LIMBS] }), Type.Null()]),
  voice: Type.Union([Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] }), Type.Null()]),
  velocity: Type.Union([Type.Number({ minimum: 0, maximum: 127 }), Type.Null()]),
});

/**
 * What was struck in one try, and all that decides what was meant, so that it can be looked at and heard again as it
 * was that day. Hits are in seconds from the first bar line.
 */
export const TakeSchema = Type.Object({
  /** The id of its attempt. */
  id,
  phrase: id,
  at: TimeSchema,
  bpm: Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most }),
  stage: Type.Union([StageSchema, Type.Null()]),
  hits: Type.Array(HitSchema, { maxItems: 100_000 }),
  /** Absent in takes from before it was kept: they are laid on the phrase as it stands now. */
  meant: Type.Optional(RenditionRecordSchema),
});
export type KeptTake = Static<typeof TakeSchema>;
