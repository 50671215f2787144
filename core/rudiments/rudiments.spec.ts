import { isHand, parseStrokeText, printStrokeText, slotCount, slotsOf } from '../stroke';
import { RUDIMENT_FAMILIES, RUDIMENTS, rudimentById, searchRudiments } from '.';

const parsed = (text: string) => {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(read.problems[0].message);
  return read.value;
};

describe('the catalogue', () => {
  it('holds forty rudiments with ids and names of their own', () => {
    expect(RUDIMENTS).toHaveLength(40);
    expect(new Set(RUDIMENTS.map((r) => r.id)).size).toBe(40);
    expect(new Set(RUDIMENTS.map((r) => r.name)).size).toBe(40);
  });
  it('every family has some', () =>
    RUDIMENT_FAMILIES.forEach((f) => expect(RUDIMENTS.some((r) => r.family === f)).toBe(true)));

  it.each(RUDIMENTS.map((r) => [r.name, r] as const))(
    '%s reads, is printed as it is written, is for hands and fills whole eighths',
    (_, r) => {
      const nodes = parsed(r.text);
      expect(printStrokeText(nodes)).toBe(r.text);
      expect(
        slotsOf(nodes)
          .flat()
          .every((s) => isHand(s.limb)),
      ).toBe(true);
      expect((slotCount(nodes) * r.grid) % 2520).toBe(0);
    },
  );

  it.each([
    ['five-stroke-roll', 5],
    ['six-stroke-roll', 6],
    ['seven-stroke-roll', 7],
    ['nine-stroke-roll', 9],
    ['ten-stroke-roll', 10],
    ['eleven-stroke-roll', 11],
    ['thirteen-stroke-roll', 13],
    ['fifteen-stroke-roll', 15],
    ['seventeen-stroke-roll', 17],
    ['single-stroke-four', 4],
    ['single-stroke-seven', 7],
  ])('%s has %d strokes, twice', (id, n) => {
    expect(slotsOf(parsed(rudimentById(id)!.text)).flat()).toHaveLength(2 * n);
  });

  it('is searched by any words', () => {
    expect(searchRudiments('ratamacue')).toHaveLength(3);
    expect(searchRudiments('no such thing')).toEqual([]);
  });
});
