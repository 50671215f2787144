import { gridChoices, onGrid } from '../../listen';
import { barTicks, meterText, TICKS_PER_QUARTER, type Meter } from '../../time';
import type { Song, SongBar, SongNote } from './song';

/** A bar that is not the same as one before, and the bars that are the same as it. */
export interface DistinctBar {
  readonly bar: SongBar;
  readonly notes: readonly SongNote[];
  /** Numbers of the bars that repeat it. */
  readonly again: readonly number[];
}

/** Ticks from a bar line that a note may lie early and still belong to the bar behind it: less than any slot. */
const EARLY = 100;

/**
 * The bars of a song with their notes, each kind of bar once: "bars 5–12 are bar 4". Notes are measured from their bar
 * line; one that lies a little before it belongs to it. Bars without a note are left out.
 */
export function distinctBars(song: Song): readonly DistinctBar[] {
  const found = new Map<string, { bar: SongBar; notes: SongNote[]; again: number[] }>();
  let next = 0;
  for (const bar of song.bars) {
    const end = bar.at + barTicks(bar.meter) - EARLY;
    const notes: SongNote[] = [];
    for (; next < song.notes.length; next++) {
      const n = song.notes[next];
      if (!n || n.at >= end) break;
      notes.push({ ...n, at: Math.max(0, n.at - bar.at) });
    }
    if (notes.length === 0) continue;
    const key = likeness(notes, bar.meter, song);
    const same = found.get(key);
    if (same) same.again.push(bar.number);
    else found.set(key, { bar, notes, again: [] });
  }
  return [...found.values()];
}

/** What two bars must have in common to be the same: notes on the same slots, whoever was a little early. */
function likeness(notes: readonly SongNote[], meter: Meter, { written, bpm }: Song): string {
  const ats = notes.map((n) => n.at);
  const msPerTick = 60_000 / bpm / TICKS_PER_QUARTER;
  const [choice] = written ? [] : gridChoices(ats, meter, barTicks(meter), msPerTick);
  const slot = (at: number): number => (choice ? onGrid(at, { ...choice, meter }) : Math.round(at));
  const one = (n: SongNote): string =>
    `${slot(n.at)} ${n.voice ?? n.sound} ${n.level ?? ''} ${n.ornament ?? ''} ${n.limb ?? ''}`;
  return `${meterText(meter)}|${notes.map(one).sort().join('|')}`;
}

/** The notes of some bars on end, measured from the first bar line. */
export function notesOfBars(song: Song, from: number, many: number): readonly SongNote[] {
  const bars = song.bars.slice(from, from + many);
  const [first, last] = [bars[0], bars.at(-1)];
  if (!first || !last) return [];
  const end = last.at + barTicks(last.meter) - EARLY;
  return song.notes
    .filter((n) => n.at >= first.at - EARLY && n.at < end)
    .map((n) => ({ ...n, at: Math.max(0, n.at - first.at) }));
}

/**
 * How many bars on end from one on have its meter: so many can be taken as one phrase.
 * @example
 * barsAlike([{ number: 1, at: 0, meter: meter(4, 4) }, { number: 2, at: 20160, meter: meter(3, 4) }], 0) // => 1
 */
export function barsAlike(bars: readonly SongBar[], from: number): number {
  const own = bars[from];
  if (!own) return 0;
  let many = 1;
  while (bars[from + many] && meterText(bars[from + many]?.meter ?? own.meter) === meterText(own.meter)) many++;
  return many;
}

/**
 * Numbers in words, runs as "5–12".
 * @example
 * runsWords([2, 5, 6, 7, 9, 10]) // => "2, 5–7, 9, 10"
 */
export function runsWords(numbers: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const n of numbers) {
    const last = runs.at(-1);
    if (last && n === last[1] + 1) last[1] = n;
    else runs.push([n, n]);
  }
  return runs.map(([a, b]) => (a === b ? `${a}` : b === a + 1 ? `${a}, ${b}` : `${a}–${b}`)).join(', ');
}
