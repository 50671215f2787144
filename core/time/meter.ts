import { ticks, TICKS_PER_QUARTER, type Ticks } from './ticks';

export const METER_UNITS = [2, 4, 8, 16] as const;
export type MeterUnit = (typeof METER_UNITS)[number];

/** Beats to the bar, the note that is one beat on paper, and how those beats group: 7/8 as 2+2+3. */
export interface Meter {
  readonly beats: number;
  readonly unit: MeterUnit;
  readonly groups: readonly number[];
}

/** A beat as it is counted aloud: its number in the bar from 1, where it starts and how long it lasts. */
export interface CountedBeat {
  readonly number: number;
  readonly start: Ticks;
  readonly length: Ticks;
  /** Whether a group of beats starts here: the places the click leans on. */
  readonly leads: boolean;
}

/** Longest bar that can be written: 32 beats on paper. */
export const MOST_BEATS = 32;

/**
 * A meter with its usual grouping: threes where an eighth or 16th meter divides by three, else one group for quarters
 * and halves, else twos closed by a three.
 * @example
 * meter(6, 8).groups // => [3, 3]
 * meter(7, 8).groups // => [2, 2, 3]
 * meter(4, 4).groups // => [4]
 * meter(11, 16).groups // => [2, 2, 2, 2, 3]
 */
export function meter(beats: number, unit: MeterUnit, groups: readonly number[] = usualGroups(beats, unit)): Meter {
  return { beats, unit, groups };
}

function usualGroups(beats: number, unit: MeterUnit): number[] {
  if (unit >= 8 && beats > 3 && beats % 3 === 0) return Array.from({ length: beats / 3 }, () => 3);
  if (beats < 5 || (unit <= 4 && beats % 2 === 0)) return [beats];
  if (beats % 2 === 0) return Array.from({ length: beats / 2 }, () => 2);
  return [...Array.from({ length: (beats - 3) / 2 }, () => 2), 3];
}

/**
 * Reads "7/8" or "7/8 3+2+2"; null when it is not a meter this application can count.
 * @example
 * parseMeter('7/8 3+2+2').groups // => [3, 2, 2]
 * parseMeter('4/5') // => null
 * parseMeter('7/8 2+2') // => null
 */
export function parseMeter(text: string): Meter | null {
  const found = /^\s*(\d{1,2})\s*\/\s*(\d{1,2})(?:\s+(\d{1,2}(?:\+\d{1,2})*))?\s*$/.exec(text);
  if (!found) return null;
  const beats = Number(found[1]);
  const unit = METER_UNITS.find((u) => u === Number(found[2]));
  if (!unit || beats < 1 || beats > MOST_BEATS) return null;
  const groups = found[3]?.split('+').map(Number);
  if (groups && (groups.some((g) => g < 1) || groups.reduce((a, b) => a + b, 0) !== beats)) return null;
  return groups ? meter(beats, unit, groups) : meter(beats, unit);
}

/**
 * How a meter is written; the grouping only when it is not the usual one.
 * @example
 * meterText(meter(7, 8, [3, 2, 2])) // => "7/8 3+2+2"
 * meterText(meter(6, 8)) // => "6/8"
 */
export function meterText(m: Meter): string {
  const usual = usualGroups(m.beats, m.unit).join('+');
  const own = m.groups.join('+');
  return own === usual ? `${m.beats}/${m.unit}` : `${m.beats}/${m.unit} ${own}`;
}

/** Length of the note a meter counts on paper. */
export function unitTicks(m: Meter): Ticks {
  return ticks((TICKS_PER_QUARTER * 4) / m.unit);
}

/**
 * Length of a bar.
 * @example
 * barTicks(meter(7, 8)) // => 17640
 */
export function barTicks(m: Meter): Ticks {
  return ticks(unitTicks(m) * m.beats);
}

/** Whether the bar is counted in dotted beats, as 6/8 in two: eighths or 16ths that group in threes only. */
export function isCompound(m: Meter): boolean {
  return m.unit >= 8 && m.beats > 3 && m.groups.every((g) => g === 3);
}

/**
 * Length of a counted beat: the dotted note in a compound meter, else the unit.
 * @example
 * beatTicks(meter(6, 8)) // => 7560
 * beatTicks(meter(7, 8)) // => 2520
 */
export function beatTicks(m: Meter): Ticks {
  return ticks(unitTicks(m) * (isCompound(m) ? 3 : 1));
}

/**
 * The counted beats of one bar.
 * @example
 * countedBeats(meter(6, 8)).map((b) => b.start) // => [0, 7560]
 * countedBeats(meter(7, 8)).map((b) => b.leads) // => [true, false, true, false, true, false, false]
 */
export function countedBeats(m: Meter): CountedBeat[] {
  const length = beatTicks(m);
  const leads = new Set<number>();
  let at = 0;
  for (const group of m.groups) {
    leads.add(at * unitTicks(m));
    at += group;
  }
  return Array.from({ length: barTicks(m) / length }, (_, i) => ({
    number: i + 1,
    start: ticks(i * length),
    length,
    leads: isCompound(m) ? i === 0 : leads.has(i * length),
  }));
}

/**
 * Quarters a minute for a tempo given in counted beats: 6/8 at 96 means 96 dotted quarters, 144 quarters. Meters
 * counted in eighths keep the quarter as the tempo's note, as musicians write it.
 * @example
 * quarterTempo(96, meter(6, 8)) // => 144
 * quarterTempo(104, meter(7, 8)) // => 104
 */
export function quarterTempo(bpm: number, m: Meter): number {
  return isCompound(m) ? (bpm * beatTicks(m)) / TICKS_PER_QUARTER : bpm;
}
