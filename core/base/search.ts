/**
 * The first place from 0 up to `length` at which something holds that holds at every place after it too; `length` where
 * it holds nowhere. Found by halving.
 * @example
 * firstPlace(5, (i) => [1, 3, 3, 7, 9][i] >= 3) // => 1
 * firstPlace(5, () => false) // => 5
 */
export function firstPlace(length: number, holds: (place: number) => boolean): number {
  let [low, high] = [0, length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
