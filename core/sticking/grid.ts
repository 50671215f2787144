import { LEVELS, type Hand, type Voice } from '../stroke';
import { riseSeconds } from '../reach';
import { choicesOf, CROSSED, EASY, hasteCost, Needs, OTHER_FIRST, SIDE_BY_SIDE, singleCost, type Terms } from './cost';
import type { Rhythm } from './rhythm';
import { timeCost, timeWeight } from './schools';

/**
 * How the hands stand, in whole numbers. `right` and `left` say where each struck last (see `Grid`). `hand` is 0 right,
 * 1 left, 2 neither (both, or the beginning), `turned` the same of the last accent that schools turn on.
 */
export interface Stand {
  readonly right: number;
  readonly left: number;
  readonly hand: number;
  readonly run: number;
  readonly turned: number;
}

const HANDS: readonly Hand[] = ['R', 'L'];
/** Runs and what ended are told apart up to here; longer ones cost the same. */
const MOST_RUN = 3;

/**
 * Everything about a rhythm that is looked up again and again, worked out once, and the steps from stand to stand. A
 * hand's last place is 0 for nowhere yet; 1 + voice for one so far back in this turn of the loop that only its voice
 * matters; behind those the same of the turn before; else a moment, of the turn before or of this one, and which of its
 * strokes.
 */
export class Grid {
  /** The ways to give each moment's strokes to hands. */
  readonly choices: readonly (readonly (readonly Hand[])[])[];
  readonly nowhere: Stand = { right: 0, left: 0, hand: 2, run: 0, turned: 2 };
  private readonly n: number;
  private readonly voices: readonly Voice[];
  private readonly seconds: readonly number[];
  private readonly voiceOf: readonly (readonly number[])[];
  private readonly levelOf: readonly (readonly number[])[];
  private readonly side: readonly number[];
  private readonly way: readonly number[];
  private readonly rise: readonly number[];
  private readonly repeat: readonly (readonly [number, number])[];
  private readonly memory: number;
  private readonly first: number;
  private readonly lead: number;
  private readonly weight: number;
  /** What single strokes cost beside time and crossings, found once for each that is asked for. */
  private readonly singles: readonly Float64Array[];

  constructor(
    private readonly terms: Terms,
    private readonly rhythm: Pick<Rhythm, 'events' | 'loop'>,
  ) {
    const { events } = rhythm;
    const needs = new Needs(terms);
    this.n = events.length;
    this.voices = [...new Set(events.flatMap((e) => e.strokes.map((s): Voice => s.voice)))];
    this.first = 1 + 2 * this.voices.length;
    this.lead = HANDS.indexOf(terms.profile.leads);
    this.weight = timeWeight(terms.school);
    this.memory = needs.most(this.voices) / EASY;
    this.seconds = events.map((e) => e.seconds);
    this.voiceOf = events.map((e) => e.strokes.map((s) => this.voices.indexOf(s.voice)));
    this.levelOf = events.map((e) => e.strokes.map((s) => LEVELS.indexOf(s.level)));
    this.side = this.voices.map((v) => needs.side(v));
    this.way = this.voices.flatMap((a) => this.voices.map((b) => needs.way('R', a, b)));
    this.rise = LEVELS.flatMap((a) => LEVELS.map((b) => riseSeconds(a, b)));
    this.repeat = HANDS.map((h) => [needs.repeat(h, false), needs.repeat(h, true)]);
    this.choices = events.map(choicesOf);
    this.singles = events.map(() => new Float64Array(2 * 4 * 4 * 3).fill(NaN));
  }

  after(i: number, before: Stand, hands: readonly Hand[]): Stand {
    let [right, left] = [before.right, before.left];
    hands.forEach((h, n) => {
      const code = this.first + (this.n + i) * 2 + n;
      if (h === 'R') right = code;
      else left = code;
    });
    const single = hands.length === 1;
    const hand = single ? (hands[0] === 'R' ? 0 : 1) : 2;
    const turns = this.rhythm.events[i]?.leaning.turns ?? null;
    return {
      right: this.remembered(right, i),
      left: this.remembered(left, i),
      hand,
      run: single ? (hand === before.hand ? Math.min(MOST_RUN, before.run + 1) : 1) : 0,
      turned: turns === null ? before.turned : hand,
    };
  }

