import { ticks } from '../time';
import type { ScoreEvent, ScoreTuplet } from './score';
import { VALUE_TICKS, writtenAs } from './values';

/** Strokes of one voice that begin together. */
export interface Onset {
  readonly at: number;
  readonly strokes: readonly number[];
}

/** A stretch of a bar that is written by itself: a beat, or several when something reaches over the beat. */
export interface Cell {
  readonly from: number;
  readonly length: number;
}

export interface WrittenNote {
  readonly events: readonly Omit<ScoreEvent, 'beam' | 'tuplet'>[];
  readonly tuplet: ScoreTuplet | null;
}

const LEAST = VALUE_TICKS['64'];
const TUPLETS = [3, 5, 6, 7, 9, 10, 12] as const;
/** In a dotted beat the even divisions are the odd ones out. */
const DOTTED_TUPLETS = [2, 4, 5, 7, 8, 10] as const;

/**
 * Writes the onsets of one cell with as few signs as can be read: plain values where they fit, else one tuplet for the
 * whole cell. Null when neither does: the cell has to be cut or joined with the next.
 */
export function writeCell(cell: Cell, onsets: readonly Onset[]): WrittenNote | null {
  const dotted = isDotted(cell.length);
  const offsets = onsets.map((o) => o.at - cell.from);
  if (offsets.every((t) => t % LEAST === 0)) {
    const events = spell(cell, onsets, unitOf(offsets, cell.length), 1);
    if (events) return { events, tuplet: null };
  }
  for (const notes of dotted ? DOTTED_TUPLETS : TUPLETS) {
    const part = cell.length / notes;
    if (!Number.isInteger(part) || !offsets.every((t) => t % part === 0)) continue;
    const inTimeOf = dotted ? (notes < 6 ? 3 : 6) : 2 ** Math.floor(Math.log2(notes));
    const written = cell.length / inTimeOf;
    if (!writtenAs(written)) continue;
    const events = spell(cell, onsets, part, written / part);
    if (events) return { events, tuplet: { notes, inTimeOf } };
  }
  return null;
}

function isDotted(length: number): boolean {
  return [...Object.values(VALUE_TICKS)].some((v) => v * 1.5 === length);
}

/** The coarsest slot, from the cell's length down by halves, on which all onsets lie. */
function unitOf(offsets: readonly number[], length: number): number {
  let unit = isDotted(length) ? length / 3 : length;
  while (unit > LEAST && !offsets.every((t) => t % unit === 0)) unit /= 2;
  return Math.max(LEAST, unit);
}

/**
 * Notes that last as far as one sign can say, and rests after them. `stretch` is written ticks to a real tick, inside a
 * tuplet.
 */
function spell(
  cell: Cell,
  onsets: readonly Onset[],
  unit: number,
  stretch: number,
): Omit<ScoreEvent, 'beam' | 'tuplet'>[] | null {
  const slots = cell.length / unit;
  if (!Number.isInteger(slots)) return null;
  const starts = new Map(onsets.map((o) => [(o.at - cell.from) / unit, o.strokes]));
  const events: Omit<ScoreEvent, 'beam' | 'tuplet'>[] = [];
  let at = 0;
  while (at < slots) {
    const strokes = starts.get(at) ?? [];
    let until = at + 1;
    while (until < slots && !starts.has(until)) until++;
    const size = sizeAt(at, until - at, slots, unit * stretch, strokes.length > 0);
    if (size === null) return null;
    const written = writtenAs(size * unit * stretch);
    if (!written) return null;
    events.push({ at: ticks(cell.from + at * unit), length: ticks(size * unit), strokes, ...written });
    at += size;
  }
  return events;
}

/**
 * The largest number of slots one sign can stand for at a place: aligned as a reader expects, a note a little freer
 * than a rest.
 */
function sizeAt(at: number, room: number, slots: number, unit: number, note: boolean): number | null {
  for (let size = room; size >= 1; size--) {
    const written = writtenAs(size * unit);
    if (!written) continue;
    if (size === slots) return size;
    if (written.dots === 0 && at % size === 0) return size;
    // A dotted note from the beat, or up to it; two thirds of a dotted beat.
    if (note && written.dots === 1 && (at === 0 || at + size === slots)) return size;
    if (note && slots % 3 === 0 && written.dots === 0 && size * 3 === slots * 2 && at + size === slots) return size;
    if (size === 1) return 1;
  }
  return null;
}
