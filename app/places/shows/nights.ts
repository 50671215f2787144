import { count } from '@core/base';
import { dateWords, dayWords } from '@core/plan';
import type { Show } from '@core/shelf';

/** Shows in the order in which they are wanted: the next night first, then those without a day, then those past. */
export function inNights(all: readonly Show[], today: number): readonly Show[] {
  const rank = ({ day }: Show): number => (day === null ? 1 : day >= today ? 0 : 2);
  return [...all].sort(
    (a, b) =>
      rank(a) - rank(b) ||
      (rank(a) === 2 ? (b.day ?? 0) - (a.day ?? 0) : (a.day ?? 0) - (b.day ?? 0)) ||
      (a.id < b.id ? -1 : 1),
  );
}

/** When a show is: "in 7 days", "today", "was on 3 Dec"; what to do where it has no day. */
export function nightWords(day: number | null, today: number): string {
  if (day === null) return 'no date yet';
  const left = day - today;
  if (left < 0) return `was ${dayWords(day, today)}`;
  return left === 0 ? 'today' : left === 1 ? 'tomorrow' : `in ${count(left, 'day')}`;
}

/** A show in a list: its name, and its day where it has one. */
export const showWords = ({ name, day }: Show): string => (day === null ? name : `${name}, ${dateWords(day)}`);
