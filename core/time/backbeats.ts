import { barTicks, countedBeats, isCompound, unitTicks, type Meter } from './meter';

/**
 * Where the snare answers in a bar, in ticks from its line: 2 and 4, the second of two dotted beats, the last group of
 * odd meters, the third beat of three; nowhere in a bar of one beat.
 * @example
 * backbeatTicks(meter(4, 4)) // => [5040, 15120]
 * backbeatTicks(meter(3, 4)) // => [10080]
 * backbeatTicks(meter(6, 8)) // => [7560]
 */
export function backbeatTicks(meter: Meter): readonly number[] {
  const starts = countedBeats(meter).map((b): number => b.start);
  const n = starts.length;
  if (n === 1) return [];
  if (isCompound(meter) || (meter.groups.length === 1 && n % 2 === 0)) return starts.filter((_, i) => i % 2 === 1);
  if (meter.groups.length > 1) return [barTicks(meter) - (meter.groups.at(-1) ?? 1) * unitTicks(meter)];
  return [starts[n - 1] ?? 0];
}
