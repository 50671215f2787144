import { format, isToday } from 'date-fns';

/** When something was left or kept: its time today, else its day too. */
export function momentWords(at: number): string {
  return format(at, isToday(at) ? 'HH:mm' : 'd MMM, HH:mm');
}

/** A length as a clock shows it: "1:05", with tenths "1:05.3". */
export function clockWords(seconds: number, tenths = false): string {
  const s = Math.max(0, seconds);
  const rest = tenths ? (s % 60).toFixed(1).padStart(4, '0') : String(Math.floor(s % 60)).padStart(2, '0');
  return `${Math.floor(s / 60)}:${rest}`;
}
