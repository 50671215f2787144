const { PI, abs, ceil, exp, max, min, round, sqrt } = Math;

/** What a detector is set to: how loud a soft and a hard hit are here, as peaks of the attack from 0 to 1. */
export interface OnsetSettings {
  readonly rate: number;
  /** A hit must rise to this. */
  readonly threshold: number;
  /** The attack of a hard hit: full velocity. */
  readonly loudest: number;
}

export interface Onset {
  /** Sample at which the attack begins, counted from the first sample ever given. */
  readonly sample: number;
  /** Height of the attack, 0–1. */
  readonly peak: number;
}

/**
 * Corner of the high-pass in Hz: sticks on a pad have enough of their attack above it, the tones of any click (to 4
 * kHz) little.
 */
const CORNER = 7000;
/** Seconds in which one hit is one onset: the fastest doubles are 50 ms apart. */
const REFRACTORY = 0.045;
/**
 * Seconds for which a hit waits whether a louder one comes: then it was a grace stroke, and the louder one is the
 * stroke. So many times as loud is louder, and not sooner than so many seconds after.
 */
const GRACE = { wait: 0.044, louder: 1.25, least: 0.009 } as const;
/** Seconds over which what rings and hums is followed, up and down: what dies away is left sooner. */
const FLOOR = { up: 0.015, down: 0.008 } as const;
/** A hit stands this many times over what rings already. */
const OVER_FLOOR = 1.4;
/**
 * What a room gives back of a hit is no hit: this share of its peak when it may be followed by another, dying away over
 * so many seconds. A ghost 20 dB below an accent stands out of it from 85 ms on.
 */
const ECHO = { share: 0.4, dies: 0.028 } as const;
/** Share of its peak at which an attack is said to begin. */
const BEGINS = 0.22;
/** Seconds after the threshold is passed in which the peak is looked for. */
const PEAK_WINDOW = 0.006;

/**
 * Finds hits in samples as they arrive, block by block, with the same answer whatever the size of the blocks. The
 * signal is high-passed twice, its envelope followed with an instant attack and a short release; a hit is where the
 * envelope passes the threshold and stands well over what rings and hums already; its moment is where the attack began.
 * Of a flam, drag or ruff only the main stroke is a hit. An answer comes at most 50 ms after the hit; `settle` gives at
 * the end what is still waited for.
 */
export class OnsetDetector {
  private readonly pole: number;
  private readonly release: number;
  private readonly rises: number;
  private readonly falls: number;
  private low1 = 0;
  private low2 = 0;
  private envelope = 0;
  private floor = 0;
  private sample = 0;
  private last = -Infinity;
  private lastPeak = 0;
  /** A hit that is under way: where it passed the threshold, and its peak so far. */
  private rising: { readonly at: number; readonly base: number; peak: number } | null = null;
  /** A hit that waits whether it was a grace stroke. */
  private held: Onset | null = null;
  private readonly recent: Float32Array;

  constructor(private settings: OnsetSettings) {
    const { rate } = settings;
    this.pole = 1 - exp((-2 * PI * CORNER) / rate);
    this.release = exp(-1 / (0.01 * rate));
    this.rises = 1 / (FLOOR.up * rate);
    this.falls = 1 / (FLOOR.down * rate);
    // The envelope of the last moments, to look back for where an attack began.
    this.recent = new Float32Array(ceil(rate * (PEAK_WINDOW + 0.006)));
  }

  /** Other levels from here on, for instance after hitting softly and hard. */
  set(part: Partial<Omit<OnsetSettings, 'rate'>>): void {
    this.settings = { ...this.settings, ...part };
  }

