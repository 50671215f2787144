import { Type, type Static } from '@sinclair/typebox';

export const STAGE_KINDS = [
  'say',
  'bare',
  'dynamics',
  'skeleton',
  'no-time',
  'part',
  'grow',
  'voices',
  'whole',
  'context',
  'record',
  'every-beat',
  'steady-foot',
  'tight',
  'free',
] as const;
export type StageKind = (typeof STAGE_KINDS)[number];

/**
 * One stage of a drill: a part or a projection of the phrase that is taken up its ladder before the next, and why it is
 * there.
 */
export const StageSchema = Type.Object({
  id: Type.String({ minLength: 1, maxLength: 64 }),
  kind: Type.Unsafe<StageKind>({ type: 'string', enum: [...STAGE_KINDS] }),
  title: Type.String({ minLength: 1, maxLength: 120 }),
  why: Type.String({ maxLength: 300 }),
  /** Ticks of the phrase, for parts, growth and tight spots. */
  from: Type.Optional(Type.Integer({ minimum: 0, maximum: 1e9 })),
  until: Type.Optional(Type.Integer({ minimum: 1 })),
  /** Bars of time before the phrase, in context. */
  bars: Type.Optional(Type.Integer({ minimum: 1, maximum: 16 })),
  /** The phrase of the shelf that keeps time in context, by its id; plain time when absent. */
  groove: Type.Optional(Type.String({ minLength: 1, maxLength: 80 })),
  /** Whether only the beginning of the ladder is climbed: what comes before the whole need not reach the goal. */
  short: Type.Boolean(),
});
export type Stage = Static<typeof StageSchema>;
