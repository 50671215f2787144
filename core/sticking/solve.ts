import { LEVELS, type Hand, type Voice } from '../stroke';
import { riseSeconds } from '../reach';
import { ACCENTED_SECOND, choicesOf, CROSSED, EASY, hasteCost, Needs, SIDE_BY_SIDE, THIRD, type Terms } from './cost';
import type { HandEvent } from './rhythm';
import { preferenceCost } from './schools';

/** One of the best ways through a rhythm: a hand for every stroke of every moment, and what it costs. */
export interface Way {
  readonly cost: number;
  readonly hands: readonly (readonly Hand[])[];
}

/**
 * A partial way: what it costs so far, and the way it goes on from. Chains are shared, so keeping many costs little.
 */
interface Entry {
  readonly cost: number;
  readonly hands: readonly Hand[];
  readonly before: Entry | null;
}

/** The ways that can go into a state, each list in order, with what the moment adds to it. */
interface Arrival {
  readonly entries: readonly Entry[];
  readonly adds: number;
  readonly hands: readonly Hand[];
}

/**
 * Where the hands state, in whole numbers. `right` and `left` say where each hand struck last: 0 for nowhere yet, 1 +
 * voice for a place so far back that only its voice matters, else a moment and which of its strokes. `hand` is 0 right,
 * 1 left, 2 neither (both, or the beginning).
 */
interface HandState {
  readonly right: number;
  readonly left: number;
  readonly hand: number;
  readonly run: number;
}

const HANDS: readonly Hand[] = ['R', 'L'];
/** Runs and what ended are told apart up to here; longer ones cost the same. */
const MOST_RUN = 3;

/**
 * The k cheapest ways to give a rhythm to two hands, exactly, cheapest first. By dynamic programming over the state of
 * the hands: the last place of each hand and the run it is in. A place that lies so far back that it can cost nothing
 * any more is remembered by its voice alone, so that the number of states does not grow with the length, and the time
 * grows as length × k. The costs are those of `costOf`; a test holds the two against each other.
 */
export function bestWays(
  terms: Terms,
  events: readonly HandEvent[],
  k: number,
  onStep?: (done: number) => void,
): readonly Way[] {
  const table = new Table(terms, events);
  let states = new Map<number, { readonly state: HandState; readonly entries: readonly Entry[] }>([
    [0, { state: { right: 0, left: 0, hand: 2, run: 0 }, entries: [{ cost: 0, hands: [], before: null }] }],
  ]);
  events.forEach((event, i) => {
    const next = new Map<number, { readonly state: HandState; readonly arrivals: Arrival[] }>();
    const choices = choicesOf(event);
    for (const { state, entries } of states.values()) {
      for (const hands of choices) {
        const after = table.after(i, state, hands);
        const adds = table.cost(i, state, after, hands);
        const key = table.keyOf(after);
        const known = next.get(key);
        if (known) known.arrivals.push({ entries, adds, hands });
        else next.set(key, { state: after, arrivals: [{ entries, adds, hands }] });
      }
    }
    states = new Map([...next].map(([key, { state, arrivals }]) => [key, { state, entries: cheapest(arrivals, k) }]));
    onStep?.(i + 1);
  });
  const ends = [...states.values()].map((s): Arrival => ({ entries: s.entries, adds: 0, hands: [] }));
  return cheapest(ends, k).map((e) => ({ cost: e.cost, hands: unrolled(e.before) }));
}

/** Everything about a rhythm that is looked up again and again, worked out once. */
class Table {
  private readonly voices: readonly Voice[];
  private readonly seconds: readonly number[];
  private readonly voiceOf: readonly (readonly number[])[];
  private readonly levelOf: readonly (readonly number[])[];
  private readonly side: readonly number[];
  private readonly way: readonly number[];
  private readonly rise: readonly number[];
  private readonly repeat: readonly (readonly [number, number])[];
  private readonly preference: readonly Float64Array[];
  private readonly memory: number;

  constructor(terms: Terms, events: readonly HandEvent[]) {
    const needs = new Needs(terms);
    this.voices = [...new Set(events.flatMap((e) => e.strokes.map((s): Voice => s.voice)))];
    this.memory = needs.most(this.voices) / EASY;
    this.seconds = events.map((e) => e.seconds);
    this.voiceOf = events.map((e) => e.strokes.map((s) => this.voices.indexOf(s.voice)));
    this.levelOf = events.map((e) => e.strokes.map((s) => LEVELS.indexOf(s.level)));
    this.side = this.voices.map((v) => needs.side(v));
    this.way = this.voices.flatMap((a) => this.voices.map((b) => needs.way('R', a, b)));
    this.rise = LEVELS.flatMap((a) => LEVELS.map((b) => riseSeconds(a, b)));
    this.repeat = HANDS.map((h) => [needs.repeat(h, false), needs.repeat(h, true)]);
    this.preference = events.map((e, i) => this.preferences(terms, e, events[i - 1] ?? null));
  }

