import { TICKS_PER_QUARTER } from '../time';

/** Note values as they are written, from the whole note to the 64th. */
export const VALUES = ['1', '2', '4', '8', '16', '32', '64'] as const;
export type Value = (typeof VALUES)[number];

/** Ticks of each plain value. */
export const VALUE_TICKS: Readonly<Record<Value, number>> = Object.freeze({
  '1': TICKS_PER_QUARTER * 4,
  '2': TICKS_PER_QUARTER * 2,
  '4': TICKS_PER_QUARTER,
  '8': TICKS_PER_QUARTER / 2,
  '16': TICKS_PER_QUARTER / 4,
  '32': TICKS_PER_QUARTER / 8,
  '64': TICKS_PER_QUARTER / 16,
});

/** A written length: a value with or without a dot. */
export interface DottedValue {
  readonly value: Value;
  readonly dots: 0 | 1;
}

/**
 * The value that lasts exactly so many ticks; null when it takes more than one.
 * @example
 * writtenAs(7560) // => { value: '4', dots: 1 }
 * writtenAs(5 * 1260) // => null
 */
export function writtenAs(ticks: number): DottedValue | null {
  for (const value of VALUES) {
    if (VALUE_TICKS[value] === ticks) return { value, dots: 0 };
    if (VALUE_TICKS[value] * 1.5 === ticks) return { value, dots: 1 };
  }
  return null;
}
