/** On one day the hands take this much of what they are used to. */
const MOST_SHARE = 1.5;
/** So many strokes of a hand are an easy half hour: a week of little practice forbids no more than that. */
const EASY = 4000;

/** Whether the most that is wise is only an easy half hour. */
export const isEasy = (most: number): boolean => most <= EASY;

/**
 * The most strokes of a hand that are wise on a day: half as much again as the mean of the days of the last week that
 * were practised, and never less than an easy half hour. Null where the week tells nothing.
 * @example
 * mostStrokes([3000, 5000]) // => 6000
 * mostStrokes([0, 300]) // => 4000
 * mostStrokes([]) // => null
 */
export function mostStrokes(week: readonly number[]): number | null {
  const played = week.filter((n) => n > 0);
  if (played.length === 0) return null;
  return Math.max(EASY, (MOST_SHARE * played.reduce((a, b) => a + b, 0)) / played.length);
}
