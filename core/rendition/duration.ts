import { barTicks, quarterTempo, secondsOf, type Meter } from '../time';
import { drillPasses, loopsOfRung, stageRungs, type DrillPlan, type Stage } from '../drill';

/**
 * Seconds that a drill takes when every rung passes at once: for each stage, rung and pass the count-in and the loops
 * that are asked for, with the bars of time that belong to them. Judging, and the breath between stages, are the
 * player's own.
 * @param loopOf ticks of one turn of a stage; of the whole phrase where there is no stage
 * @param countIn bars of click before each rung
 * @example
 * drillSeconds({ start: 60, goal: 60, step: 5, loops: 4 }, meter(4, 4), () => 20160, 1) // => 20
 */
export function drillSeconds(
  plan: DrillPlan,
  meter: Meter,
  loopOf: (stage: Stage | undefined) => number,
  countIn: number,
): number {
  const stages: readonly (Stage | undefined)[] = plan.stages ?? [undefined];
  const ofStage = (stage: Stage | undefined): number => {
    const loop = loopOf(stage);
    const ofRung = (bpm: number): number =>
      secondsOf(countIn * barTicks(meter) + loopsOfRung(plan, meter, loop, bpm) * loop, quarterTempo(bpm, meter));
    return stageRungs(plan, stage).reduce((sum, bpm) => sum + ofRung(bpm), 0) * drillPasses(plan);
  };
  return stages.reduce((sum, stage) => sum + ofStage(stage), 0);
}
