// The assignment of rows to columns of the least cost: shortest augmenting paths with potentials (Jonker & Volgenant
// 1987, A shortest augmenting path algorithm for dense and sparse linear assignment problems).

/**
 * The column of each row so that the sum of costs is least, each column once. `costs` has as many columns as rows or
 * more; a pair that must not be is Infinity. Null where there is no such assignment.
 * @example
 * assign([[4, 1], [2, 3]]) // => { columns: [1, 0], cost: 3 }
 */
export function assign(
  costs: readonly (readonly number[])[],
): { readonly columns: readonly number[]; readonly cost: number } | null {
  const rows = costs.length;
  const many = costs[0]?.length ?? 0;
  const u = new Float64Array(rows + 1);
  const v = new Float64Array(many + 1);
  // The row of each column, from 1; 0 where it is free. Column 0 is where a path begins.
  const rowOf = new Int32Array(many + 1);
  const way = new Int32Array(many + 1);
  for (let row = 1; row <= rows; row++) {
    rowOf[0] = row;
    let at = 0;
    const least = new Float64Array(many + 1).fill(Infinity);
    const used = new Uint8Array(many + 1);
    do {
      used[at] = 1;
      const own = rowOf[at] ?? 0;
      let [delta, next] = [Infinity, 0];
      for (let column = 1; column <= many; column++) {
        if (used[column]) continue;
        const reduced = (costs[own - 1]?.[column - 1] ?? Infinity) - (u[own] ?? 0) - (v[column] ?? 0);
        if (reduced < (least[column] ?? 0)) {
          least[column] = reduced;
          way[column] = at;
        }
        if ((least[column] ?? 0) < delta) {
          delta = least[column] ?? 0;
          next = column;
        }
      }
      if (delta === Infinity) return null;
      for (let column = 0; column <= many; column++)
        if (used[column]) {
          const own = rowOf[column] ?? 0;
          u[own] = (u[own] ?? 0) + delta;
          v[column] = (v[column] ?? 0) - delta;
        } else least[column] = (least[column] ?? 0) - delta;
      at = next;
    } while (rowOf[at] !== 0);
    do {
      const before = way[at] ?? 0;
      rowOf[at] = rowOf[before] ?? 0;
      at = before;
    } while (at !== 0);
  }
  const columns = new Array<number>(rows).fill(0);
  for (let column = 1; column <= many; column++)
    if ((rowOf[column] ?? 0) > 0) columns[(rowOf[column] ?? 0) - 1] = column - 1;
  return { columns, cost: columns.reduce((sum, c, r) => sum + (costs[r]?.[c] ?? 0), 0) };
}
