import { fixedLadder } from './ladder';
import type { Attempt, DrillPlan, DrillState, Phase, Verdict } from './state';

/** What can happen in a drill. Times are arguments: the machine has no clock. */
export type DrillEvent =
  | { readonly kind: 'start'; readonly at: number }
  | { readonly kind: 'counted-in'; readonly at: number }
  | { readonly kind: 'loop'; readonly at: number }
  | { readonly kind: 'clean'; readonly at: number }
  | { readonly kind: 'messy'; readonly at: number }
  | { readonly kind: 'pause' }
  | { readonly kind: 'stop' };

/** Two messy tries, and it goes one rung down. */
export const MESSY_BEFORE_DOWN = 2;

/** A drill before its first count-in. */
export function newDrill(id: string, phrase: string, plan: DrillPlan): DrillState {
  const rungs = [...fixedLadder(plan.start, plan.goal, plan.step)];
  return { id, phrase, plan, rungs, rung: 0, phase: 'ready', loops: 0, early: false, messy: 0, tryBegan: null, attempts: [] };
}

/** The tempo of the present rung. */
export function drillTempo(state: DrillState): number {
  return state.rungs[state.rung] ?? state.plan.goal;
}

/**
 * The next state of a drill. A rung is left upwards only when its loops were played and the try was called clean; after two messy tries in a row it goes
 * one rung down. Events that mean nothing in a phase leave the state as it is, the same object.
 */
export function drillStep(state: DrillState, event: DrillEvent): DrillState {
  switch (event.kind) {
    case 'start':
      return state.phase === 'ready' || state.phase === 'stopped' ? begin(state, 'count-in') : state;
    case 'counted-in':
      return state.phase === 'count-in' ? { ...state, phase: 'playing', tryBegan: event.at } : state;
    case 'loop':
      return looped(state, event.at);
    case 'clean':
      if (state.phase === 'playing') return { ...state, early: true };
      return state.phase === 'judging' ? passed(state, event.at) : state;
    case 'messy':
      return state.phase === 'playing' || state.phase === 'judging' ? failed(state, event.at) : state;
    case 'pause':
      return isRunning(state.phase) ? begin(state, 'ready') : state;
    case 'stop':
      return state.phase === 'done' ? state : begin(state, 'stopped');
  }
}

/** Whether sound goes on in a phase. */
export function isRunning(phase: Phase): boolean {
  return phase === 'count-in' || phase === 'playing' || phase === 'judging';
}

/** A drill as it comes back after the tab was closed: at its rung, the broken try forgotten, every finished one kept. */
export function resumed(state: DrillState): DrillState {
  return isRunning(state.phase) ? begin(state, 'ready') : state;
}

function begin(state: DrillState, phase: Phase): DrillState {
  return { ...state, phase, loops: 0, early: false, tryBegan: null };
}

function looped(state: DrillState, at: number): DrillState {
  if (state.phase !== 'playing') return state;
  const next = { ...state, loops: state.loops + 1 };
  if (next.loops < state.plan.loops) return next;
  return next.early ? passed(next, at) : { ...next, phase: 'judging' };
}

function passed(state: DrillState, at: number): DrillState {
  const told = withAttempt(state, 'clean', at);
  if (state.rung >= state.rungs.length - 1) return { ...begin(told, 'done'), messy: 0 };
  return { ...begin(told, 'count-in'), rung: state.rung + 1, messy: 0 };
}

function failed(state: DrillState, at: number): DrillState {
  const told = begin(withAttempt(state, 'messy', at), 'count-in');
  const messy = state.messy + 1;
  if (messy < MESSY_BEFORE_DOWN) return { ...told, messy };
  return { ...told, messy: 0, rung: Math.max(0, state.rung - 1) };
}

function withAttempt(state: DrillState, verdict: Verdict, at: number): DrillState {
  const attempt: Attempt = {
    id: `${state.id}-${state.attempts.length + 1}`,
    phrase: state.phrase,
    at,
    bpm: drillTempo(state),
    goal: state.plan.goal,
    loops: state.loops,
    seconds: Math.max(0, (at - (state.tryBegan ?? at)) / 1000),
    verdict,
  };
  return { ...state, attempts: [...state.attempts, attempt] };
}
