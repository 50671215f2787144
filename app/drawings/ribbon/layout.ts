import { checkedAt, count as counted } from '@core/base';
import { barTicks, beatTicks, gridName, ticks } from '@core/time';
import { isHand, type Stroke } from '@core/stroke';
import { pickupBar, pickupOf, pickupRoles, rolesOf, withoutPickup, type Pattern, type Role } from '@core/pattern';
import { frameOf } from './frame';
import { withLabels } from './labels';
import { MEASURES, measuresOf, ROOM_FOR_LABELS, type Measures, SUNG_ROOM, TYPES_ROOM } from './measures';
import type { RibbonLayout, RibbonOptions, RibbonRow } from './model';
import { blockOf, stemOf } from './shapes';
import { countsOf, gridLines, groupsIn, sungOf, typesOf } from './texts';

/** What all rows of one drawing share. Lengths in px, `scale` in px a tick. */
interface Sheet {
  readonly options: RibbonOptions;
  readonly m: Measures;
  readonly scale: number;
  readonly sungRoom: number;
  readonly typesRoom: number;
  /** From the top of a row to its hands. */
  readonly headRoom: number;
  readonly rowHeight: number;
}

/** Which ticks a row shows, and where it stands. */
interface RowAt {
  readonly from: number;
  readonly until: number;
  readonly top: number;
  readonly inset: number;
  readonly head: string | null;
}

/** A stroke of a row, and the middle of its slot. */
interface Drawn {
  readonly stroke: Stroke;
  readonly index: number;
  readonly x: number;
}

/** One pattern as rows of shapes. Pure: the same pattern and width give the same drawing, in every size. */
export function ribbonLayout(pattern: Pattern, options: RibbonOptions): RibbonLayout {
  const usual = MEASURES[options.size];
  const first = frameOf(pattern, options, usual);
  const m = measuresOf(options.size, first.rows.length);
  const frame = m === usual ? first : frameOf(pattern, options, m);
  const named = options.bars !== undefined || (options.size === 'bench' && frame.rows.length > 1);
  const sheet = sheetOf(pattern, options, m, frame.scale, named);
  const bar = barTicks(pattern.meter);
  const roles = rolesOf(pattern);
  const rows = frame.rows.map((span, i) =>
    rowOf(sheet, withoutPickup(pattern), roles, {
      ...span,
      top: i * (sheet.rowHeight + m.gap),
      inset: frame.inset,
      head: named ? `bar ${Math.floor(span.from / bar) + 1}` : null,
    }),
  );
  return {
    start: pattern.start,
    grid: pattern.grid,
    width: frame.width,
    height: rows.length * sheet.rowHeight + Math.max(0, rows.length - 1) * m.gap + 1,
    rows,
    lead: frame.rows[0]?.from === 0 ? leadOf(sheet, pattern) : null,
    size: options.size,
    title: titleOf(pattern),
  };
}

function sheetOf(pattern: Pattern, options: RibbonOptions, m: Measures, scale: number, named: boolean): Sheet {
  const sungRoom = options.sung ? SUNG_ROOM : 0;
  // Where both hands strike together their letters stand in lines of their own.
  const typesLines = !options.types || m.counts === 0 ? 0 : handUnisons(pattern).size > 0 ? 2 : 1;
  const typesRoom = typesLines > 0 ? TYPES_ROOM * typesLines + 3 : 0;
  const headRoom = m.counts + (named ? 13 : 0) + sungRoom + typesRoom;
  return { options, m, scale, sungRoom, typesRoom, headRoom, rowHeight: headRoom + m.hands * 2 + m.floor + m.brackets };
}

function rowOf(sheet: Sheet, pattern: Pattern, roles: readonly Role[], at: RowAt): RibbonRow {
  const { options, m, scale, headRoom, rowHeight, sungRoom, typesRoom } = sheet;
  const { from, until, top, inset, head } = at;
  const line = top + headRoom + m.hands;
  const floor = line + m.hands + m.floor;
  const place = (tick: number): number => inset + (tick - from) * scale;
  const slot = pattern.grid * scale;
  const inRow = (tick: number): boolean => pattern.start + tick >= from && pattern.start + tick < until;
  const mine = pattern.strokes.flatMap((stroke, index): Drawn[] =>
    inRow(stroke.at) ? [{ stroke, index, x: place(pattern.start + stroke.at) + slot / 2 }] : [],
  );
  const noCounts = m.counts === 0 || options.hide?.includes('counts');
  return {
    ...{ top, height: rowHeight, line, floor, from, until, scale, inset, head },
    left: place(from),
    right: place(until),
    countY: top + headRoom - sungRoom - typesRoom - 10,
    sung: sungOf(mine, options.sung),
    types: typesRoom > 0 ? typesOf(pattern, mine, top + headRoom - 5, typesRoom > 2 * TYPES_ROOM ? TYPES_ROOM : 0) : [],
    bodyTop: top + headRoom,
    lines: gridLines(pattern, from, until).map((l) => ({ x: place(l.tick), weight: l.weight })),
    counts: noCounts ? [] : countsOf(pattern, options, from, until, slot, place),
    ...groupsOf(sheet, pattern, at, place),
    stems: stemsOf(sheet, pattern, roles, mine, { line, slot, right: place(until), top: top + headRoom }),
    blocks: mine
      .filter(({ stroke }) => !isHand(stroke.limb))
      .map(({ stroke, index, x }) =>
        blockOf(stroke, { index, x, floor, slot, role: checkedAt(roles, index, 'role') }, m),
      ),
  };
}

