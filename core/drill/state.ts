import { Type, type Static } from '@sinclair/typebox';
import { TEMPO } from '../time';
import { MOST_RUNGS } from './ladder';

const tempo = Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most });
const whole = (most: number) => Type.Integer({ minimum: 0, maximum: most });
const id = Type.String({ minLength: 1, maxLength: 80 });

/** What was asked for: from where to where, in which steps, and how many loops make a rung. */
export const DrillPlanSchema = Type.Object({
  start: tempo,
  goal: tempo,
  step: Type.Number({ minimum: 1, maximum: 100 }),
  loops: Type.Integer({ minimum: 1, maximum: 64 }),
});
export type DrillPlan = Static<typeof DrillPlanSchema>;

export type Verdict = 'clean' | 'messy';

/** One try at a rung: what the log keeps. `at` is milliseconds since 1970, when the try ended. */
export const AttemptSchema = Type.Object({
  id,
  phrase: id,
  at: Type.Integer({ minimum: 0 }),
  bpm: tempo,
  goal: tempo,
  loops: whole(10_000),
  seconds: Type.Number({ minimum: 0 }),
  verdict: Type.Union([Type.Literal('clean'), Type.Literal('messy')]),
});
export type Attempt = Static<typeof AttemptSchema>;

/**
 * ready: waiting for the player · count-in · playing: loops are counted · judging: enough loops were played and the player is asked; the loop goes on ·
 * done: the goal was clean · stopped: enough for today.
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
  /** When the present try began; null between tries. */
  tryBegan: Type.Union([Type.Integer({ minimum: 0 }), Type.Null()]),
  /** Every finished try of this drill: the stairs are drawn from it. */
  attempts: Type.Array(AttemptSchema, { maxItems: 5000 }),
});
export type DrillState = Static<typeof DrillStateSchema>;
