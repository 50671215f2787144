/**
 * The name of the next of a series: one number more at the end, the first that is free.
 * @example
 * nextName('Rope', () => false) // => "Rope 2"
 * nextName('Rope 2', (n) => n === 'Rope 3') // => "Rope 4"
 */
export function nextName(name: string, taken: (name: string) => boolean): string {
  const match = /^(.*?)\s+(\d{1,6})$/.exec(name.trim());
  const stem = match?.[1] ?? name.trim();
  let n = match ? Number(match[2]) + 1 : 2;
  while (taken(`${stem} ${n}`)) n++;
  return `${stem} ${n}`;
}
