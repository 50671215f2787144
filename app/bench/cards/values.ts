import { clamp } from '@core/base';

/** What a field holds. */
export function textOf(event: Event): string {
  const { target } = event;
  return target instanceof HTMLInputElement || target instanceof HTMLSelectElement ? target.value : '';
}

/** A whole number from a field, held between bounds; what is no number gives the least. */
export function wholeOf(event: Event, least: number, most: number): number {
  const n = Math.round(Number(textOf(event)));
  const kept = clamp(Number.isFinite(n) ? n : least, least, most);
  if (event.target instanceof HTMLInputElement && event.type === 'change') event.target.value = String(kept);
  return kept;
}

/**
 * A list with a value in it if it was not, without it if it was; undefined when nothing is left, so that a selector's
 * field goes away.
 */
export function toggled<T>(list: readonly T[] | undefined, value: T): T[] | undefined {
  const next = list?.includes(value) ? list.filter((v) => v !== value) : [...(list ?? []), value];
  return next.length > 0 ? next : undefined;
}

/** Whole numbers between bounds from a field such as "3 3 2"; what is no number is passed over. */
export function wholesOf(event: Event, least: number, most: number): number[] {
  return textOf(event)
    .split(/[\s,;+]+/)
    .filter((w) => /^\d+$/.test(w))
    .map((w) => clamp(Number(w), least, most))
    .slice(0, 64);
}

/** Counts from a field such as "2, 4&". */
export function countsOf(event: Event): string[] {
  return textOf(event)
    .split(/[,;]+/)
    .map((c) => c.trim().slice(0, 16))
    .filter((c) => c !== '')
    .slice(0, 64);
}
