import { Type, type Static } from '@sinclair/typebox';
import {
  LEVELS,
  LIMBS,
  ORNAMENTS,
  SAME_HAND,
  VOICES,
  type Grace,
  type Level,
  type Limb,
  type Ornament,
  type Voice,
} from '../../stroke';

/** What of a stroke a hand edit may be about. */
export const MATTERS = ['level', 'voice', 'ornament'] as const;
export type Matter = (typeof MATTERS)[number];

/** One hand edit: what a limb does at a tick of the pattern; `null` for nothing. */
export const EditSchema = Type.Object({
  at: Type.Integer({ minimum: 0, maximum: 1e9 }),
  limb: Type.Unsafe<Limb>({ type: 'string', enum: [...LIMBS] }),
  stroke: Type.Union([
    Type.Null(),
    Type.Object({
      level: Type.Unsafe<Level>({ type: 'string', enum: [...LEVELS] }),
      voice: Type.Optional(Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] })),
      ornament: Type.Optional(Type.Unsafe<Ornament>({ type: 'string', enum: [...ORNAMENTS] })),
      /** What the grace strokes strike, or that the same hand plays them. */
      grace: Type.Optional(Type.Unsafe<Grace>({ type: 'string', enum: [...VOICES, SAME_HAND] })),
    }),
  ]),
  /** Only this of the stroke that stands there is changed; absent: the stroke is written whole. */
  only: Type.Optional(Type.Unsafe<Matter>({ type: 'string', enum: [...MATTERS] })),
});
export type Edit = Static<typeof EditSchema>;
