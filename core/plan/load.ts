/** On one day the hands take this much of what they are used to. */
const MOST_SHARE = 1.5;

/**
 * The most strokes of a hand that are wise on a day: half as much again as the mean of the days of the last week that
 * were practised. Null where the week tells nothing.
 * @example
 * mostStrokes([2000, 4000]) // => 4500
 * mostStrokes([]) // => null
 */
export function mostStrokes(week: readonly number[]): number | null {
  const played = week.filter((n) => n > 0);
  if (played.length === 0) return null;
  return (MOST_SHARE * played.reduce((a, b) => a + b, 0)) / played.length;
}
