import { Heap } from '../base';
import type { Hand } from '../stroke';
import type { Terms } from './cost';
import { Grid, type Stand } from './grid';
import type { Rhythm } from './rhythm';

/** One of the best ways through a rhythm: a hand for every stroke of every moment, and what it costs. */
export interface Way {
  readonly cost: number;
  readonly hands: readonly (readonly Hand[])[];
}

/** What can follow from each stand of the hands before a moment: two places a stand, -1 for none. */
interface Layer {
  readonly many: number;
  readonly to: Int32Array;
  readonly cost: Float64Array;
}

/** Turns of the loop after which every stand that comes again has come. */
const SETTLED = 3;

/**
 * The k cheapest ways to give a rhythm that goes round to two hands, exactly, cheapest first. By dynamic programming
 * over the stand of the hands: the last place of each hand, the run it is in, the hand of the last accent. A place that
 * lies so far back that it can cost nothing more is remembered by its voice alone, so that the number of stands does
 * not grow with the length. As the rhythm goes round, a way must end as it began: for each stand it may begin with, the
 * least cost from everywhere back to that stand is worked out backwards, and the k best are followed forwards with it
 * (A*: Hart, Nilsson & Raphael 1968). The costs are those of `costOf`; a test holds the two against each other.
 */
export function bestWays(
  terms: Terms,
  rhythm: Pick<Rhythm, 'events' | 'loop'>,
  k: number,
  onStep?: (share: number) => void,
): readonly Way[] {
  const n = rhythm.events.length;
  if (n === 0) return [{ cost: 0, hands: [] }];
  const grid = new Grid(terms, rhythm);
  const begins = beginnings(grid, n);
  const { layers, ends } = graphOf(grid, n, begins, onStep);
  const toLayer = layers.map((l) => new Float64Array(l.many));
  toLayer.push(new Float64Array(ends.length));
  const closing = new Map(ends.flatMap((e, i) => (e === null ? [] : [[grid.keyOf(e), i] as const])));
  const rounds = begins.flatMap((stand, from) => {
    const end = closing.get(grid.keyOf(stand));
    if (end === undefined) return [];
    backwards(layers, toLayer, end);
    return [{ from, end, least: toLayer[0]?.[from] ?? Infinity }];
  });
  rounds.sort((a, b) => a.least - b.least || a.from - b.from);
  let found: Way[] = [];
  for (const { from, end, least } of rounds) {
    const bound = found.length < k ? Infinity : (found[k - 1]?.cost ?? Infinity);
    if (!Number.isFinite(least) || least >= bound) break;
    backwards(layers, toLayer, end);
    const ways = forwards(layers, toLayer, from, k, bound).map(({ cost, choices }) => ({
      cost,
      hands: choices.map((c, i) => grid.choices[i]?.[c] ?? []),
    }));
    // Both lists are in order; of two alike the one found first stays first.
    found = [...found, ...ways].sort((a, b) => a.cost - b.cost).slice(0, k);
  }
  return found;
}

/** The stands with which the loop may begin, as they are at its end after it went round. */
function beginnings(grid: Grid, n: number): readonly Stand[] {
  let stands: readonly Stand[] = [grid.nowhere];
  for (let lap = n < SETTLED ? SETTLED : 1; lap > 0; lap--) {
    for (let i = 0; i < n; i++) {
      const next = new Map<number, Stand>();
      for (const s of stands)
        for (const hands of grid.choices[i] ?? []) {
          const after = grid.after(i, s, hands);
          next.set(grid.keyOf(after), after);
        }
      stands = [...next.values()];
    }
    stands = stands.flatMap((s) => grid.turned(s) ?? []);
  }
  return stands;
}

