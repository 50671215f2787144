/**
 * What stands at a place of a list that has it. A place that is not there is a fault of ours, not of what was read: it
 * fails loudly, as anything put in its stead would sound like music.
 * @example
 * checkedAt(['R', 'L'], 1, 'limb') // => "L"
 */
export function checkedAt<T>(list: readonly T[], index: number, code: string): T {
  const found = list[index];
  if (found === undefined) throw new RangeError(`${code}: nothing at ${index} of ${list.length}`);
  return found;
}
