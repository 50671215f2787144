import { Type } from '@sinclair/typebox';

/** Times are whole milliseconds since 1970, up to the year 2200. */
export const TIME = Object.freeze({ least: 0, most: 7_258_118_400_000 });
export const TimeSchema = Type.Integer({ minimum: TIME.least, maximum: TIME.most });

/**
 * A clock's reading as a time that can be kept: whole, and held within 1970 to 2200, whatever the clock says. Later
 * than `after` when that is given, so that what is kept later is never the older of two, also by a clock that was set
 * back.
 * @example
 * moment(-5) // => 0
 * moment(12.7) // => 12
 * moment(100, 250) // => 251
 */
export function moment(ms: number, after = -1): number {
  const read = Number.isFinite(ms) ? Math.trunc(ms) : TIME.least;
  return Math.min(TIME.most, Math.max(TIME.least, read, after + 1));
}

/** An id: letters, digits and signs that can stand in an address as they are; not only dots. */
export const idSchema = (most = 64) =>
  Type.String({ minLength: 1, maxLength: most, pattern: '^(?!\\.+$)[A-Za-z0-9._~@:+=-]+$' });

/** A span of time in milliseconds by which something is off: far beyond any playing, and finite. */
export const OffsetSchema = Type.Number({ minimum: -1e7, maximum: 1e7 });

/** Deepest nesting of anything that is kept. */
export const DEEPEST = 40;

/**
 * Whether a value nests no deeper than `most`. Walks without recursion, so that no depth is too much for it.
 * @example
 * isShallow([[1]], 2) // => true
 * isShallow([[[1]]], 2) // => false
 */
export function isShallow(value: unknown, most = DEEPEST): boolean {
  let level: object[] = isNested(value) ? [value] : [];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth >= most) return false;
    const next: object[] = [];
    // It is asked of every row that is read or written: nothing is made to walk through one.
    for (const item of level)
      if (!ArrayBuffer.isView(item))
        for (const key in item) {
          const part = (item as Readonly<Record<string, unknown>>)[key];
          if (isNested(part)) next.push(part);
        }
    level = next;
  }
  return true;
}

function isNested(value: unknown): value is object {
  return typeof value === 'object' && value !== null;
}
