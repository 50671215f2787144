import { clamp, readFail, readOk, type Read } from '../base';
import { beatTicks, GRID, type Grid, type Meter } from '../time';

/** One tap on a key: when, in seconds, and which hand or foot it stands for. */
export interface Tap {
  readonly seconds: number;
  readonly limb: 'R' | 'L' | 'K';
}

/** Taps laid on even slots. */
export interface TappedRhythm {
  /** Length of a slot in seconds. */
  readonly slot: number;
  /** Stroke text of the slots, rests included. */
  readonly text: string;
  /** What the slots are read as: triplets where it goes long and short, else the grid that gives a usual tempo. */
  readonly grid: Grid;
  /** How far the taps lie from their slots on average, as a share of a slot: 0 is exact, 0.25 can mean anything. */
  readonly loose: number;
}

/** Taps closer than this are meant together: twice the distance at which two hands still sound as one. */
const TOGETHER_SECONDS = 0.045;
/** The shortest slot that taps are read on: 16ths at 250 beats a minute. */
const LEAST_SLOT = 0.06;
/**
 * What one more slot between two taps costs against a share of error squared: makes a slow grid win over a fine one
 * that fits a little better.
 */
const FINENESS = 0.006;
const MOST_SLOTS = 512;

/**
 * Finds the even slots under taps that were made without a click: the slot length that the distances between taps are
 * nearest to whole multiples of, with coarse slots preferred. Each distance is then a number of slots. Fails with
 * `too-few` for fewer than three moments.
 * @example
 * quantiseTaps([0, 0.2, 0.4, 0.8].map((seconds) => ({ seconds, limb: 'R' }))).value.text // => "R R R - R"
 * quantiseTaps([{ seconds: 0, limb: 'R' }]).problems[0].code // => "too-few"
 * quantiseTaps([0, 0.4, 0.6, 1, 1.2].map((seconds) => ({ seconds, limb: 'R' }))).value.grid === GRID.triplets // =>
 * true
 */
export function quantiseTaps(taps: readonly Tap[]): Read<TappedRhythm, 'too-few'> {
  const moments = together([...taps].sort((a, b) => a.seconds - b.seconds));
  if (moments.length < 3) return readFail('too-few', null, 'Tap at least three strokes.');
  const gaps = moments.slice(1).map((m, i) => m.seconds - (moments[i]?.seconds ?? 0));
  const slot = bestSlot(gaps);
  const counts = gaps.map((g) => Math.max(1, Math.round(g / slot)));
  const text: string[] = [];
  moments.forEach((m, i) => {
    if (text.length >= MOST_SLOTS) return;
    text.push(m.limbs.join('+'));
    for (let rest = 1; rest < (counts[i] ?? 1) && text.length < MOST_SLOTS; rest++) text.push('-');
  });
  const loose = gaps.reduce((sum, g, i) => sum + Math.abs(g / slot - (counts[i] ?? 1)), 0) / gaps.length;
  return readOk({ slot, text: text.join(' '), grid: gridOf(slot, counts), loose });
}

/** Slower than this, in beats a minute, nobody means 16ths. */
const SLOWEST = 56;

/** Long and short in turn, twice at least, are triplets with the middle one left out: how swung eighths are counted. */
function gridOf(slot: number, counts: readonly number[]): Grid {
  let at = 0;
  const places = [0, ...counts.map((n) => (at += n) % 3)];
  const short = places.filter((p) => p === 2).length;
  if (short >= 2 && places.every((p) => p !== 1)) return GRID.triplets;
  const usual = [GRID.sixteenths, GRID.eighths, GRID.quarters];
  return usual.find((grid) => (60 * grid) / (slot * GRID.quarters) >= SLOWEST) ?? GRID.quarters;
}

interface Moment {
  readonly seconds: number;
  readonly limbs: readonly string[];
}

function together(taps: readonly Tap[]): Moment[] {
  const moments: Moment[] = [];
  for (const tap of taps) {
    const last = moments.at(-1);
    if (last && tap.seconds - last.seconds < TOGETHER_SECONDS && !last.limbs.includes(tap.limb))
      moments[moments.length - 1] = { seconds: last.seconds, limbs: [...last.limbs, tap.limb] };
    else if (!last || tap.seconds > last.seconds) moments.push({ seconds: tap.seconds, limbs: [tap.limb] });
  }
  return moments;
}

function bestSlot(gaps: readonly number[]): number {
  const candidates = gaps.flatMap((g) => [1, 2, 3, 4, 5, 6].map((k) => g / k)).filter((s) => s >= LEAST_SLOT);
  let best = { slot: Math.max(LEAST_SLOT, Math.min(...gaps)), cost: Infinity };
  for (const first of candidates) {
    // The slot that fits the whole numbers best in the least-squares sense.
    const ns = gaps.map((g) => Math.max(1, Math.round(g / first)));
    const slot = gaps.reduce((sum, g, i) => sum + g * (ns[i] ?? 1), 0) / ns.reduce((sum, n) => sum + n * n, 0);
    const error = gaps.reduce((sum, g, i) => sum + (g / slot - (ns[i] ?? 1)) ** 2, 0) / gaps.length;
    const cost = error + FINENESS * (ns.reduce((sum, n) => sum + n, 0) / gaps.length);
    if (cost < best.cost) best = { slot, cost };
  }
  return best.slot;
}

/**
 * The tempo, in counted beats a minute, at which slots of a grid last so many seconds; held between 20 and 400.
 * @example
 * tempoOfSlot(0.125, GRID.sixteenths, meter(4, 4)) // => 120
 */
export function tempoOfSlot(seconds: number, grid: Grid, meter: Meter): number {
  return clamp(Math.round((60 * grid) / (seconds * beatTicks(meter))), 20, 400);
}
