/** A value of a table: a number stays one, a text is quoted where it must be. */
export type Cell = string | number | null;

/**
 * Rows as comma-separated values (RFC 4180: CRLF, quotes doubled). A text that a spreadsheet would take for a formula
 * gets an apostrophe before it, as is usual against such texts.
 * @example
 * csvText([['Name', 'Tempo (bpm)'], ['Glass, over "five"', 96.5], ['=1+1', null]]) // => 'Name,Tempo (bpm)\r\n"Glass, over ""five""",96.5\r\n\'=1+1,\r\n'
 */
export function csvText(rows: readonly (readonly Cell[])[]): string {
  return rows.map((row) => row.map(cellText).join(',') + '\r\n').join('');
}

function cellText(cell: Cell): string {
  if (cell === null) return '';
  if (typeof cell === 'number') return Number.isFinite(cell) ? String(cell) : '';
  const safe = /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
