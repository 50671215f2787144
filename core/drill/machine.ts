import { checkedAt } from '../base';
import { ladder } from './ladder';
import { markOf, type Stage } from './stage';
import type { Attempt, DrillPlan, DrillState, Measured, Phase, Verdict } from './state';

/** What is told of a try beside its verdict. */
export interface TryFacts {
  readonly measured?: Measured;
  readonly source?: string;
  readonly dynamic?: 'soft' | 'medium' | 'loud';
}

/**
 * What can happen in a drill. Times are arguments: the machine has no clock. What may end a try brings the id that the
 * try gets then, one that no other try has or had: two tabs, or two devices, go on with the same drill.
 */
export type DrillEvent =
  | { readonly kind: 'start'; readonly at: number }
  | { readonly kind: 'counted-in'; readonly at: number }
  /** A loop was over; `clean` when it was measured, and `need` where the rung is held by bars or minutes. */
  | ({
      readonly kind: 'loop';
      readonly id: string;
      readonly at: number;
      readonly clean?: boolean;
      readonly need?: number;
    } & TryFacts)
  | ({ readonly kind: 'clean'; readonly id: string; readonly at: number } & TryFacts)
  | ({ readonly kind: 'messy'; readonly id: string; readonly at: number } & TryFacts)
  /** The rung is kept, or no longer kept, although it passes. */
  | { readonly kind: 'stay' }
  /** One rung down. */
  | { readonly kind: 'down' }
  /** A tight spot is taken out; the stage goes on after it. */
  | { readonly kind: 'isolate'; readonly stage: Stage }
  /** To another stage, by its place. */
  | { readonly kind: 'stage'; readonly to: number }
  | { readonly kind: 'pause' }
  | { readonly kind: 'stop' };

/** Two messy tries, and it goes one rung down. */
export const MESSY_BEFORE_DOWN = 2;

/** The same rung messy this often: the tight spot, or the end for today, is offered. */
export const FAILS_BEFORE_OFFER = 3;

/**
 * A measured try that is not clean after this many times its loops is a messy one, though there were clean ones among
 * them.
 */
const PATIENCE = 3;

/** Loops that are counted of one try. */
const MOST_LOOPS = 10_000;

/** The fewest loops in a row that must be off before a measured try is called messy: one may be a slip. */
const SLIPS = 2;

/**
 * The rungs of a stage: all of the ladder, or its beginning up to the middle; what is only said, or free, has the
 * first.
 */
export function stageRungs(plan: DrillPlan, stage: Stage | undefined): readonly number[] {
  const all = plan.rungs ?? ladder(plan.ladder ?? 'steps', plan.start, plan.goal, plan.step);
  if (stage?.kind === 'say' || stage?.kind === 'free') return all.slice(0, 1);
  if (!stage?.short || all.length < 3) return all;
  const top = all.findIndex((bpm) => bpm >= (plan.start + plan.goal) / 2);
  const short = [
    all[0] ?? plan.start,
    all[Math.max(1, Math.floor(top / 2))] ?? plan.start,
    all[Math.max(1, top)] ?? plan.goal,
  ];
  return [...new Set(short)];
}

/** A drill before its first count-in. */
export function newDrill(id: string, phrase: string, plan: DrillPlan): DrillState {
  const rungs = [...stageRungs(plan, plan.stages?.[0])];
  return {
    id,
    phrase,
    plan,
    rungs,
    rung: 0,
    phase: 'ready',
    loops: 0,
    early: false,
    messy: 0,
    tryBegan: null,
    attempts: [],
  };
}

/** The tempo of the present rung. */
export function drillTempo(state: DrillState): number {
  return state.rungs[state.rung] ?? state.plan.goal;
}

/** The loudnesses a rung is held at, one after the other, in a drill with passes. */
export const PASSES = ['soft', 'medium', 'loud'] as const;

/** How often each rung of a plan is held. */
export function drillPasses(plan: DrillPlan): number {
  return plan.passes ? PASSES.length : 1;
}

/** How loud this pass of the rung is meant; null in a drill without passes. */
export function drillPass(state: DrillState): (typeof PASSES)[number] | null {
  return state.plan.passes ? checkedAt(PASSES, state.pass ?? 0, 'pass') : null;
}

/** The present stage; undefined where the plan has none and the whole phrase is drilled. */
export function drillStage(state: DrillState): Stage | undefined {
  return state.plan.stages?.[state.stage ?? 0];
}

/** The ids of the stages that were played to their last rung. Those that were jumped over are none. */
export function stagesOver(state: DrillState): readonly string[] {
  return state.over ?? (state.plan.stages ?? []).slice(0, state.stage ?? 0).map((s) => s.id);
}

