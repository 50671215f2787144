import { count, fraction } from '@core/base';
import { shapeWords, type Pattern } from '@core/pattern';
import type { Facts } from '@core/shelf';
import { beatTicks, meter, parseCount, parseMeter, ticks, USUAL_SCHOOLS } from '@core/time';
import type { Turn } from '@core/variants';

/** "1 bar of 4/4 · 16ths". */
export function factsWords({ length, grid, meter: text, starts, feel }: Facts): string {
  const known = parseMeter(text) ?? meter(4, 4);
  const shape = { length: ticks(length), grid: ticks(grid), meter: known, feel };
  const start = ticks(parseCount(starts, { ...shape, schools: USUAL_SCHOOLS }) ?? 0);
  return shapeWords({ ...shape, start });
}

/** "the same as Cold rope, 2 slots later": in slots of the grid, and in beats where it falls between them. */
export function turnWords(name: string, { by, mirrored }: Turn, { grid, meter: own }: Pattern): string {
  const same = `the same as ${name.slice(0, 80)}${mirrored ? ' with the hands swapped' : ''}`;
  if (by === 0) return same;
  const slots = by / grid;
  return `${same}, ${Number.isInteger(slots) ? count(slots, 'slot') : `${fraction(by / beatTicks(own))} beats`} later`;
}

/** Ticks that a strip’s full width stands for: as long as nine of ten are at the most, one bar of 4/4 to four. */
export function scaleOf(lengths: Float64Array): number {
  lengths.sort();
  const most = lengths[Math.floor(lengths.length * 0.9)] ?? 0;
  return Math.min(4 * 20160, Math.max(20160, most));
}
