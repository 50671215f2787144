import { Type, type Static } from '@sinclair/typebox';

const bar = Type.Integer({ minimum: 1, maximum: 1e6 });

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

/** What a phrase is made of, in the order in which it is put together. */
export const INGREDIENTS = ['bones', 'time', 'ghosts', 'graces'] as const;
export type Ingredient = (typeof INGREDIENTS)[number];

/** Which part of the phrase a stage takes, as its facts; what it is called follows from them. Bars count from 1. */
export const StagePartSchema = Type.Union([
  Type.Object({ of: Type.Literal('half'), half: Type.Union([Type.Literal(1), Type.Literal(2)]) }),
  Type.Object({ of: Type.Literal('bars'), first: bar, last: bar }),
  /** Bars that follow each other, for the join between them. */
  Type.Object({ of: Type.Literal('join'), first: bar, last: bar }),
  /** Only what a bar does otherwise than one that is known. */
  Type.Object({ of: Type.Literal('difference'), bar, known: bar }),
  /** As the player asked for it. */
  Type.Object({ of: Type.Literal('asked'), said: Type.String({ minLength: 1, maxLength: 60 }) }),
  /** As far as the phrase has grown: so many beats, or so many notes, `each` more than before. */
  Type.Object({ of: Type.Literal('beats'), many: Type.Integer({ minimum: 1, maximum: 1e6 }) }),
  Type.Object({
    of: Type.Literal('notes'),
    many: Type.Integer({ minimum: 1, maximum: 1e6 }),
    each: Type.Integer({ minimum: 1, maximum: 1e6 }),
  }),
  /** As much of it as its ingredients go: its bones, then what keeps time, the ghosts, the grace strokes. */
  Type.Object({
    of: Type.Literal('ingredients'),
    upTo: Type.Unsafe<Ingredient>({ type: 'string', enum: [...INGREDIENTS] }),
  }),
  /** A stage that was kept before its facts were, and whose words do not tell them. */
  Type.Object({
    of: Type.Literal('earlier'),
    title: Type.String({ maxLength: 120 }),
    why: Type.String({ maxLength: 300 }),
  }),
]);
export type StagePart = Static<typeof StagePartSchema>;

/** What tells one stage from another, and what it is called by. */
const mark = {
  id: Type.String({ minLength: 1, maxLength: 64 }),
  kind: Type.Unsafe<StageKind>({ type: 'string', enum: [...STAGE_KINDS] }),
  part: Type.Optional(StagePartSchema),
  /** Bars of time before the phrase, in context. */
  bars: Type.Optional(Type.Integer({ minimum: 1, maximum: 16 })),
  /** What comes out of time, in context. */
  family: Type.Optional(Type.Union([Type.Literal('fill'), Type.Literal('lick')])),
};

/** The stage of a try, as the log keeps it. */
export const StageMarkSchema = Type.Object(mark);
export type StageMark = Static<typeof StageMarkSchema>;

/** One stage of a drill: a part or a projection of the phrase that is taken up its ladder before the next. */
export const StageSchema = Type.Object({
  ...mark,
  /** Ticks of the phrase, for parts, growth and tight spots. */
  from: Type.Optional(Type.Integer({ minimum: 0, maximum: 1e9 })),
  until: Type.Optional(Type.Integer({ minimum: 1 })),
  /** The phrase of the shelf that keeps time in context, by its id; plain time when absent. */
  groove: Type.Optional(Type.String({ minLength: 1, maxLength: 80 })),
  /** Whether only the beginning of the ladder is climbed: what comes before the whole need not reach the goal. */
  short: Type.Boolean(),
});
export type Stage = Static<typeof StageSchema>;

/** A stage before it has its place in the drill. */
export type NewStage = Omit<Stage, 'id'>;

/**
 * What the log keeps of the stage of a try.
 * @example
 * markOf({ id: 'a', kind: 'bare', short: true }) // => { id: 'a', kind: 'bare' }
 */
export function markOf({ id, kind, part, bars, family }: Stage): StageMark {
  return { id, kind, ...(part && { part }), ...(bars && { bars }), ...(family && { family }) };
}
