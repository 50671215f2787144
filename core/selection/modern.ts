import { chooses, type Facets } from './facets';

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;

/** Whether it is what a move chose with before selections were expressions: an object that says no kind. */
const isEarlier = (value: unknown): value is Facets => isObject(value) && !Array.isArray(value) && !('is' in value);

/**
 * A row as it was kept, with what its moves choose as expressions, wherever in it moves stand; the row itself where
 * there is nothing of before. What is no move is not looked into twice, and nothing is judged: the rules do that.
 * @example
 * withSelections({ moves: [{ move: 'drop', params: { select: { limbs: ['K'] } } }] }) // => { moves: [{ move: 'drop', params: { select: { is: 'limb', limbs: ['K'] } } }] }
 */
export function withSelections(row: unknown): unknown {
  if (!isObject(row) || ArrayBuffer.isView(row)) return row;
  if (Array.isArray(row)) {
    const now = row.map(withSelections);
    return now.every((one, i) => one === row[i]) ? row : now;
  }
  const { move, params } = row;
  if (typeof move === 'string' && isObject(params) && isEarlier(params['select']))
    return { ...row, params: { ...params, select: expression(params['select']) } };
  let changed: Record<string, unknown> | null = null;
  for (const [key, value] of Object.entries(row)) {
    const now = withSelections(value);
    if (now !== value) (changed ??= { ...row })[key] = now;
  }
  return changed ?? row;
}

/** As it was, where it is damaged: the rules say so. */
function expression(facets: Facets): unknown {
  const lists = ['limbs', 'levels', 'voices', 'places', 'counts', 'bars', 'repeats', 'roles', 'ticks'] as const;
  if (lists.some((key) => facets[key] !== undefined && !Array.isArray(facets[key]))) return facets;
  if (facets.counts?.some((c: unknown) => typeof c !== 'string')) return facets;
  if (facets.every !== undefined && !isObject(facets.every)) return facets;
  return chooses(facets);
}