  /** What the school says of a single stroke, by hand, run and the run that ended, since it depends on nothing else. */
  private preferences(terms: Terms, event: HandEvent, previous: HandEvent | null): Float64Array {
    const found = new Float64Array(2 * 4 * 4);
    HANDS.forEach((hand, h) => {
      const fast = previous !== null && event.seconds - previous.seconds < 1 / terms.profile.rates[hand].singles;
      for (let run = 1; run <= MOST_RUN; run++)
        for (let ended = 0; ended <= MOST_RUN; ended++)
          found[(h * 4 + run) * 4 + ended] = preferenceCost(terms.school, {
            hand,
            leads: terms.profile.leads,
            run,
            ended,
            accent: event.strokes[0].level === 'accent',
            downbeat: event.downbeat,
            slot: event.slot,
            fast,
          });
    });
    return found;
  }

  private isPlace(code: number): boolean {
    return code > this.voices.length;
  }

  private momentOf(code: number): number {
    return (code - this.voices.length - 1) >> 1;
  }

  private strokeOf(code: number): number {
    return (code - this.voices.length - 1) & 1;
  }

  private voiceAt(code: number): number {
    return this.isPlace(code) ? (this.voiceOf[this.momentOf(code)]?.[this.strokeOf(code)] ?? 0) : code - 1;
  }

  /** A place that cannot cost anything any more becomes its voice. */
  private remembered(code: number, i: number): number {
    if (!this.isPlace(code) || (this.seconds[i] ?? 0) - (this.seconds[this.momentOf(code)] ?? 0) <= this.memory)
      return code;
    return 1 + this.voiceAt(code);
  }

  after(i: number, before: HandState, hands: readonly Hand[]): HandState {
    let [right, left] = [before.right, before.left];
    hands.forEach((h, n) => {
      const code = this.voices.length + 1 + i * 2 + n;
      if (h === 'R') right = code;
      else left = code;
    });
    const single = hands.length === 1;
    const hand = single ? (hands[0] === 'R' ? 0 : 1) : 2;
    const run = single ? (hand === before.hand ? Math.min(MOST_RUN, before.run + 1) : 1) : 0;
    return { right: this.remembered(right, i), left: this.remembered(left, i), hand, run };
  }

  keyOf({ right, left, hand, run }: HandState): number {
    const places = this.voices.length + 1 + this.seconds.length * 2;
    return ((right * places + left) * 3 + hand) * 4 + run;
  }

  cost(i: number, before: HandState, after: HandState, hands: readonly Hand[]): number {
    const single = hands.length === 1;
    let cost = 0;
    hands.forEach((name, n) => {
      const h = name === 'R' ? 0 : 1;
      const last = h === 0 ? before.right : before.left;
      if (!this.isPlace(last)) return;
      const from = this.momentOf(last);
      const v = this.voiceOf[i]?.[n] ?? 0;
      const second = single && after.run === 2 ? 1 : 0;
      const way = this.way[this.voiceAt(last) * this.voices.length + v] ?? 0;
      const rise =
        this.rise[(this.levelOf[from]?.[this.strokeOf(last)] ?? 0) * LEVELS.length + (this.levelOf[i]?.[n] ?? 0)] ?? 0;
      cost += hasteCost(
        Math.max(this.repeat[h]?.[second] ?? 0, way) + rise,
        (this.seconds[i] ?? 0) - (this.seconds[from] ?? 0),
      );
    });
    if (single) {
      if (after.run > 2) cost += THIRD;
      if (after.run === 2 && this.levelOf[i]?.[0] === LEVELS.indexOf('accent')) cost += ACCENTED_SECOND;
      const ended = before.hand !== 2 && before.hand !== after.hand ? before.run : 0;
      cost += this.preference[i]?.[(after.hand * 4 + after.run) * 4 + ended] ?? 0;
    }
    if (after.right !== 0 && after.left !== 0) {
      const [r, l] = [this.side[this.voiceAt(after.right)] ?? 0, this.side[this.voiceAt(after.left)] ?? 0];
      if (r < l - SIDE_BY_SIDE) cost += CROSSED;
    }
    return cost;
  }
}

/** The k cheapest of all arrivals, each of which is in order; only those that are kept are made. */
function cheapest(arrivals: readonly Arrival[], k: number): readonly Entry[] {
  const heads = new Int32Array(arrivals.length);
  const found: Entry[] = [];
  while (found.length < k) {
    let best = -1;
    let least = Infinity;
    for (let a = 0; a < arrivals.length; a++) {
      const arrival = arrivals[a];
      const entry = arrival?.entries[heads[a] ?? 0];
      if (arrival && entry && entry.cost + arrival.adds < least) {
        least = entry.cost + arrival.adds;
        best = a;
      }
    }
    const arrival = arrivals[best];
    const before = arrival?.entries[heads[best] ?? 0];
    if (!arrival || !before) break;
    heads[best] = (heads[best] ?? 0) + 1;
    found.push({ cost: least, hands: arrival.hands, before });
  }
  return found;
}

function unrolled(entry: Entry | null): readonly (readonly Hand[])[] {
  const hands: (readonly Hand[])[] = [];
  for (let e = entry; e?.before; e = e.before) hands.push(e.hands);
  return hands.reverse();
}
