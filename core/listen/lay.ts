import { checkedAt, clamp, firstPlace, sum } from '../base';
import { barTicks, beatTicks, isCompound, TEMPO, TICKS_PER_QUARTER, type Meter, type Ticks } from '../time';
import type { BeatChoice } from './beats';
import type { HeardOnset } from './strokes-heard';

/** A place that is known both ways: a tick of the grid, and the second of the recording where it lies. */
export interface LayMark {
  readonly tick: number;
  readonly at: number;
}

/** A grid as it lies on a recording: straight between marks, going on as it was at both ends. At least two marks. */
export interface Lay {
  readonly meter: Meter;
  /** Ascending in both; tick 0 is the first 1, those before it are below zero. */
  readonly marks: readonly LayMark[];
}

/** Slowest and fastest that a grid may be bent to, in quarters a minute. */
export const LAY_BPM = Object.freeze({ least: 20, most: 600 });
/** A tap means the stroke that is so near, in seconds. */
const TAPPED = 0.08;

/**
 * The note that a tempo counts: dotted in compound meters, else the quarter.
 * @example
 * tempoBeat(meter(6, 8)) // => 7560
 * tempoBeat(meter(7, 8)) // => 5040
 */
export function tempoBeat(m: Meter): Ticks {
  return isCompound(m) ? beatTicks(m) : TICKS_PER_QUARTER;
}

/**
 * An even grid from a tempo and the second of its first 1.
 * @example
 * layTick(evenLay(120, 1, meter(4, 4)), 1.5) // => 5040
 */
export function evenLay(bpm: number, first: number, meter: Meter): Lay {
  const beat = 60 / clamp(bpm, TEMPO.least, TEMPO.most);
  return {
    meter,
    marks: [
      { tick: 0, at: first },
      { tick: tempoBeat(meter), at: first + beat },
    ],
  };
}

/**
 * The grid that goes along with proposed beats, in a meter, with a mark at every bar line between them. Null where
 * there
 * are not two beats.
 */
export function layOf({ beats, first }: BeatChoice, meter: Meter): Lay | null {
  const beat = tempoBeat(meter);
  const points = beats.map((at, i) => ({ tick: (i - first) * beat, at }));
  const [begin, end] = [points[0], points.at(-1)];
  if (points.length < 2 || !begin || !end) return null;
  const fine: Lay = { meter, marks: points };
  const bar = barTicks(meter);
  const lines = Array.from({ length: Math.floor(end.tick / bar) - Math.ceil(begin.tick / bar) + 1 }, (_, i) => {
    const tick = (Math.ceil(begin.tick / bar) + i) * bar;
    return { tick, at: layMoment(fine, tick) };
  });
  const inner = lines.filter((m) => m.tick > begin.tick && m.tick < end.tick);
  return { meter, marks: [begin, ...inner, end] };
}

/** Where taps together lie further than this from an even grid, in seconds, the tempo moves; so many taps tell it. */
const MOVES = 0.02;
const ENOUGH = 8;
/** How many taps apart the grid may bend, and how many on each side of such a place tell where it lies. */
const BEND = 4;
const ROUND = 5;

/**
 * A grid from taps on the beat: each tap means the stroke beside it, and what is tapped is evened out; where the tempo
 * moves, four beats at a time. The first tap is a 1. Null for fewer than three taps, or where they are no tempo.
 * @example
 * layFromTaps([1, 1.51, 1.99, 2.5], [], meter(4, 4)).marks.length // => 2
 * layFromTaps([1], [], meter(4, 4)) // => null
 */
export function layFromTaps(taps: readonly number[], onsets: readonly HeardOnset[], meter: Meter): Lay | null {
  if (taps.length < 3) return null;
  const drawn = taps.map((t) => {
    const near = onsets.filter((o) => Math.abs(o.at - t) <= TAPPED);
    return near.reduce((best, o) => (Math.abs(o.at - t) < Math.abs(best - t) ? o.at : best), near[0]?.at ?? t);
  });
  const whole = line(drawn, 0, drawn.length);
  const bpm = 60 / whole.beat;
  if (!(bpm >= TEMPO.least && bpm <= TEMPO.most)) return null;
  const even = evenLay(bpm, whole.at(0), meter);
  if (drawn.length < ENOUGH) return even;
  const last = drawn.length - 1;
  const bends = drawn.flatMap((_, i) => ((i % BEND === 0 && last - i >= BEND) || i === last ? [i] : []));
  const near = bends.map((i) => {
    const from = clamp(i - ROUND, 0, Math.max(0, drawn.length - 2 * ROUND - 1));
    return line(drawn, from, from + 2 * ROUND + 1).at(i);
  });
  if (near.every((at, k) => Math.abs(at - whole.at(bends[k] ?? 0)) <= MOVES)) return even;
  const marks = near.map((at, k) => ({ tick: (bends[k] ?? 0) * tempoBeat(meter), at }));
  return counted(marks) ? { meter, marks } : even;
}

