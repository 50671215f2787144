import { fraction } from '../base';
import { beatTicks, type Meter } from './meter';
import { ticks, TICKS_PER_QUARTER, type Ticks } from './ticks';

/** A grid is the length of its slot. Everything that is a multiple of it from the bar line on lies on the grid. */
export type Grid = Ticks;

/** How a counted beat may be divided. */
export const DIVISIONS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 12] as const;
export type Division = (typeof DIVISIONS)[number];

const NAMES: ReadonlyMap<number, string> = new Map([
  [20160, 'whole notes'],
  [10080, 'halves'],
  [7560, 'dotted quarters'],
  [5040, 'quarters'],
  [3780, 'two to the dotted quarter'],
  [3360, 'quarter triplets'],
  [2520, 'eighths'],
  [1890, 'four to the dotted quarter'],
  [1680, 'triplets'],
  [1512, 'five to the dotted quarter'],
  [1260, '16ths'],
  [1080, 'seven to the dotted quarter'],
  [1008, 'quintuplets'],
  [945, 'eight to the dotted quarter'],
  [840, 'sextuplets'],
  [720, 'septuplets'],
  [630, '32nds'],
  [560, 'nines'],
  [420, 'twelves'],
  [315, '64ths'],
]);

/** The grids everybody has a word for; the rest follow from a meter. */
export const GRID = Object.freeze({
  quarters: ticks(5040),
  eighths: ticks(2520),
  triplets: ticks(1680),
  sixteenths: ticks(1260),
  quintuplets: ticks(1008),
  sextuplets: ticks(840),
  septuplets: ticks(720),
  thirtySeconds: ticks(630),
});

/**
 * The name of a grid in words; a grid without a name says how many of its slots a quarter holds.
 * @example
 * gridName(1260) // => "16ths"
 * gridName(840) // => "sextuplets"
 * gridName(504) // => "10 to a quarter"
 * gridName(1120) // => "4½ to a quarter"
 */
export function gridName(grid: number): string {
  const named = NAMES.get(grid);
  if (named !== undefined) return named;
  return `${fraction(TICKS_PER_QUARTER / grid)} to a quarter`;
}

const NOUNS: ReadonlyMap<number, string> = new Map([
  [20160, 'whole note'],
  [10080, 'half note'],
  [7560, 'dotted quarter'],
  [5040, 'quarter'],
  [2520, 'eighth'],
  [1680, 'triplet note'],
  [1260, 'sixteenth'],
  [1008, 'quintuplet note'],
  [840, 'sextuplet note'],
  [720, 'septuplet note'],
  [630, 'thirty-second'],
  [315, 'sixty-fourth'],
]);

/**
 * A length in slots of a grid as drummers say it; a grid without a word of its own has slots.
 * @example
 * slotsWords(5, 1260) // => "5 sixteenths"
 * slotsWords(1, 2520) // => "1 eighth"
 * slotsWords(10, 840) // => "10 sextuplet notes"
 * slotsWords(3, 1890) // => "3 slots"
 * slotsWords(2.5, 1260) // => "2½ sixteenths"
 */
export function slotsWords(slots: number, grid: number): string {
  return `${fraction(slots)} ${NOUNS.get(grid) ?? 'slot'}${slots > 1 ? 's' : ''}`;
}

/**
 * A grid's name back to the grid, also by beginning ("sext"); null when nothing or more than one thing fits.
 * @example
 * parseGrid('16ths') // => 1260
 * parseGrid('sext') // => 840
 * parseGrid('q') // => null
 */
export function parseGrid(text: string): Grid | null {
  const want = text.trim().toLowerCase();
  if (want === '') return null;
  const exact = [...NAMES].find(([, name]) => name === want || name === `${want}s`);
  if (exact) return ticks(exact[0]);
  const some = [...NAMES].filter(([, name]) => name.startsWith(want));
  const [only] = some;
  return some.length === 1 && only ? ticks(only[0]) : null;
}

/**
 * The grids a meter offers: its counted beat in 1, 2, 3 … 12 parts, those that are whole ticks.
 * @example
 * gridsOf(meter(4, 4)) // => [5040, 2520, 1680, 1260, 1008, 840, 720, 630, 560, 420]
 * gridsOf(meter(6, 8)).map(gridName).slice(0, 3) // => ["dotted quarters", "two to the dotted quarter", "eighths"]
 */
export function gridsOf(m: Meter): Grid[] {
  const beat = beatTicks(m);
  return DIVISIONS.filter((d) => beat % d === 0).map((d) => ticks(beat / d));
}

/**
 * The finest part of a counted beat that a grid is, or null when it does not divide the beat.
 * @example
 * divisionOf(1260, meter(4, 4)) // => 4
 * divisionOf(1680, meter(7, 8)) // => null
 */
export function divisionOf(grid: number, m: Meter): Division | null {
  const parts = beatTicks(m) / grid;
  return DIVISIONS.find((d) => d === parts) ?? null;
}
