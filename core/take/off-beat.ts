import { TICKS_PER_QUARTER } from '../time';
import type { Expected } from '../rendition';

/**
 * Which of the second halves a tick falls on: of a quarter, or of an eighth. Neither where ticks are not known, nor in
 * a loop that is no whole number of them: there each place is on the beat in one turn and off it in the next.
 */
export function offBeat(tick: number | undefined, loop = 0): { readonly eighth: boolean; readonly sixteenth: boolean } {
  const on = (unit: number): boolean =>
    tick !== undefined && loop % unit === 0 && (((tick % unit) + unit) % unit) * 2 === unit;
  return { eighth: on(TICKS_PER_QUARTER), sixteenth: on(TICKS_PER_QUARTER / 2) };
}

/** Seconds of an eighth, told by strokes on the quarters, which no swing moves; 0 where ticks are not known. */
export function eighthOf(expected: readonly Expected[]): number {
  const told = expected.filter((e) => e.tick !== undefined);
  const even = told.filter((e) => (e.tick ?? 0) % TICKS_PER_QUARTER === 0);
  const own = even.length > 1 && (even.at(-1)?.tick ?? 0) > (even[0]?.tick ?? 0) ? even : told;
  const [a, b] = [own[0], own.at(-1)];
  const many = ((b?.tick ?? 0) - (a?.tick ?? 0)) / (TICKS_PER_QUARTER / 2);
  return a && b && many > 0 ? (b.seconds - a.seconds) / many : 0;
}