  /** The next samples; gives back the hits that became certain in them. */
  push(samples: Float32Array): readonly Onset[] {
    const found: Onset[] = [];
    const { rate, threshold } = this.settings;
    for (const x of samples) {
      this.low1 += this.pole * (x - this.low1);
      const one = x - this.low1;
      this.low2 += this.pole * (one - this.low2);
      const level = abs(one - this.low2);
      this.envelope = level > this.envelope ? level : this.envelope * this.release;
      this.recent[this.sample % this.recent.length] = this.envelope;
      const since = this.sample - this.last;
      const louder = this.held !== null && since > GRACE.least * rate && this.envelope > this.held.peak * GRACE.louder;
      const open = since > REFRACTORY * rate || louder;
      const over = max(threshold, this.floor * OVER_FLOOR);
      if (!this.rising && open && this.envelope > over && (louder || this.envelope > this.echoAfter(since)))
        this.rising = { at: this.sample, base: this.floor, peak: this.envelope };
      if (this.rising) {
        this.rising.peak = max(this.rising.peak, this.envelope);
        if (this.sample - this.rising.at >= PEAK_WINDOW * rate) {
          const { at, base, peak } = this.rising;
          const begin = this.beginOf(at, base, peak);
          // What waited comes first, unless this one shows that it was its grace stroke.
          if (this.held && begin - this.held.sample > GRACE.wait * rate) found.push(this.held);
          this.held = { sample: begin, peak };
          this.last = begin;
          this.lastPeak = peak;
          this.rising = null;
        }
      }
      this.floor += (this.envelope - this.floor) * (this.envelope > this.floor ? this.rises : this.falls);
      if (this.held && !this.rising && this.sample - this.held.sample > GRACE.wait * rate) {
        found.push(this.held);
        this.held = null;
      }
      this.sample++;
    }
    return found;
  }

  /** How loud a room may give back the last hit, so many samples after it. */
  private echoAfter(samples: number): number {
    const seconds = samples / this.settings.rate - REFRACTORY;
    return seconds > 0.3 ? 0 : this.lastPeak * ECHO.share * exp(-seconds / ECHO.dies);
  }

  /** Velocity 1–127 of a peak, by the loudest hit. */
  velocityOf(peak: number): number {
    return max(1, min(127, round((127 * peak) / max(this.settings.loudest, 1e-6))));
  }

  /** How loud it is where hits are looked for, 0–1: what a threshold is held against. */
  get level(): number {
    return this.envelope;
  }

  /** The hit that is still waited with, when no more samples come. */
  settle(): readonly Onset[] {
    const { held } = this;
    this.held = null;
    return held ? [held] : [];
  }

  /**
   * Backwards from where the threshold was passed to where the attack rose above a share of its peak, counted from what
   * rang already.
   */
  private beginOf(at: number, base: number, peak: number): number {
    const level = min(peak * 0.9, base + (peak - base) * BEGINS);
    let begin = at;
    const oldest = max(0, this.sample - this.recent.length + 1);
    while (begin > oldest && (this.recent[(begin - 1) % this.recent.length] ?? 0) > level) begin--;
    // A threshold below the share is passed before the attack has begun in earnest.
    while (begin < this.sample && (this.recent[begin % this.recent.length] ?? 0) <= level) begin++;
    return begin;
  }
}

/**
 * A threshold between the room and a soft hit, and the loudest, from the peaks of soft and hard hits and the loudest of
 * the room without any. Null when the soft ones do not stand out of it, or the hard ones not of them.
 * @example
 * levelsFrom([0.01, 0.012], [0.2, 0.25], 0.002).loudest // => 0.25
 * levelsFrom([0.01, 0.012], [0.2, 0.25], 0.009) // => null
 */
export function levelsFrom(
  soft: readonly number[],
  hard: readonly number[],
  room: number,
): Pick<OnsetSettings, 'threshold' | 'loudest'> | null {
  const [least, most] = [min(...soft), max(...hard)];
  if (soft.length < 2 || hard.length < 2 || least <= room * 1.5 || most <= least) return null;
  return { threshold: max(room * 1.5, sqrt(room * least), least * 0.45), loudest: most };
}
