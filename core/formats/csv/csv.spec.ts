import fc from 'fast-check';
import { csvText, type Cell } from '.';

/** A reader of its own, by RFC 4180, letter by letter. */
function read(text: string): string[][] {
  const rows: string[][] = [];
  let [row, cell, quoted]: [string[], string, boolean] = [[], '', false];
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!;
    if (quoted) {
      if (c === '"' && text[i + 1] === '"') {
        cell += '"';
        i++;
      } else if (c === '"') quoted = false;
      else cell += c;
    } else if (c === '"') quoted = true;
    else if (c === ',') {
      row.push(cell);
      cell = '';
    } else if (c === '\r' && text[i + 1] === '\n') {
      rows.push([...row, cell]);
      [row, cell] = [[], ''];
      i++;
    } else cell += c;
  }
  return rows;
}

const cell: fc.Arbitrary<Cell> = fc.oneof(
  fc.constant(null),
  fc.double({ noNaN: true, noDefaultInfinity: true }),
  fc.string(),
  fc.constantFrom('=1+1', '+x', '-x', '@a', '\tx', 'a,b', '"', 'a\r\nb', 'Über „Rand“'),
);

describe('comma-separated values', () => {
  it('read back as they were, and no text is a formula', () => {
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 1, maxLength: 5 }), { maxLength: 6 }), (rows) => {
        const got = read(csvText(rows));
        expect(got.map((r) => r.length)).toEqual(rows.map((r) => r.length));
        rows.forEach((row, i) =>
          row.forEach((c, j) => {
            const text = got[i]![j]!;
            if (c === null) expect(text).toBe('');
            else if (typeof c === 'number') expect(Number(text)).toBe(c);
            else {
              expect(text === c || text === `'${c}`).toBe(true);
              expect(text).not.toMatch(/^[=+\-@\t\r]/);
            }
          }),
        );
      }),
    );
  });
});