/** Whether the player is stuck on this rung, so that something else is to be offered. Nothing is ever forced. */
export function isStuck(state: DrillState): boolean {
  const bpm = drillTempo(state);
  const stage = drillStage(state)?.id;
  const here = state.attempts.filter((a) => a.bpm === bpm && a.drilled?.id === stage);
  const last = here.findLastIndex((a) => a.verdict === 'clean');
  return here.length - 1 - last >= FAILS_BEFORE_OFFER;
}

/**
 * The next state of a drill. A rung is left upwards only when its loops were played and the try was called clean, by
 * the player or by measuring that many clean loops in a row. A measured try is messy when as many loops in a row were
 * off, or three times as many were played; after two messy tries in a row it goes one rung down. Events that mean
 * nothing in a phase leave the state as it is, the same object.
 */
export function drillStep(state: DrillState, event: DrillEvent): DrillState {
  switch (event.kind) {
    case 'start':
      return state.phase === 'ready' || state.phase === 'stopped' ? begin(state, 'count-in') : state;
    case 'counted-in':
      return state.phase === 'count-in' ? { ...state, phase: 'playing', tryBegan: event.at } : state;
    case 'loop':
      return looped(state, event);
    case 'clean':
      if (isFree(state)) return isRunning(state.phase) ? onward(state) : state;
      if (state.phase === 'playing') return { ...state, early: true };
      return state.phase === 'judging' ? passed(state, event) : state;
    case 'messy':
      if (isFree(state)) return state;
      return state.phase === 'playing' || state.phase === 'judging' ? failed(state, event) : state;
    case 'stay':
      return state.phase === 'done' ? state : { ...state, stays: !(state.stays ?? false) };
    case 'down':
      return state.phase === 'done' || state.rung === 0
        ? state
        : fromTheFirst({
            ...begin(state, isRunning(state.phase) ? 'count-in' : state.phase),
            rung: state.rung - 1,
            messy: 0,
          });
    case 'isolate':
      return isolated(state, event.stage);
    case 'stage':
      return toStage(state, event.to, 'ready');
    case 'pause':
      return isRunning(state.phase) ? begin(state, 'ready') : state;
    case 'stop':
      return state.phase === 'done' ? state : begin(state, 'stopped');
  }
}

/** Whether the present stage is free play, of which nothing is judged or logged. */
export function isFree(state: DrillState): boolean {
  return drillStage(state)?.kind === 'free';
}

/** How many of the last tries at the same tempo were messy, one after the other. */
function messyInARow({ attempts }: DrillState): number {
  const last = attempts.at(-1);
  const from = attempts.findLastIndex((a) => a.verdict !== 'messy' || a.bpm !== last?.bpm);
  return attempts.length - 1 - from;
}

/** What the next messy try will bring; null where none was messy on this rung yet. */
export function warningWords({ messy, rung }: DrillState): string | null {
  if (messy === 0) return null;
  return rung > 0 ? 'one messy try; another goes a rung down' : 'one messy try; this is the lowest rung';
}

/** What the last messy try brought: where the drill goes on. Empty where the last was none. */
export function lastWords(state: DrillState): string {
  const last = state.attempts.at(-1);
  if (last?.verdict !== 'messy') return '';
  const tempo = drillTempo(state);
  if (last.bpm === tempo)
    return state.messy === 0 && state.rung === 0 && messyInARow(state) >= MESSY_BEFORE_DOWN
      ? `Messy again at ${tempo}, the lowest rung: once more.`
      : `Messy at ${last.bpm}: try again.`;
  const isTwice = messyInARow(state) >= MESSY_BEFORE_DOWN;
  return `${isTwice ? 'Two messy tries' : 'Messy'} at ${last.bpm}: one rung down.`;
}

/** Whether sound goes on in a phase. */
export function isRunning(phase: Phase): boolean {
  return phase === 'count-in' || phase === 'playing' || phase === 'judging';
}

/**
 * A drill as it comes back after the tab was closed: at its rung, the broken try forgotten, every finished one kept.
 */
export function resumed(state: DrillState): DrillState {
  return isRunning(state.phase) ? begin(state, 'ready') : state;
}

function begin(state: DrillState, phase: Phase): DrillState {
  return {
    ...state,
    phase,
    loops: 0,
    early: false,
    tryBegan: null,
    ...(state.run ? { run: 0 } : {}),
    ...(state.off ? { off: 0 } : {}),
  };
}

/** A rung begins with its first pass. */
function fromTheFirst(state: DrillState): DrillState {
  return state.pass === undefined ? state : { ...state, pass: 0 };
}

/** Clean loops in a row after one more loop. */
export function rowAfter(state: DrillState, clean: boolean): number {
  return clean ? (state.run ?? 0) + 1 : 0;
}

