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
  private readonly rows = new Map<string, Float64Array>();

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
  private row(want: Want): Float64Array {
    const key = `${[...want.kinds].sort().join()}|${String(want.loud)}|${want.voice ?? ''}`;
    let row = this.rows.get(key);
    if (!row) {
      row = Float64Array.from(this.lattice.slots, (hits, at) => slotWorth(want, hits, at, this.back));
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
    const rows = slots.map((want) => this.row(want));
    for (let first = Math.max(0, since) + 1 - slots.length; first < this.length; first++) {
      // The likeliest stretch is the one of the greatest sum (Kadane).
      let [best, now, from, bestFrom, bestUntil] = [0, 0, 0, 0, 0];
      const end = Math.min(slots.length, this.length - first);
      for (let i = Math.max(0, -first); i < end; i++) {
        now += rows[i]?.[first + i] ?? 0;
        if (now <= 0) {
          now = 0;
          from = i + 1;
        } else if (now > best) {
          best = now;
          bestFrom = from;
          bestUntil = i + 1;
        }
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
