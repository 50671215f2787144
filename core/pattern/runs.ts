/**
 * Neighbours that go on from one another, as runs of indexes in order: the one way in which strokes in a row are
 * counted. `goesOn` says whether the second of two neighbours belongs to the run of the first.
 * @example
 * runsOf([1, 2, 4, 5, 6], (a, b) => b === a + 1) // => [[0, 1], [2, 3, 4]]
 * runsOf([], () => true) // => []
 */
export function runsOf<T>(
  items: readonly T[],
  goesOn: (before: T, after: T) => boolean,
): readonly (readonly number[])[] {
  const runs: number[][] = [];
  items.forEach((item, i) => {
    const before = items[i - 1];
    if (i > 0 && before !== undefined && goesOn(before, item)) runs.at(-1)?.push(i);
    else runs.push([i]);
  });
  return runs;
}