function looped(state: DrillState, event: Extract<DrillEvent, { kind: 'loop' }>): DrillState {
  if (state.phase !== 'playing') return state;
  if (isFree(state)) return { ...state, loops: Math.min(MOST_LOOPS, state.loops + 1) };
  const need = event.need ?? state.plan.loops;
  const next = { ...state, loops: state.loops + 1 };
  if (event.clean !== undefined) {
    const run = rowAfter(state, event.clean);
    const off = event.clean ? 0 : (state.off ?? 0) + 1;
    const heard = { ...next, run, off };
    if (run >= need) return passed(heard, event);
    // As many loops off as would have passed it say enough: nobody should play on without being told.
    if (off >= Math.max(SLIPS, need) || next.loops >= need * PATIENCE) return failed(heard, event);
    return heard;
  }
  if (next.loops < need) return next;
  return next.early ? passed(next, event) : { ...next, phase: 'judging' };
}

function passed(state: DrillState, end: End): DrillState {
  const done = { ...withAttempt(state, 'clean', end), messy: 0 };
  if (state.stays) return begin(done, 'count-in');
  const pass = state.pass ?? 0;
  if (state.plan.passes && pass < PASSES.length - 1) return { ...begin(done, 'count-in'), pass: pass + 1 };
  if (state.rung < state.rungs.length - 1) return fromTheFirst({ ...begin(done, 'count-in'), rung: state.rung + 1 });
  return onward(done);
}

/** The stage is over: on to the next, or the drill is done. */
function onward(state: DrillState): DrillState {
  const next = (state.stage ?? 0) + 1;
  const over = withStageOver(state);
  if (next < (state.plan.stages?.length ?? 1)) return toStage(over, next, 'ready');
  return begin(over, 'done');
}

function withStageOver(state: DrillState): DrillState {
  const stage = drillStage(state);
  return stage ? { ...state, over: [...new Set([...stagesOver(state), stage.id])] } : state;
}

function failed(state: DrillState, end: End): DrillState {
  const after = begin(withAttempt(state, 'messy', end), 'count-in');
  const messy = state.messy + 1;
  if (messy < MESSY_BEFORE_DOWN) return { ...after, messy };
  return fromTheFirst({ ...after, messy: 0, rung: Math.max(0, state.rung - 1) });
}

function toStage(state: DrillState, to: number, phase: Phase): DrillState {
  const stage = state.plan.stages?.[to];
  if (!stage || state.phase === 'done') return state;
  const rungs = [...stageRungs(state.plan, stage)];
  const left = drillStage(state);
  // After a tight spot the stage that was broken off goes on at its rung.
  const rung =
    left?.kind === 'tight' && to === (state.stage ?? 0) + 1 ? Math.min(state.back ?? 0, rungs.length - 1) : 0;
  return fromTheFirst({
    ...begin(state, phase),
    stage: to,
    rungs,
    rung,
    messy: 0,
    stays: false,
    over: [...stagesOver(state)],
  });
}

function isolated(state: DrillState, stage: Stage): DrillState {
  if (state.phase === 'done') return state;
  const stages = state.plan.stages ?? [{ id: 'whole', kind: 'whole' as const, short: false }];
  if (stages.length >= 40) return state;
  const at = Math.min(state.stage ?? 0, stages.length - 1);
  const plan = { ...state.plan, stages: [...stages.slice(0, at), stage, ...stages.slice(at)] };
  const rungs = state.rungs.slice(0, state.rung + 1).slice(-2);
  return fromTheFirst({
    ...begin(state, 'ready'),
    plan,
    stage: at,
    rungs,
    rung: 0,
    back: state.rung,
    messy: 0,
    stays: false,
  });
}

/** What ends a try. */
type End = Extract<DrillEvent, { id: string }>;

function withAttempt(state: DrillState, verdict: Verdict, { id, at, measured, source, ...told }: End): DrillState {
  const stage = drillStage(state);
  const dynamic = drillPass(state) ?? told.dynamic;
  const attempt: Attempt = {
    id,
    phrase: state.phrase,
    at,
    bpm: drillTempo(state),
    goal: state.plan.goal,
    loops: state.loops,
    seconds: span(state.tryBegan ?? at, at),
    verdict,
    ...(stage ? { drilled: markOf(stage) } : {}),
    ...(dynamic ? { dynamic } : {}),
    ...(measured ? { measured } : {}),
    ...(source ? { source } : {}),
  };
  return { ...state, attempts: [...state.attempts, attempt] };
}

/** A try longer than this, or of less than nothing, was not timed: the clock was set meanwhile. In seconds. */
const LONGEST_TRY = 24 * 60 * 60;

/** Seconds from one moment to another; 0 where the clock was set in between. */
function span(from: number, until: number): number {
  const seconds = (until - from) / 1000;
  return seconds >= 0 && seconds <= LONGEST_TRY ? seconds : 0;
}
