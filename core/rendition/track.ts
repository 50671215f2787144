import { secondsOf } from '../time';
import { drillPasses, loopsOfRung, stageRungs, PASSES, type DrillPlan, type Stage } from '../drill';
import { playAt, type Dynamic, type PlayRequest } from '../playback';
import type { Rendition } from './rendition';

/** One piece of a track: something that is played from a tick to another at one tempo. */
export interface TrackPart {
  readonly title: string;
  readonly request: PlayRequest;
  /** From this tick, below zero for a count-in, to that. */
  readonly from: number;
  readonly until: number;
}

/** Seconds that a part lasts. */
export function partSeconds({ request, from, until }: TrackPart): number {
  return secondsOf(until - from, request.bpm);
}

/** Seconds that a track lasts. */
export function trackSeconds(parts: readonly TrackPart[]): number {
  return parts.reduce((sum, p) => sum + partSeconds(p), 0);
}

/** So many turns of a rendition, after what it counts in, at a tempo in counted beats a minute. */
export function loopTrack(played: Rendition, bpm: number, turns: number): readonly TrackPart[] {
  const { program, pattern, words } = played;
  const request = playAt(program, pattern.meter, bpm);
  return [{ title: words.title, request, from: 0 - program.countIn, until: turns * program.loop }];
}

/**
 * A drill as a track, so that it can be done away from the screen: stage after stage, rung after rung, each counted in
 * and held for as many turns as the plan asks, at each loudness where it has passes. Every rung counts as clean.
 * `played` gives the rendition of a stage at a loudness, counted in by as many bars as it should be.
 */
export function practiceTrack(
  plan: DrillPlan,
  played: (stage: Stage | undefined, dynamic: Dynamic) => Rendition,
): readonly TrackPart[] {
  const stages: readonly (Stage | undefined)[] = plan.stages ?? [undefined];
  const passes: readonly Dynamic[] = drillPasses(plan) > 1 ? PASSES : ['medium'];
  return stages.flatMap((stage) => {
    const of = new Map(passes.map((dynamic) => [dynamic, played(stage, dynamic)]));
    return stageRungs(plan, stage).flatMap((bpm) =>
      passes.flatMap((dynamic): TrackPart[] => {
        const own = of.get(dynamic);
        if (!own) return [];
        const { program, pattern, words } = own;
        const turns = loopsOfRung(plan, pattern.meter, program.loop, bpm);
        const title = `${words.title}, ${bpm}${passes.length > 1 ? `, ${dynamic}` : ''}`;
        const request = playAt(program, pattern.meter, bpm);
        return [{ title, request, from: 0 - program.countIn, until: turns * program.loop }];
      }),
    );
  });
}

/** The longest track that is made: two hours. */
export const MOST_TRACK_SECONDS = 7200;
