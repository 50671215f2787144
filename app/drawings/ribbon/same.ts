/**
 * Whether two drawings look the same: values and shapes alike, whatever the numbers of their strokes. A row that looks
 * as it did is not drawn again when strokes came before it.
 */
export function looksAlike(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a)) return Array.isArray(b) && a.length === b.length && a.every((v, i) => looksAlike(v, b[i]));
  const [left, right] = [Object.entries(a), b as Readonly<Record<string, unknown>>];
  return (
    left.length === Object.keys(b).length && left.every(([key, v]) => key === 'index' || looksAlike(v, right[key]))
  );
}