  /** A stand at the end of the loop as it is for the next turn; null when a hand did not strike in this one. */
  turned(end: Stand): Stand | null {
    const [right, left] = [this.shifted(end.right), this.shifted(end.left)];
    return right === null || left === null ? null : { ...end, right, left };
  }

  keyOf({ right, left, hand, run, turned }: Stand): number {
    const places = this.first + this.n * 4;
    return (((right * places + left) * 3 + hand) * 4 + run) * 3 + turned;
  }

  cost(i: number, before: Stand, after: Stand, hands: readonly Hand[]): number {
    const single = hands.length === 1;
    let cost = 0;
    hands.forEach((name, n) => {
      const h = name === 'R' ? 0 : 1;
      const last = h === 0 ? before.right : before.left;
      if (last < this.first) return;
      const v = this.voiceOf[i]?.[n] ?? 0;
      const second = single && after.run === 2 ? 1 : 0;
      const way = this.way[this.voiceAt(last) * this.voices.length + v] ?? 0;
      const rise = this.rise[this.levelAt(last) * LEVELS.length + (this.levelOf[i]?.[n] ?? 0)] ?? 0;
      const available = (this.seconds[i] ?? 0) - this.timeOf(last);
      cost += hasteCost(Math.max((this.repeat[h]?.[second] ?? 0) + rise, way), available) * this.weight;
    });
    if (single) {
      const ended = before.hand !== 2 && before.hand !== after.hand ? before.run : 0;
      cost += this.single(i, after.hand, after.run, ended, before.turned);
      if (i === 0 && after.hand !== this.lead) cost += OTHER_FIRST;
    } else {
      const { school, profile } = this.terms;
      this.rhythm.events[i]?.strokes.forEach((s, n) => (cost += timeCost(school, s.time, hands[n] !== profile.leads)));
    }
    if (after.right !== 0 && after.left !== 0) {
      const [r, l] = [this.side[this.voiceAt(after.right)] ?? 0, this.side[this.voiceAt(after.left)] ?? 0];
      if (r < l - SIDE_BY_SIDE) cost += CROSSED;
    }
    return cost;
  }

  private single(i: number, hand: number, run: number, ended: number, turned: number): number {
    const known = this.singles[i];
    const at = ((hand * 4 + run) * 4 + ended) * 3 + turned;
    const found = known?.[at] ?? NaN;
    if (!Number.isNaN(found)) return found;
    const { events } = this.rhythm;
    const event = events[i];
    const previous = events[(i + this.n - 1) % this.n];
    if (!known || !event || !previous) return 0;
    const of = { hand: HANDS[hand] ?? 'R', run, ended, turned: HANDS[turned] ?? null, index: i };
    const { runs, accents, school } = singleCost(this.terms, event, previous, of);
    return (known[at] = runs + accents + school);
  }

  private momentOf(code: number): number {
    return (code - this.first) >> 1;
  }

  private timeOf(code: number): number {
    const m = this.momentOf(code);
    return m < this.n ? (this.seconds[m] ?? 0) - this.rhythm.loop : (this.seconds[m - this.n] ?? 0);
  }

  private voiceAt(code: number): number {
    if (code < this.first) return (code - 1) % this.voices.length;
    return this.voiceOf[this.momentOf(code) % this.n]?.[(code - this.first) & 1] ?? 0;
  }

  private levelAt(code: number): number {
    return this.levelOf[this.momentOf(code) % this.n]?.[(code - this.first) & 1] ?? 0;
  }

  /** A place that cannot cost anything any more becomes its voice. */
  private remembered(code: number, i: number): number {
    if (code < this.first || (this.seconds[i] ?? 0) - this.timeOf(code) <= this.memory) return code;
    const voice = 1 + this.voiceAt(code);
    return this.momentOf(code) < this.n ? voice + this.voices.length : voice;
  }

  private shifted(code: number): number | null {
    if (code === 0) return 0;
    if (code < this.first) return code <= this.voices.length ? code + this.voices.length : null;
    return this.momentOf(code) < this.n ? null : code - this.n * 2;
  }
}
