import { barTicks, type Feel, type Meter } from '../time';
import type { Hit } from '../take';
import { latticeOf, type Lattice } from './lattice';
import { backgroundOf, slotWorth, type Background, type Profile, type Want } from './profile';

/** What was played: hits over a click, in seconds from the first bar line. */
export interface Played {
  readonly hits: readonly Hit[];
  readonly meter: Meter;
  /** Counted beats a minute. */
  readonly bpm: number;
  /** Whether it is a few bars of a recording, in which no groove of the player's own is to be heard. */
  readonly isPart?: boolean;
}

/** A stretch of a phrase on what was played: slots of the phrase, and how much likelier it is than nothing. */
export interface Stretch {
  /** The slot of what was played on which the phrase begins; below zero where it began before the first bar line. */
  readonly first: number;
  /** From which of its slots on, and before which, it is like what was played. */
  readonly from: number;
  readonly until: number;
  readonly worth: number;
}

/** What was played on a subdivision, with what each kind of slot is worth at each place: worked out once. */
export class Ground {
  private readonly back: Background;
  private readonly rows = new Map<string, { readonly at: Float64Array; readonly most: number }>();

  /** @param bar slots to the bar */
  constructor(
    readonly lattice: Lattice,
    readonly bar: number,
    hasGroove = true,
  ) {
    this.back = backgroundOf(lattice, bar, hasGroove);
  }

  get length(): number {
    return this.lattice.slots.length;
  }

  /** What a slot of a phrase is worth at each place. */
  private row(want: Want): { readonly at: Float64Array; readonly most: number } {
    const key = `${[...want.kinds].sort().join()}|${String(want.loud)}|${want.voice ?? ''}`;
    let row = this.rows.get(key);
    if (!row) {
      const at = Float64Array.from(this.lattice.slots, (hits, i) => slotWorth(want, hits, i, this.back));
      row = { at, most: at.reduce((a, b) => Math.max(a, b), 0) };
      this.rows.set(key, row);
    }
    return row;
  }

  /**
   * For each place where a phrase may begin the likeliest stretch of it, where that is worth more than `least`. Only
   * what reaches beyond slot `since` is looked at.
   */
  stretches({ slots }: Profile, least: number, since = 0): readonly Stretch[] {
    const found: Stretch[] = [];
    const own = slots.map((want) => this.row(want));
    const rows = own.map((r) => r.at);
    // What the slots from one on can add at most: where that is too little the place is given up.
    const rest = new Float64Array(slots.length + 1);
    for (let i = slots.length - 1; i >= 0; i--) rest[i] = (rest[i + 1] ?? 0) + (own[i]?.most ?? 0);
    if ((rest[0] ?? 0) <= least) return [];
    const { length } = this;
    for (let first = Math.max(0, since) + 1 - slots.length; first < length; first++) {
      // The likeliest stretch is the one of the greatest sum (Kadane).
      let best = 0;
      let now = 0;
      let from = 0;
      let bestFrom = 0;
      let bestUntil = 0;
      const end = Math.min(slots.length, length - first);
      for (let i = Math.max(0, -first); i < end; i++) {
        const row = rows[i];
        if (row) now += row[first + i] ?? 0;
        if (now <= 0) {
          now = 0;
          from = i + 1;
        } else if (now > best) {
          best = now;
          bestFrom = from;
          bestUntil = i + 1;
        }
        // What is left cannot make it likely any more.
        if (best <= least && now + (rest[i + 1] ?? 0) <= least) break;
      }
      if (best > least && first + bestUntil > since)
        found.push({ first, from: bestFrom, until: bestUntil, worth: best });
    }
    return found;
  }
}

/** What was played, on every subdivision that is asked for; null for one that does not go into the bar. */
export class Grounds {
  private readonly known = new Map<string, Ground | null>();
  readonly bar: number;

  constructor(readonly played: Played) {
    this.bar = barTicks(played.meter);
  }

  on(grid: number, feel: Feel): Ground | null {
    const key = `${grid}${feel.kind === 'swung' ? `${feel.on}${feel.ratio}` : ''}`;
    let ground = this.known.get(key);
    if (ground === undefined) {
      const { hits, meter, bpm, isPart } = this.played;
      const goes = this.bar % grid === 0;
      ground = goes ? new Ground(latticeOf(hits, meter, bpm, grid, feel), this.bar / grid, isPart !== true) : null;
      this.known.set(key, ground);
    }
    return ground;
  }
}