/** The straight line through taps from one to before another: seconds from tap to tap, and where each tap lies. */
function line(taps: readonly number[], from: number, until: number): { beat: number; at: (i: number) => number } {
  const own = taps.slice(from, until);
  const [mi, mt] = [(own.length - 1) / 2, sum(own) / own.length];
  const beat = sum(own.map((t, i) => (i - mi) * (t - mt))) / sum(own.map((_, i) => (i - mi) ** 2));
  return { beat, at: (i) => mt + (i - from - mi) * beat };
}

/**
 * The tick of a moment, with a fraction.
 * @example
 * layTick(evenLay(60, 2, meter(4, 4)), 1) // => -5040
 */
export function layTick({ marks }: Lay, at: number): number {
  const [a, b] = round(marks, (m) => m.at, at);
  return a.tick + ((at - a.at) * (b.tick - a.tick)) / (b.at - a.at);
}

/** The moment of a tick, in seconds. */
export function layMoment({ marks }: Lay, tick: number): number {
  const [a, b] = round(marks, (m) => m.tick, tick);
  return a.at + ((tick - a.tick) * (b.at - a.at)) / (b.tick - a.tick);
}

/** The two marks between which a value lies, or the two nearest where it lies outside. */
function round(marks: readonly LayMark[], by: (m: LayMark) => number, value: number): readonly [LayMark, LayMark] {
  const after = firstPlace(marks.length, (i) => by(checkedAt(marks, i, 'mark')) > value);
  const low = Math.min(Math.max(0, after - 1), marks.length - 2);
  const [a, b] = [marks[low], marks[low + 1]];
  if (!a || !b) throw new Error('a grid has two marks');
  return [a, b];
}

/**
 * Counted beats a minute round a tick.
 * @example
 * Math.round(bpmAt(evenLay(96, 0, meter(6, 8)), 0)) // => 96
 */
export function bpmAt(lay: Lay, tick: number): number {
  const beat = tempoBeat(lay.meter);
  return 60 / (layMoment(lay, tick + beat / 2) - layMoment(lay, tick - beat / 2));
}

/**
 * A grid whose tick lies at another moment: bent there, and as it was from the marks beside it on. Null where that
 * would
 * be slower or faster than can be counted.
 */
export function bent(lay: Lay, tick: number, at: number): Lay | null {
  const bar = barTicks(lay.meter);
  // Bar lines beside it hold still, so that one that is moved does not move all others.
  const held = [tick - 2 * bar, tick - bar, tick + bar, tick + 2 * bar].map((t) => ({
    tick: t,
    at: layMoment(lay, t),
  }));
  const others = [...lay.marks, ...held].filter((m) => m.tick !== tick);
  const marks = [...others.filter((m, i) => others.findIndex((o) => o.tick === m.tick) === i), { tick, at }].sort(
    (a, b) => a.tick - b.tick,
  );
  return counted(marks) ? { ...lay, marks } : null;
}

function counted(marks: readonly LayMark[]): boolean {
  return marks.slice(1).every((m, i) => {
    const was = marks[i];
    if (!was) return false;
    const bpm = ((m.tick - was.tick) / TICKS_PER_QUARTER / (m.at - was.at)) * 60;
    return m.at > was.at && bpm >= LAY_BPM.least && bpm <= LAY_BPM.most;
  });
}

/**
 * The whole grid moved in time, or its 1 put on another beat.
 * @param ticksOver the 1 comes so many ticks later
 */
export function moved(lay: Lay, seconds: number, ticksOver = 0): Lay {
  return { ...lay, marks: lay.marks.map((m) => ({ tick: m.tick - ticksOver, at: m.at + seconds })) };
}

/**
 * The same beats counted twice as fast, or half: 2 and 1/2. The first 1 stays where it is. Null where nobody counts
 * that.
 */
export function recounted(lay: Lay, times: number): Lay | null {
  const marks = lay.marks.map((m) => ({ ...m, tick: Math.round(m.tick * times) }));
  return counted(marks) ? { ...lay, marks } : null;
}

/** The same beats in another meter. */
export function inMeter(lay: Lay, meter: Meter): Lay {
  const times = tempoBeat(meter) / tempoBeat(lay.meter);
  return { meter, marks: lay.marks.map((m) => ({ ...m, tick: Math.round(m.tick * times) })) };
}

/** Bars that a stretch of a recording reaches into: the first one, from 0, and how many; from line to line. */
export function barsOf(lay: Lay, from: number, to: number): { readonly first: number; readonly many: number } {
  const bar = barTicks(lay.meter);
  // An end a little behind a bar line means that line.
  const slack = bar / 8;
  const first = Math.floor((layTick(lay, from) + slack) / bar);
  const last = Math.ceil((layTick(lay, to) - slack) / bar);
  return { first, many: Math.max(1, last - first) };
}
