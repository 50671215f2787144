import { moment } from '@core/base';

/** What time it is, as it can be kept: the one place that asks the clock, which may be set to anything. */
export function now(): number {
  return moment(Date.now());
}

/** The practice day of a time: days since 1970-01-01 on the calendar of where the player is. */
export function practiceDay(at: number): number {
  const date = new Date(at);
  return Date.UTC(date.getFullYear(), date.getMonth(), date.getDate()) / 86_400_000;
}

/** The practice day it is now. */
export function today(): number {
  return practiceDay(now());
}

/** A practice day as a date field has it: "2026-11-27". */
export function isoDay(day: number): string {
  return new Date(day * 86_400_000).toISOString().slice(0, 10);
}

/** The practice day of what a date field has; null where it has none, or one out of bounds. */
export function practiceDayOf(date: string): number | null {
  const at = /^\d{4}-\d\d-\d\d$/.test(date) ? Date.parse(`${date}T00:00:00Z`) : NaN;
  const day = at / 86_400_000;
  return day >= 0 && day <= 84_005 ? day : null;
}
