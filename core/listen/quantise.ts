import { mod, sum } from '../base';
import {
  beatTicks,
  GRID,
  gridsOf,
  STRAIGHT,
  straightened,
  SWING,
  swung,
  ticks,
  type Feel,
  type Grid,
  type Meter,
  type Ticks,
} from '../time';

const { abs, ceil, floor, max, min, round, sqrt } = Math;

/** A way to lay what was heard on a grid, with what it leaves over. */
export interface GridChoice {
  /** Slot of the home grid in ticks. */
  readonly grid: Grid;
  readonly feel: Feel;
  /** Slot of each beat, in ticks: the home grid's, but where a beat clearly plays another. */
  readonly beats: readonly Grid[];
  /** Beats on another grid than the home one. */
  readonly mixed: number;
  /** How far the notes lie beside their slots, in ms: on average, and at worst. */
  readonly mean: number;
  readonly worst: number;
}

/** What a slot more to the quarter must save, in ms, to be believed. */
const FINER = 0.8;
/** And a feel, or a beat on a grid of its own. */
const FEEL = 1.5;
const OWN_BEAT = 4;
/** Swing is told from triplets and from straight time between these. */
const SWUNG = { least: 0.53, most: 0.74, triplet: 0.012 } as const;
/** As many ways are shown side by side. */
const SHOWN = 6;

/**
 * The ways to lay notes on a grid, the most likely first: of those that leave little over the one with the widest
 * slots. `ats` are ticks from a bar line, with fractions, ascending; `length` is how many ticks are heard in all, whole
 * bars; `msPerTick` is how long a tick lasts. Empty where there is no note.
 * @example
 * gridChoices([0, 1263, 2518, 3781], meter(4, 4), 20160, 0.1)[0].grid // => 1260
 * gridChoices([0, 3024, 5040, 8064, 10080, 13104], meter(4, 4), 20160, 0.1)[0].feel // => { kind: 'swung', on: 'eighths', ratio: 0.6 }
 * gridChoices([], meter(4, 4), 20160, 0.1) // => []
 */
export function gridChoices(
  ats: readonly number[],
  meter: Meter,
  length: number,
  msPerTick: number,
): readonly GridChoice[] {
  if (ats.length === 0) return [];
  const straight = gridsOf(meter).flatMap((grid) =>
    [true, false].map((own) => choiceOf(ats, meter, length, msPerTick, grid, STRAIGHT, own)),
  );
  const feels = (['eighths', '16ths'] as const).flatMap((on): GridChoice[] => {
    const ratio = ratioOf(ats, on);
    if (ratio === null) return [];
    const home = on === 'eighths' ? GRID.eighths : GRID.sixteenths;
    return [home, ticks(home / 2)].map((grid) =>
      choiceOf(ats, meter, length, msPerTick, grid, { kind: 'swung', on, ratio }, true),
    );
  });
  const kept: GridChoice[] = [];
  for (const c of [...straight, ...feels].sort((a, b) => cost(a) - cost(b) || b.grid - a.grid)) {
    // A finer grid that leaves as much over as one before it says nothing new, nor does one that few beats are on.
    const said = kept.some(
      (b) =>
        b.feel.kind === c.feel.kind &&
        (b.grid === c.grid ? b.mixed === c.mixed : b.grid % c.grid === 0 && b.mean < c.mean + 0.5),
    );
    if (kept.length === 0 || !(said || c.mixed * 2 > c.beats.length)) kept.push(c);
  }
  return kept.slice(0, SHOWN);
}

function cost({ mean, worst, grid, feel, mixed, beats }: GridChoice): number {
  const own = mixed === 0 ? 0 : OWN_BEAT * (0.5 + (2 * mixed) / beats.length);
  return mean + worst / 8 + FINER * (GRID.quarters / grid) + (feel.kind === 'swung' ? FEEL : 0) + own;
}

/** Where the middle of each pair lies on average, as a share of the pair; null where that is straight or a triplet. */
function ratioOf(ats: readonly number[], on: 'eighths' | '16ths'): number | null {
  const pair = 2 * (on === 'eighths' ? GRID.eighths : GRID.sixteenths);
  const inside = ats.map((at) => mod(at, pair) / pair).filter((x) => x > 0.4 && x < 0.8);
  if (inside.length < 2) return null;
  const mean = sum(inside) / inside.length;
  const spread = sqrt(sum(inside.map((x) => (x - mean) ** 2)) / inside.length);
  const odd = mean < SWUNG.least || mean > SWUNG.most || abs(mean - 2 / 3) < SWUNG.triplet;
  if (odd || spread > 0.04) return null;
  return min(SWING.most, round(mean * 1000) / 1000);
}

function choiceOf(
  ats: readonly number[],
  meter: Meter,
  length: number,
  msPerTick: number,
  grid: Grid,
  feel: Feel,
  own: boolean,
): GridChoice {
  const beat = beatTicks(meter);
  const plain = ats.map((at) => straightened(at, feel));
  const many = max(1, ceil(length / beat));
  const inBeats: number[][] = Array.from({ length: many }, () => []);
  // What lies a little before a beat belongs to it.
  plain.forEach((at) => inBeats[min(many - 1, max(0, floor((at + beat / 24) / beat)))]?.push(at));
  const off = (at: number, slot: number): number => abs(at - round(at / slot) * slot) * msPerTick;
  const usual = sum(plain.map((at) => off(at, grid))) / plain.length;
  const beats = inBeats.map((inBeat) => {
    const here = sum(inBeat.map((at) => off(at, grid))) / max(1, inBeat.length);
    if (!own || beat % grid !== 0 || inBeat.length < 2 || here < 3 * min(usual, 6) + 5) return grid;
    const score = (slot: number): number =>
      sum(inBeat.map((at) => off(at, slot))) / inBeat.length + FINER * (GRID.quarters / slot);
    const best = gridsOf(meter).reduce((a, b) => (score(b) < score(a) ? b : a));
    return score(best) < score(grid) - OWN_BEAT ? best : grid;
  });
  const bare = { grid, feel, beats, mixed: beats.filter((b) => b !== grid).length };
  const left = ats.map((at) => abs(swung(onGrid(at, { ...bare, meter }), feel) - at) * msPerTick);
  return { ...bare, mean: sum(left) / left.length, worst: left.reduce((a, b) => max(a, b), 0) };
}

/**
 * A tick on the slot it belongs to, as it is written: without the feel.
 * @example
 * onGrid(1263, { grid: GRID.sixteenths, feel: STRAIGHT, beats: [GRID.sixteenths], meter: meter(4, 4) }) // => 1260
 */
export function onGrid(
  at: number,
  { feel, beats, grid, meter }: Pick<GridChoice, 'feel' | 'beats' | 'grid'> & { readonly meter: Meter },
): Ticks {
  const plain = straightened(at, feel);
  const beat = beatTicks(meter);
  const index = floor((plain + beat / 24) / beat);
  const slot = beats[index] ?? grid;
  const from = beat % slot === 0 ? index * beat : 0;
  return ticks(round(from + round((plain - from) / slot) * slot));
}