/** The groups of a row: every other one tinted, and brackets under them where there is room. */
function groupsOf(
  { options, m, scale }: Sheet,
  pattern: Pattern,
  { from, until }: RowAt,
  place: (tick: number) => number,
): Pick<RibbonRow, 'tints' | 'brackets'> {
  const groups = groupsIn(pattern, from, until);
  const tinted = options.size === 'card' ? [] : groups.filter((g) => g.repeat % 2 === 0);
  return {
    tints: tinted.map((g) => ({ x: place(g.from), width: (g.until - g.from) * scale })),
    brackets: (m.brackets < ROOM_FOR_BRACKETS ? [] : groups).map(({ text, close, open, goesOn, ...g }) => ({
      x1: place(g.from) + 2,
      x2: place(g.until) - 2,
      ...{ text, close, open, goesOn },
    })),
  };
}

function stemsOf(
  { options, m }: Sheet,
  pattern: Pattern,
  roles: readonly Role[],
  mine: readonly Drawn[],
  at: { readonly line: number; readonly slot: number; readonly right: number; readonly top: number },
): RibbonRow['stems'] {
  const { line, slot, right, top } = at;
  const bothHands = handUnisons(pattern);
  const letters = !options.hide?.includes('letters');
  const hands = mine.filter(({ stroke }) => isHand(stroke.limb));
  return withLabels(
    hands.map(({ stroke, index, x }) => {
      const together = bothHands.has(stroke.at);
      return stemOf(stroke, m, { index, x, line, slot, together, role: checkedAt(roles, index, 'role'), letters });
    }),
    { right, top, bottom: line + m.hands, narrow: slot < ROOM_FOR_LABELS },
  );
}

/** The row of the pick-up, left of the first; null where nothing leads in. */
function leadOf(sheet: Sheet, pattern: Pattern): RibbonRow | null {
  const led = pickupBar(pattern);
  if (!led) return null;
  const { m } = sheet;
  // Strokes of the pick-up count on after those of the loop, at their own ticks before the 1.
  const own = <T extends { readonly index: number; readonly stroke: Stroke }>(drawn: T): T => ({
    ...drawn,
    index: pattern.strokes.length + drawn.index,
    stroke: { ...drawn.stroke, at: ticks(drawn.stroke.at - led.length) },
  });
  const until = barTicks(pattern.meter);
  const row = rowOf(sheet, led, pickupRoles(pattern), { from: led.start, until, top: 0, inset: m.pad, head: null });
  const fits = m.brackets >= ROOM_FOR_BRACKETS && row.right - row.left >= ROOM_FOR_NAME;
  const name = { x1: row.left + 2, x2: row.right - 2, text: 'pick-up', close: false, open: false, goesOn: false };
  return { ...row, stems: row.stems.map(own), blocks: row.blocks.map(own), brackets: fits ? [name] : [] };
}

/** Groups are bracketed where so much room is under the feet, in px. */
const ROOM_FOR_BRACKETS = 20;
/** A pick-up is named where its name fits under it, in px. */
const ROOM_FOR_NAME = 52;

/** Ticks at which both hands strike. */
function handUnisons(pattern: Pattern): ReadonlySet<number> {
  const hands = pattern.strokes.filter((s) => isHand(s.limb));
  return new Set(hands.filter((s, i) => hands[i + 1]?.at === s.at).map((s) => s.at));
}

function titleOf(pattern: Pattern): string {
  const beats = Math.round((100 * pattern.length) / beatTicks(pattern.meter)) / 100;
  const lead = pickupOf(pattern).length;
  const before = lead > 0 ? `, ${lead} before the 1` : '';
  return `${counted(pattern.strokes.length, 'stroke')} on ${gridName(pattern.grid)} over ${counted(beats, 'beat')}${before}`;
}
