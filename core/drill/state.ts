import { Type, type Static } from '@sinclair/typebox';
import { idSchema, OffsetSchema, TimeSchema } from '../base';
import { TEMPO } from '../time';
import { LIMBS, type Limb } from '../stroke';
import { LADDER_SCHOOLS, MOST_RUNGS, type LadderSchool } from './ladder';
import { FindingSchema } from './finding';
import { StageMarkSchema, StageSchema } from './stage';

const tempo = Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most });
const whole = (most: number) => Type.Integer({ minimum: 0, maximum: most });
const id = idSchema(80);

/** What was asked for: from where to where, in which steps, and how many loops make a rung. */
export const DrillPlanSchema = Type.Object({
  start: tempo,
  goal: tempo,
  step: Type.Number({ minimum: 1, maximum: 100 }),
  /** Clean loops in a row that pass a rung. */
  loops: Type.Integer({ minimum: 1, maximum: 64 }),
  /** How the rungs are laid; steps in bpm when absent. */
  ladder: Type.Optional(Type.Unsafe<LadderSchool>({ type: 'string', enum: [...LADDER_SCHOOLS] })),
  /** Tempos as the player typed them, in place of a ladder. */
  rungs: Type.Optional(Type.Array(tempo, { minItems: 1, maxItems: MOST_RUNGS })),
  /** How long a rung is held instead, in bars or minutes. */
  hold: Type.Optional(
    Type.Object({
      kind: Type.Union([Type.Literal('bars'), Type.Literal('minutes')]),
      n: Type.Number({ minimum: 0.5, maximum: 256 }),
    }),
  ),
  /** Whether each rung is held soft, then medium, then loud, before it goes on. */
  passes: Type.Optional(Type.Boolean()),
  /** By how many decibels accents must lie above ghosts for a try to be clean; not judged when absent. */
  heights: Type.Optional(Type.Number({ minimum: 1, maximum: 40 })),
  /** The stages in order; the whole phrase alone when absent. */
  stages: Type.Optional(Type.Array(StageSchema, { minItems: 1, maxItems: 40 })),
});
export type DrillPlan = Static<typeof DrillPlanSchema>;

export type Verdict = 'clean' | 'messy';

/** What a take measured, kept with the try. Times in milliseconds: above 0 is late. */
export const MeasuredSchema = Type.Object({
  mean: OffsetSchema,
  spread: Type.Number({ minimum: 0, maximum: 1e7 }),
  missed: whole(100_000),
  extra: whole(100_000),
  strokes: whole(100_000),
  drift: OffsetSchema,
  limbs: Type.Array(
    Type.Object({
      limb: Type.Unsafe<Limb>({ type: 'string', enum: [...LIMBS] }),
      mean: OffsetSchema,
      spread: Type.Number({ minimum: 0, maximum: 1e7 }),
    }),
    { maxItems: 5 },
  ),
  /** What there was to fix first; absent where there was nothing. */
  finding: Type.Optional(FindingSchema),
});
export type Measured = Static<typeof MeasuredSchema>;

/** One try at a rung: what the log keeps. `at` is milliseconds since 1970, when the try ended. */
export const AttemptSchema = Type.Object({
  id,
  phrase: id,
  at: TimeSchema,
  bpm: tempo,
  goal: tempo,
  loops: whole(10_000),
  seconds: Type.Number({ minimum: 0, maximum: 1e7 }),
  verdict: Type.Union([Type.Literal('clean'), Type.Literal('messy')]),
  /** Its stage; absent in drills without stages. */
  drilled: Type.Optional(StageMarkSchema),
  /** How loud it was meant. */
  dynamic: Type.Optional(Type.Union([Type.Literal('soft'), Type.Literal('medium'), Type.Literal('loud')])),
  measured: Type.Optional(MeasuredSchema),
  /** The player's own words about it. */
  note: Type.Optional(Type.String({ maxLength: 500 })),
  /** What heard it. */
  source: Type.Optional(Type.String({ maxLength: 40 })),
  /** When its verdict or note was corrected last, or it was taken out or put back: of two the later stands. */
  corrected: Type.Optional(TimeSchema),
  /** Taken out of the log. It is remembered, so that another device does not bring it back. */
  off: Type.Optional(Type.Literal(true)),
});
export type Attempt = Static<typeof AttemptSchema>;

/**
 * ready: waiting for the player · count-in · playing: loops are counted · judging: enough loops were played and the
 * player is asked; the loop goes on · done: the goal was clean · stopped: enough for today.
 */
export type Phase = 'ready' | 'count-in' | 'playing' | 'judging' | 'done' | 'stopped';
const PHASES: readonly Phase[] = ['ready', 'count-in', 'playing', 'judging', 'done', 'stopped'];

/** A drill at any moment, plain enough to be stored as it is: a closed tab resumes from it. */
export const DrillStateSchema = Type.Object({
  id,
  phrase: id,
  plan: DrillPlanSchema,
  rungs: Type.Array(tempo, { minItems: 1, maxItems: MOST_RUNGS }),
  rung: whole(MOST_RUNGS),
  phase: Type.Unsafe<Phase>({ type: 'string', enum: [...PHASES] }),
  /** Loops played in this try. */
  loops: whole(10_000),
  /** Whether the player called this try clean before its last loop was over. */
  early: Type.Boolean(),
  /** Messy tries in a row on this rung. */
  messy: whole(2),
  /** Which stage of the plan, from 0. */
  stage: Type.Optional(whole(40)),
  /**
   * Stages whose last rung was clean, by their ids. Absent in drills from before: then those before the present one.
   */
  over: Type.Optional(Type.Array(Type.String({ minLength: 1, maxLength: 64 }), { maxItems: 40 })),
  /** Clean loops in a row, where loops are measured. */
  run: Type.Optional(whole(10_000)),
  /** Loops in a row that were not clean, where loops are measured. */
  off: Type.Optional(whole(10_000)),
  /** Whether the rung is kept although it passes. */
  stays: Type.Optional(Type.Boolean()),
  /** Which pass of the rung, where it is held at several loudnesses. */
  pass: Type.Optional(whole(2)),
  /** Where the stage that was broken off for a tight spot goes on. */
  back: Type.Optional(whole(MOST_RUNGS)),
  /** When the present try began; null between tries. */
  tryBegan: Type.Union([TimeSchema, Type.Null()]),
  /** When it was kept last. */
  at: Type.Optional(TimeSchema),
  /** Every finished try of this drill: the stairs are drawn from it. */
  attempts: Type.Array(AttemptSchema, { maxItems: 5000 }),
});
export type DrillState = Static<typeof DrillStateSchema>;
