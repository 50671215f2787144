import { Type, type Static } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../base';
import { STAGE_KINDS, type StageKind } from '../drill';
import { TEMPO } from '../time';
import { BLOCK_KINDS, PLAN_ORDERS, PLAN_PLACES, type BlockKind, type PlanOrder, type PlanPlace } from './block';

const day = Type.Integer({ minimum: 0, maximum: 84_005 });
const minutes = Type.Integer({ minimum: 0, maximum: 240 });
const blockId = Type.String({ minLength: 1, maxLength: 120 });
const tempo = Type.Union([Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most }), Type.Null()]);
const name = Type.String({ maxLength: 200 });

/** A block that is being played. */
export const RunningBlockSchema = Type.Object({
  id: blockId,
  kind: Type.Unsafe<BlockKind>({ type: 'string', enum: [...BLOCK_KINDS] }),
  phrase: Type.Union([idSchema(80), Type.Null()]),
  name,
  bring: Type.Array(Type.Object({ id: idSchema(80), name }), { maxItems: 4 }),
  minutes,
  /** Minutes of it that come later, in other rounds or after a break. */
  rest: minutes,
  from: tempo,
  to: tempo,
  stage: Type.Union([Type.Unsafe<StageKind>({ type: 'string', enum: [...STAGE_KINDS] }), Type.Null()]),
  began: TimeSchema,
});
export type RunningBlock = Static<typeof RunningBlockSchema>;

/** What the player wishes of a day, and how far it has come: a closed tab goes on from it. */
export const TodaySchema = Type.Object({
  day,
  minutes: Type.Integer({ minimum: 3, maximum: 240 }),
  place: Type.Unsafe<PlanPlace>({ type: 'string', enum: [...PLAN_PLACES] }),
  order: Type.Unsafe<PlanOrder>({ type: 'string', enum: [...PLAN_ORDERS] }),
  held: Type.Array(Type.Object({ id: blockId, minutes }), { maxItems: 60 }),
  dropped: Type.Array(blockId, { maxItems: 300 }),
  arranged: Type.Array(blockId, { maxItems: 120 }),
  // `played`: how much of its minutes something was played; absent where nothing tells.
  done: Type.Array(Type.Object({ id: blockId, minutes, played: Type.Optional(minutes) }), { maxItems: 200 }),
  running: Type.Union([RunningBlockSchema, Type.Null()]),
  /** What was ready of phrases before they were played today. */
  before: Type.Array(Type.Object({ id: idSchema(80), ready: Type.Number({ minimum: 0, maximum: 10_000 }) }), {
    maxItems: 200,
  }),
});
export type Today = Static<typeof TodaySchema>;

/** What a day's practice was to be, in minutes, by the day's number, and what was played freely, in seconds. */
export const PlanDaysSchema = Type.Record(
  Type.String({ pattern: '^[0-9]{1,5}$' }),
  Type.Object({ planned: minutes, free: Type.Integer({ minimum: 0, maximum: 86_400 }) }),
);
export type PlanDays = Static<typeof PlanDaysSchema>;
