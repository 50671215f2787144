import { clamp } from '@core/base';

/**
 * A list with a value in it if it was not, without it if it was; undefined when nothing is left, so that a selector's
 * field goes away.
 */
export function toggled<T>(list: readonly T[] | undefined, value: T): T[] | undefined {
  const next = list?.includes(value) ? list.filter((v) => v !== value) : [...(list ?? []), value];
  return next.length > 0 ? next : undefined;
}

/**
 * Whole numbers between bounds from a field such as "3 3 2", or "4 × 8, 16" for four eights and a sixteen; what is no
 * number is passed over.
 */
export function wholesOf(text: string, least: number, most: number): number[] {
  return text
    .replace(/(\d+)\s*[×x*]\s*(\d+)/gi, (_, many: string, one: string) =>
      Array.from({ length: Math.min(64, Number(many)) }, () => one).join(' '),
    )
    .split(/[\s,;+]+/)
    .filter((w) => /^\d+$/.test(w))
    .map((w) => clamp(Number(w), least, most))
    .slice(0, 64);
}

/** Counts from a field such as "2, 4&". */
export function countsOf(text: string): string[] {
  return text
    .split(/[,;]+/)
    .map((c) => c.trim().slice(0, 16))
    .filter((c) => c !== '')
    .slice(0, 64);
}
