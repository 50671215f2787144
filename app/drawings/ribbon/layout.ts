import { count as counted } from '@core/base';
import { barTicks, beatTicks, gridName, ticks } from '@core/time';
import { isHand, type Stroke } from '@core/stroke';
import { pickupBar, pickupOf, pickupRoles, rolesOf, withoutPickup, type Pattern, type Role } from '@core/pattern';
import { frameOf } from './frame';
import { withLabels } from './labels';
import { MEASURES, measuresOf, SUNG_ROOM, TYPES_ROOM } from './measures';
import type { RibbonLayout, RibbonOptions, RibbonRow } from './model';
import { blockOf, stemOf } from './shapes';
import { countsOf, gridLines, groupsIn, sungOf, typesOf } from './texts';

/** One pattern as rows of shapes. Pure: the same pattern and width give the same drawing, in every size. */
export function ribbonLayout(pattern: Pattern, options: RibbonOptions): RibbonLayout {
  const usual = MEASURES[options.size];
  const first = frameOf(pattern, options, usual);
  const m = measuresOf(options.size, first.rows.length);
  const frame = m === usual ? first : frameOf(pattern, options, m);
  const named = options.bars !== undefined || (options.size === 'bench' && frame.rows.length > 1);
  const sungRoom = options.sung ? SUNG_ROOM : 0;
  const typesRoom = options.types && m.counts > 0 ? TYPES_ROOM : 0;
  const headRoom = m.counts + (named ? 13 : 0) + sungRoom + typesRoom;
  const rowHeight = headRoom + m.hands * 2 + m.floor + m.brackets;
  const rowOf = (
    pattern: Pattern,
    { from, until }: { readonly from: number; readonly until: number },
    top: number,
    inset: number,
    head: string | null,
    roles: readonly Role[],
  ): RibbonRow => {
    const bothHands = handUnisons(pattern);
    const line = top + headRoom + m.hands;
    const base = {
      top,
      height: rowHeight,
      line,
      floor: line + m.hands + m.floor,
      from,
      until,
      scale: frame.scale,
      inset,
    };
    const place = (tick: number): number => inset + (tick - from) * frame.scale;
    const slot = pattern.grid * frame.scale;
    const inRow = (at: number): boolean => pattern.start + at >= from && pattern.start + at < until;
    const mine = pattern.strokes.flatMap((stroke, index) =>
      inRow(stroke.at) ? [{ stroke, index, x: place(pattern.start + stroke.at) + slot / 2 }] : [],
    );
    return {
      ...base,
      left: place(from),
      right: place(until),
      countY: top + headRoom - sungRoom - typesRoom - 10,
      sung: sungOf(mine, options.sung),
      types: typesRoom > 0 ? typesOf(pattern, mine) : [],
      typesY: top + headRoom - 5,
      bodyTop: top + headRoom,
      head,
      lines: gridLines(pattern, from, until).map((l) => ({ x: place(l.tick), weight: l.weight })),
      counts:
        m.counts === 0 || options.hide?.includes('counts') ? [] : countsOf(pattern, options, from, until, slot, place),
      tints:
        options.size === 'card'
          ? []
          : groupsIn(pattern, from, until)
              .filter((g) => g.repeat % 2 === 0)
              .map((g) => ({ x: place(g.from), width: (g.until - g.from) * frame.scale })),
      brackets:
        m.brackets < 20
          ? []
          : groupsIn(pattern, from, until).map((g) => ({
              x1: place(g.from) + 2,
              x2: place(g.until) - 2,
              text: g.text,
              close: g.close,
              open: g.open,
              goesOn: g.goesOn,
            })),
      stems: withLabels(
        mine
          .filter(({ stroke }) => isHand(stroke.limb))
          .map(({ stroke, index, x }) =>
            stemOf(stroke, m, {
              index,
              x,
              line,
              slot,
              together: bothHands.has(stroke.at),
              role: roles[index] ?? 'texture',
              letters: !options.hide?.includes('letters'),
            }),
          ),
        place(until),
      ),
      blocks: mine
        .filter(({ stroke }) => !isHand(stroke.limb))
        .map(({ stroke, index, x }) =>
          blockOf(stroke, { index, x, floor: base.floor, slot, role: roles[index] ?? 'texture' }, m),
        ),
    };
  };
  const bar = barTicks(pattern.meter);
  const roles = rolesOf(pattern);
  const rows = frame.rows.map((span, i) =>
    rowOf(
      withoutPickup(pattern),
      span,
      i * (rowHeight + m.gap),
      frame.inset,
      named ? `bar ${Math.floor(span.from / bar) + 1}` : null,
      roles,
    ),
  );
  const led = frame.rows[0]?.from === 0 ? pickupBar(pattern) : null;
  // Strokes of the pick-up count on after those of the loop, at their own ticks before the 1.
  const own = <T extends { readonly index: number; readonly stroke: Stroke }>(drawn: T): T => ({
    ...drawn,
    index: pattern.strokes.length + drawn.index,
    stroke: { ...drawn.stroke, at: ticks(drawn.stroke.at - (led?.length ?? 0)) },
  });
  const row = led && rowOf(led, { from: led.start, until: bar }, 0, m.pad, null, pickupRoles(pattern));
  const fits = row && m.brackets >= 20 && row.right - row.left >= ROOM_FOR_NAME;
  const lead = row && {
    ...row,
    stems: row.stems.map(own),
    blocks: row.blocks.map(own),
    brackets: fits
      ? [{ x1: row.left + 2, x2: row.right - 2, text: 'pick-up', close: false, open: false, goesOn: false }]
      : [],
  };
  const height = rows.length * rowHeight + Math.max(0, rows.length - 1) * m.gap + 1;
  return {
    start: pattern.start,
    grid: pattern.grid,
    width: frame.width,
    height,
    rows,
    lead,
    size: options.size,
    title: titleOf(pattern),
  };
}

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
