// Draws the picture of the floors from the lists that the dependency rules check, so that it cannot be another house.
import { createRequire } from 'node:module';

const { order, floors, sideBySide } = createRequire(import.meta.url)('./floors.cjs');

const WIDE = 860;
const HIGH = 34;
const GAP = 6;
const LEFT = 16;
/** Colours of paper and ink, also where the page is dark. */
const INK = '#2b2622';
const PAPER = '#f6f1e7';
const FLOOR = '#e7dcc6';
const ROOM = '#f6f1e7';

const text = (x, y, words, more = '') =>
  `<text x="${x}" y="${y}" font-family="sans-serif" font-size="14" fill="${INK}" ${more}>${words}</text>`;
const box = (x, y, width, height, fill) =>
  `<rect x="${x}" y="${y}" width="${width}" height="${height}" rx="4" fill="${fill}" stroke="${INK}" stroke-width="1"/>`;

/** The picture as SVG. */
export function floorsPicture() {
  const drawn = [];
  let y = 34;
  drawn.push(text(LEFT, 22, 'app: each floor knows those below it', 'font-weight="600"'));
  for (const floor of floors) {
    drawn.push(box(LEFT, y, WIDE - 2 * LEFT, HIGH, FLOOR), text(LEFT + 12, y + 22, floor));
    const rooms = sideBySide[floor] ?? [];
    rooms.forEach((room, i) => {
      const x = LEFT + 130 + i * 84;
      drawn.push(box(x, y + 5, 78, HIGH - 10, ROOM), text(x + 39, y + 22, room, 'text-anchor="middle"'));
    });
    y += HIGH + GAP;
  }
  y += 26;
  drawn.push(text(LEFT, y - 8, 'core: each folder knows those before it', 'font-weight="600"'));
  const across = 6;
  order.forEach((folder, i) => {
    const width = (WIDE - 2 * LEFT - (across - 1) * GAP) / across;
    const x = LEFT + (i % across) * (width + GAP);
    const top = y + Math.floor(i / across) * (HIGH + GAP);
    drawn.push(box(x, top, width, HIGH, FLOOR), text(x + 12, top + 22, `${i + 1} ${folder}`));
  });
  const height = y + Math.ceil(order.length / across) * (HIGH + GAP) + 10;
  const paper = `<rect width="${WIDE}" height="${height}" fill="${PAPER}"/>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDE} ${height}" width="${WIDE}" height="${height}">${paper}${drawn.join('')}</svg>\n`;
}
