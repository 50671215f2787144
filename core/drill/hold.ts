import { barTicks, beatTicks, type Meter } from '../time';
import type { DrillPlan } from './state';

/**
 * Loops that a rung asks for: as many as the plan says, or as many as fill the bars or minutes it is held, and at least
 * one.
 * @param loop ticks of one turn of what is played
 * @param bpm counted beats a minute of the rung
 * @example
 * loopsOfRung({ start: 60, goal: 90, step: 5, loops: 4, hold: { kind: 'bars', n: 8 } }, meter(4, 4), 2 * 20160, 60) // => 4
 * loopsOfRung({ start: 60, goal: 90, step: 5, loops: 4, hold: { kind: 'minutes', n: 1 } }, meter(4, 4), 20160, 80) // => 20
 * loopsOfRung({ start: 60, goal: 90, step: 5, loops: 4 }, meter(4, 4), 20160, 80) // => 4
 */
export function loopsOfRung({ hold, loops }: DrillPlan, meter: Meter, loop: number, bpm: number): number {
  if (!hold || loop <= 0) return loops;
  const whole =
    hold.kind === 'bars' ? (hold.n * barTicks(meter)) / loop : (hold.n * bpm) / Math.max(1, loop / beatTicks(meter));
  return Math.max(1, Math.ceil(whole));
}
