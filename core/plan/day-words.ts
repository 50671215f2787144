const WEEK = ['Thursday', 'Friday', 'Saturday', 'Sunday', 'Monday', 'Tuesday', 'Wednesday'];
const YEAR = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/**
 * The weekday of a day since 1970-01-01, which was a Thursday.
 * @example
 * weekday(20784) // => "Friday"
 */
export function weekday(day: number): string {
  return WEEK[((day % 7) + 7) % 7] ?? '';
}

/**
 * The date of a day since 1970-01-01 by the Gregorian calendar, counted from March on, so that the leap day comes last
 * (Hinnant 2013, chrono-compatible low-level date algorithms).
 */
function dateOf(day: number): { readonly year: number; readonly month: number; readonly date: number } {
  const z = day + 719_468;
  const era = Math.floor(z / 146_097);
  const ofEra = z - era * 146_097;
  const year = Math.floor(
    (ofEra - Math.floor(ofEra / 1460) + Math.floor(ofEra / 36_524) - Math.floor(ofEra / 146_096)) / 365,
  );
  const ofYear = ofEra - (365 * year + Math.floor(year / 4) - Math.floor(year / 100));
  const march = Math.floor((5 * ofYear + 2) / 153);
  const month = (march + 2) % 12;
  return {
    year: year + era * 400 + (month < 2 ? 1 : 0),
    month,
    date: ofYear - Math.floor((153 * march + 2) / 5) + 1,
  };
}

/**
 * A date without its place in time.
 * @example
 * dateWords(20800) // => "13 Dec"
 * dateWords(20800, true) // => "13 Dec 2026"
 */
export function dateWords(day: number, withYear = false): string {
  const { year, month, date } = dateOf(day);
  return `${date} ${YEAR[month] ?? ''}${withYear ? ` ${year}` : ''}`;
}

/**
 * A day as it is said on another: within a week by its name, else by its date.
 * @example
 * dayWords(20784, 20784) // => "today"
 * dayWords(20785, 20784) // => "tomorrow"
 * dayWords(20788, 20784) // => "on Tuesday"
 * dayWords(20800, 20784) // => "on 13 Dec"
 * dayWords(20783, 20784) // => "yesterday"
 * dayWords(21200, 20784) // => "on 17 Jan 2028"
 */
export function dayWords(day: number, today: number): string {
  return Math.abs(day - today) <= 1 ? dayName(day, today) : `on ${dayName(day, today)}`;
}

/**
 * The same as a name, for where it stands without "on".
 * @example
 * dayName(20785, 20784) // => "tomorrow"
 * dayName(20788, 20784) // => "Tuesday"
 * dayName(20800, 20784) // => "13 Dec"
 */
export function dayName(day: number, today: number): string {
  const ahead = day - today;
  if (ahead === 0) return 'today';
  if (ahead === 1) return 'tomorrow';
  if (ahead === -1) return 'yesterday';
  if (ahead > 1 && ahead < 7) return weekday(day);
  return dateWords(day, Math.abs(ahead) > 300);
}
