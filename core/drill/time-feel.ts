import {
  backbeatTicks,
  barTicks,
  beatTicks,
  countedBeats,
  isCompound,
  meterText,
  ticks,
  unitTicks,
  type Meter,
} from '../time';
import type { Limb, Level, Stroke, Voice } from '../stroke';
import type { Pattern } from '../pattern';

/**
 * Bars of plain time that fit a meter and a grid: hats on the usual slots, kick on the first beat of each group, snare
 * on the back beat.
 */
export function timeFeel(pattern: Pattern, bars: number): readonly Stroke[] {
  const bar = barTicks(pattern.meter);
  return Array.from({ length: bars }, (_, b) =>
    barOf(pattern.meter, pattern.grid).map((s) => ({ ...s, at: ticks(s.at + b * bar) })),
  ).flat();
}

/**
 * A groove of the shelf as the time that is kept before a fill, over so many bars. Null when it cannot keep it: it must
 * stand in the same meter, begin on a bar line and go round in whole bars.
 */
export function timeOf(groove: Pattern, meter: Meter, bars: number): readonly Stroke[] | null {
  const bar = barTicks(meter);
  const fits =
    meterText(groove.meter) === meterText(meter) &&
    groove.start === 0 &&
    groove.length > 0 &&
    groove.length % bar === 0;
  if (!fits || groove.strokes.length === 0) return null;
  const turns = Math.ceil((bars * bar) / groove.length);
  return Array.from({ length: turns }, (_, turn) =>
    groove.strokes.map((s) => ({ ...s, at: ticks(s.at + turn * groove.length) })),
  )
    .flat()
    .filter((s) => s.at < bars * bar);
}

function barOf(meter: Meter, grid: number): readonly Stroke[] {
  const bar = barTicks(meter);
  const stroke = (at: number, limb: Limb, voice: Voice, level: Level): Stroke => ({
    at: ticks(at),
    limb,
    voice,
    level,
    from: { index: 0, repeat: 0, move: 'time' },
  });
  const beat = beatTicks(meter);
  // Triplet phrases get a triplet hat, the rest eighths.
  const slot = isCompound(meter)
    ? beat / 3
    : grid === beat / 3 || grid === beat / 6
      ? beat / 3
      : Math.min(unitTicks(meter), beat / (meter.unit <= 4 ? 2 : 1));
  const hats = Array.from({ length: Math.floor(bar / slot) }, (_, i) => i * slot)
    // A shuffle leaves the middle of each triplet out.
    .filter((t) => slot !== beat / 3 || isCompound(meter) || (t / slot) % 3 !== 1)
    .map((t) => stroke(t, 'R', 'hat-closed', t % beat === 0 ? 'tap' : 'ghost'));
  const beats = countedBeats(meter);
  const back = backbeatTicks(meter);
  const leads = beats.filter((b) => b.leads && !back.includes(b.start)).map((b) => b.start);
  const kicks = [...new Set([0, ...leads, ...(beats.length === 4 ? [2 * beat] : [])])].filter((t) => !back.includes(t));
  return [
    ...hats,
    ...kicks.map((t) => stroke(t, 'K', 'kick', t === 0 ? 'accent' : 'tap')),
    ...back.map((t) => stroke(t, 'L', 'snare', 'accent')),
  ].sort((a, b) => a.at - b.at);
}
