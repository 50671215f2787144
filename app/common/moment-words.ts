import { format, isToday } from 'date-fns';

/** When something was left or kept: its time today, else its day too. */
export function momentWords(at: number): string {
  return format(at, isToday(at) ? 'HH:mm' : 'd MMM, HH:mm');
}
