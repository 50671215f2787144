import { meter, METER_UNITS, MOST_BEATS, type Meter } from '../../time';

/**
 * A meter as it can be counted here: whole notes as halves, twice as many. Null for any other.
 * @example
 * countableMeter(3, 1) // => meter(6, 2)
 * countableMeter(97, 64) // => null
 */
export function countableMeter(beats: number, unit: number): Meter | null {
  const [b, u] = unit === 1 ? [beats * 2, 2] : [beats, unit];
  const known = METER_UNITS.find((k) => k === u);
  return known && b >= 1 && b <= MOST_BEATS ? meter(b, known) : null;
}
