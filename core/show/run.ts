import type { Show } from '../shelf';

/** Where a run-through is: before a cue, counting it in, in it, between two, or over. */
export type RunPhase = 'ready' | 'count-in' | 'playing' | 'between' | 'over';

/** A run-through of a show: the cue it is at by its place, and what it does. */
export interface Run {
  readonly cue: number;
  readonly phase: RunPhase;
  /** Cues that were played to their ends. */
  readonly played: readonly number[];
}

export type RunEvent =
  | { readonly kind: 'go' }
  | { readonly kind: 'counted-in' }
  /** The last bar of the cue is over. */
  | { readonly kind: 'ended' }
  | { readonly kind: 'stop' }
  | { readonly kind: 'to'; readonly cue: number };

/** A run-through from its first cue on; over where there is none. */
export const newRun = (show: Pick<Show, 'cues'>): Run => ({
  cue: 0,
  phase: show.cues.length === 0 ? 'over' : 'ready',
  played: [],
});

/**
 * A run-through after an event. It may be stopped anywhere and go on at any cue; what does not apply changes nothing.
 * @example
 * runStep({ cue: 0, phase: 'playing', played: [] }, { kind: 'ended' }, 2) // => { cue: 1, phase: 'between', played: [0] }
 * runStep({ cue: 1, phase: 'playing', played: [0] }, { kind: 'ended' }, 2) // => { cue: 1, phase: 'over', played: [0, 1] }
 */
export function runStep(run: Run, event: RunEvent, cues: number): Run {
  switch (event.kind) {
    case 'go':
      return cues === 0 || run.phase === 'count-in' || run.phase === 'playing'
        ? run
        : { ...run, cue: run.phase === 'over' ? 0 : run.cue, phase: 'count-in' };
    case 'counted-in':
      return run.phase === 'count-in' ? { ...run, phase: 'playing' } : run;
    case 'ended': {
      if (run.phase !== 'playing') return run;
      const played = [...run.played.filter((c) => c !== run.cue), run.cue];
      return run.cue + 1 < cues ? { cue: run.cue + 1, phase: 'between', played } : { ...run, phase: 'over', played };
    }
    case 'stop':
      return run.phase === 'over' ? run : { ...run, phase: 'ready' };
    case 'to':
      return event.cue < 0 || event.cue >= cues ? run : { ...run, cue: event.cue, phase: 'ready' };
  }
}

/** The spot that comes within so many ticks, or is played now; null where none does. */
export function nextSpot<T extends { readonly from: number; readonly until: number }>(
  spots: readonly T[],
  tick: number,
  ahead: number,
): T | null {
  return spots.find((s) => s.until > tick && s.from - tick <= ahead) ?? null;
}
