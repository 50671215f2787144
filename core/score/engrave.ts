import { barTicks, isCompound, ticks, unitTicks, type Meter } from '../time';
import { isHand } from '../stroke';
import { barsSpan, landingAt, runsOf, type Pattern } from '../pattern';
import type { Score, ScoreBar, ScoreEvent, ScoreTuplet, ScoreVoice } from './score';
import { VALUE_TICKS, writtenAs } from './values';
import { writeCell, type Onset, type Cell, type WrittenNote } from './cell';

/**
 * A pattern as notes in bars: one voice where hands and feet never sound together, as in a linear phrase, and where a
 * landing is one chord; else hands in one voice, feet in another. Each is filled with rests, so that its lengths add up
 * to the bar exactly. Every stroke stands in exactly one event. What lies on no usual division is moved to the nearest
 * 64th of its cell and named in `rounded`. Strokes at ticks below zero stand in a bar 0 of their own, which begins with
 * the first of them: a pick-up.
 * @example
 * scoreOf(patternOfText(parseStrokeText('R L R L').value, meter(4, 4), GRID.sixteenths)).bars[0].hands.events.map((e) => e.value) // => ["16", "16", "16", "16", "4", "2"]
 */
export function scoreOf(pattern: Pattern): Score {
  const bar = barTicks(pattern.meter);
  const { bars } = barsSpan(pattern);
  const landing = landingAt(pattern);
  const landed = landing === null ? bars : Math.floor((pattern.start + landing) / bar);
  return {
    meter: pattern.meter,
    bars: [...leadBar(pattern, bar), ...Array.from({ length: bars }, (_, i) => barOf(pattern, i, bar, i >= landed))],
  };
}

/** The bar of what leads in: without the rests before it, as one voice. */
function leadBar(pattern: Pattern, bar: number): readonly ScoreBar[] {
  if (!pattern.strokes.some((s) => pattern.start + s.at < 0)) return [];
  const whole = barOf(pattern, -1, bar, true);
  const { events, tuplets } = whole.hands;
  // A rest inside a tuplet belongs to its division.
  const first = events.findIndex((e) => e.strokes.length > 0 || e.tuplet !== null);
  return [{ ...whole, hands: { events: events.slice(first), tuplets } }];
}

function barOf(pattern: Pattern, index: number, bar: number, landing: boolean): ScoreBar {
  const from = index * bar;
  const inBar = pattern.strokes.flatMap((s, i) => {
    const at = pattern.start + s.at - from;
    return at >= 0 && at < bar ? [{ at, i, hand: isHand(s.limb) }] : [];
  });
  const rounded: number[] = [];
  const own = inBar.filter((s) => s.hand);
  const feet = inBar.filter((s) => !s.hand);
  const together = feet.some((f) => own.some((s) => s.at === f.at));
  if (landing || !together)
    return { number: index + 1, hands: voiceOf(pattern.meter, onsetsOf(inBar), rounded), feet: null, rounded };
  return {
    number: index + 1,
    hands: voiceOf(pattern.meter, onsetsOf(own), rounded),
    feet: voiceOf(pattern.meter, onsetsOf(feet), rounded),
    rounded,
  };
}

function onsetsOf(strokes: readonly { readonly at: number; readonly i: number }[]): Onset[] {
  const at = new Map<number, number[]>();
  for (const s of strokes) at.set(s.at, [...(at.get(s.at) ?? []), s.i]);
  return [...at].sort((a, b) => a[0] - b[0]).map(([tick, all]) => ({ at: tick, strokes: all }));
}

/** The beats a bar is written in: quarters in simple meters, the groups of eighths or 16ths in the others. */
function cellsOf(meter: Meter): Cell[] {
  const lengths =
    meter.unit >= 8 && (isCompound(meter) || meter.groups.length > 1)
      ? meter.groups.map((g) => g * unitTicks(meter))
      : Array.from({ length: meter.beats }, () => unitTicks(meter));
  let from = 0;
  return lengths.map((length) => {
    const cell = { from, length };
    from += length;
    return cell;
  });
}

interface Piece extends WrittenNote {
  readonly cell: Cell;
}

function voiceOf(meter: Meter, onsets: readonly Onset[], rounded: number[]): ScoreVoice {
  const bar = barTicks(meter);
  if (onsets.length === 0)
    return {
      events: [{ at: ticks(0), length: bar, strokes: [], value: '1', dots: 0, tuplet: null, beam: null }],
      tuplets: [],
    };
  const cells = cellsOf(meter);
  const pieces: Piece[] = [];
  for (let i = 0; i < cells.length;) {
    const { pieces: found, used } = piecesFrom(cells, i, onsets, rounded);
    pieces.push(...found);
    i += used;
  }
  return joined(pieces, meter);
}

function inside(onsets: readonly Onset[], { from, length }: Cell): Onset[] {
  return onsets.filter((o) => o.at >= from && o.at < from + length);
}

/**
 * The beat from `i` on as pieces: whole, cut into halves or thirds, or joined with the beats after it; at last on the
 * nearest 64th.
 */