/** All stands that can be reached from the beginnings, moment by moment, and how they stand when the loop is over. */
function graphOf(
  grid: Grid,
  n: number,
  begins: readonly Stand[],
  onStep?: (share: number) => void,
): { readonly layers: readonly Layer[]; readonly ends: readonly (Stand | null)[] } {
  const layers: Layer[] = [];
  let stands = begins;
  for (let i = 0; i < n; i++) {
    const choices = grid.choices[i] ?? [];
    const known = new Map<number, number>();
    const next: Stand[] = [];
    const to = new Int32Array(stands.length * 2).fill(-1);
    const cost = new Float64Array(stands.length * 2);
    stands.forEach((s, at) => {
      choices.forEach((hands, c) => {
        const after = grid.after(i, s, hands);
        const key = grid.keyOf(after);
        let place = known.get(key);
        if (place === undefined) {
          place = next.length;
          known.set(key, place);
          next.push(after);
        }
        to[at * 2 + c] = place;
        cost[at * 2 + c] = grid.cost(i, s, after, hands);
      });
    });
    layers.push({ many: stands.length, to, cost });
    stands = next;
    onStep?.((0.8 * (i + 1)) / n);
  }
  return { layers, ends: stands.map((s) => grid.turned(s)) };
}

/** The least cost from every stand to one end. */
function backwards(layers: readonly Layer[], toLayer: readonly Float64Array[], end: number): void {
  toLayer[layers.length]?.fill(Infinity).set([0], end);
  for (let i = layers.length - 1; i >= 0; i--) {
    const layer = layers[i];
    const [own, after] = [toLayer[i], toLayer[i + 1]];
    if (!layer || !own || !after) return;
    const { to, cost, many } = layer;
    for (let s = 0; s < many; s++) {
      const [a, b] = [to[2 * s] ?? -1, to[2 * s + 1] ?? -1];
      const first = a < 0 ? Infinity : (cost[2 * s] ?? 0) + (after[a] ?? Infinity);
      const second = b < 0 ? Infinity : (cost[2 * s + 1] ?? 0) + (after[b] ?? Infinity);
      own[s] = first <= second ? first : second;
    }
  }
}

/** A way begun: what it cost so far, and what it will cost at least. */
interface Begun {
  readonly least: number;
  readonly cost: number;
  readonly layer: number;
  readonly stand: number;
  readonly choice: number;
  readonly before: Begun | null;
}

/** The k cheapest ways from a stand, all below a bound, with the least cost that is left known from everywhere. */
function forwards(
  layers: readonly Layer[],
  toLayer: readonly Float64Array[],
  from: number,
  k: number,
  bound: number,
): readonly { readonly cost: number; readonly choices: readonly number[] }[] {
  const heap = new Heap<Begun>(before);
  heap.push({ least: toLayer[0]?.[from] ?? Infinity, cost: 0, layer: 0, stand: from, choice: -1, before: null });
  const found: { cost: number; choices: number[] }[] = [];
  for (let best = heap.pop(); best && found.length < k; best = heap.pop()) {
    const layer = layers[best.layer];
    if (!layer) {
      found.push({ cost: best.cost, choices: choicesFrom(best) });
      continue;
    }
    for (let c = 0; c < 2; c++) {
      const to = layer.to[best.stand * 2 + c] ?? -1;
      if (to < 0) continue;
      const cost = best.cost + (layer.cost[best.stand * 2 + c] ?? 0);
      const least = cost + (toLayer[best.layer + 1]?.[to] ?? Infinity);
      if (least < bound) heap.push({ least, cost, layer: best.layer + 1, stand: to, choice: c, before: best });
    }
  }
  return found;
}

function choicesFrom(end: Begun): number[] {
  const choices: number[] = [];
  for (let b = end; b.before; b = b.before) choices.push(b.choice);
  return choices.reverse();
}

/** Costs that differ by less come from adding up in another order. */
const SAME = 1e-9;

/** The one that promises the least cost first; of two alike the one that is further. */
function before(a: Begun, b: Begun): boolean {
  const apart = a.least - b.least;
  return Math.abs(apart) > SAME ? apart < 0 : a.layer > b.layer || (a.layer === b.layer && a.choice < b.choice);
}
