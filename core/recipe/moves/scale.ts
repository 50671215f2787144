import { ticks, wholeTicks } from '../../time';
import { tidy, type Pattern } from '../../pattern';

/** Every time of a pattern multiplied by `times / by`; null when a single one would not stay on whole ticks. */
export function scaled(pattern: Pattern, times: number, by: number): Pattern | null {
  const scale = (t: number): number => (t * times) / by;
  const all = [pattern.length, ...pattern.strokes.map((s) => s.at), ...pattern.groups.flatMap((g) => [g.at, g.length])];
  if (all.some((t) => wholeTicks(scale(t)) === null)) return null;
  return tidy({
    ...pattern,
    length: ticks(scale(pattern.length)),
    strokes: pattern.strokes.map((s) => ({ ...s, at: ticks(scale(s.at)) })),
    groups: pattern.groups.map((g) => ({ ...g, at: ticks(scale(g.at)), length: ticks(scale(g.length)) })),
  });
}