function piecesFrom(
  cells: readonly Cell[],
  i: number,
  onsets: readonly Onset[],
  rounded: number[],
): { pieces: Piece[]; used: number } {
  const first = cells[i];
  if (!first) return { pieces: [], used: 1 };
  const alone = whole(first, onsets) ?? cut(first, onsets);
  // Three over two beats are read as three, not as two triplets with holes.
  const pair = cells[i + 1];
  if (
    alone?.some((p) => p.tuplet) &&
    pair &&
    i % 2 === 0 &&
    pair.length === first.length &&
    writtenAs(first.length * 2)
  ) {
    const both = whole({ from: first.from, length: first.length * 2 }, onsets);
    if (both?.[0]?.tuplet?.notes === 3) return { pieces: both, used: 2 };
  }
  if (alone) return { pieces: alone, used: 1 };
  for (let used = 2; i + used <= cells.length; used++) {
    const length = cells.slice(i, i + used).reduce((sum, w) => sum + w.length, 0);
    if (!writtenAs(length)) continue;
    const more = whole({ from: first.from, length }, onsets);
    if (more) return { pieces: more, used };
  }
  return { pieces: nearest(first, onsets, rounded), used: 1 };
}

function whole(cell: Cell, onsets: readonly Onset[]): Piece[] | null {
  const own = inside(onsets, cell);
  const written = writeCell(cell, own);
  return written ? [{ ...written, cell }] : null;
}

/** A cell in two halves, or in its eighths when it is three or more of them, each written by itself. */
function cut(cell: Cell, onsets: readonly Onset[]): Piece[] | null {
  for (const parts of [2, 3, 4, 5, 7]) {
    const length = cell.length / parts;
    if (!writtenAs(length) || length < VALUE_TICKS['16']) continue;
    const all = Array.from({ length: parts }, (_, i) => {
      const part = { from: cell.from + i * length, length };
      return whole(part, onsets) ?? (parts < 4 ? cut(part, onsets) : null);
    });
    if (all.every((p) => p !== null)) return all.flat();
  }
  return null;
}

function nearest(cell: Cell, onsets: readonly Onset[], rounded: number[]): Piece[] {
  const least = VALUE_TICKS['64'];
  const moved = new Map<number, number[]>();
  for (const o of inside(onsets, cell)) {
    const slot = Math.min(Math.round((o.at - cell.from) / least), Math.floor((cell.length - 1) / least));
    const at = cell.from + slot * least;
    if (at !== o.at) rounded.push(...o.strokes);
    moved.set(at, [...(moved.get(at) ?? []), ...o.strokes]);
  }
  const own = [...moved].sort((a, b) => a[0] - b[0]).map(([at, strokes]) => ({ at, strokes }));
  return whole(cell, own) ?? cut(cell, own) ?? silent(cell);
}

/** A cell that cannot be written at all, as rests of 64ths: it keeps the bar full. */
function silent(cell: Cell): Piece[] {
  const least = VALUE_TICKS['64'];
  const events = Array.from({ length: cell.length / least }, (_, i) => ({
    at: ticks(cell.from + i * least),
    length: ticks(least),
    strokes: [],
    value: '64' as const,
    dots: 0 as const,
  }));
  return [{ events, tuplet: null, cell }];
}

/** Pieces put together, with beams inside each cell and neighbouring rests of whole cells made one. */
function joined(pieces: readonly Piece[], meter: Meter): ScoreVoice {
  const tuplets: ScoreTuplet[] = [];
  const events: ScoreEvent[] = [];
  let beam = 0;
  for (const piece of pieces) {
    const tuplet = piece.tuplet ? tuplets.push(piece.tuplet) - 1 : null;
    const lone = beamsIn(piece);
    piece.events.forEach((e, i) => {
      const run = lone[i];
      events.push({ ...e, tuplet, beam: run === undefined ? null : beam + run });
    });
    beam += 1 + lone.reduce<number>((most, r) => Math.max(most, r ?? 0), 0);
  }
  return { events: longerRests(events, meter), tuplets };
}

/** Which beam each event of a piece belongs to, from 0: notes of an eighth or shorter that stand next to each other. */
function beamsIn({ events }: WrittenNote): (number | undefined)[] {
  const short = (e: WrittenNote['events'][number]): boolean =>
    e.strokes.length > 0 && VALUE_TICKS[e.value] <= VALUE_TICKS['8'];
  const beams: (number | undefined)[] = events.map(() => undefined);
  runsOf(events, (a, b) => short(a) && short(b))
    .filter((run) => run.length > 1)
    .forEach((run, nth) => run.forEach((i) => (beams[i] = nth)));
  return beams;
}

/** Two quarter rests on an even beat of a simple meter are a half rest. */
function longerRests(events: readonly ScoreEvent[], meter: Meter): ScoreEvent[] {
  if (meter.unit !== 4 || meter.beats % 2 !== 0) return [...events];
  const out: ScoreEvent[] = [];
  for (const e of events) {
    const before = out.at(-1);
    const both = before && isRest(before, '4') && isRest(e, '4') && before.at % VALUE_TICKS['2'] === 0;
    if (both) out[out.length - 1] = { ...before, length: ticks(before.length + e.length), value: '2' };
    else out.push(e);
  }
  return out;
}

function isRest(e: ScoreEvent, value: ScoreEvent['value']): boolean {
  return e.strokes.length === 0 && e.value === value && e.dots === 0 && e.tuplet === null;
}
