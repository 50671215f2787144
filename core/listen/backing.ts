import { barTicks, parseMeter, secondsOf, type Meter } from '../time';
import { fluxOf } from './flux';
import { CLIP_LIMITS, samplesOf, type Clip } from './kept';
import { layMoment, layTick, type Lay } from './lay';
import { paced } from './slower';
import { strokesIn } from './strokes-heard';

/**
 * Seconds before the first bar line and after the last that belong to a backing, so that attacks are not cut; and how
 * much slower and faster than it was played a record is still a record.
 */
export const BACKING = Object.freeze({ lead: 0.02, tail: 0.05, slowest: 0.2, fastest: 3 });

/** The longest clip at its slowest, in seconds. */
const MOST = CLIP_LIMITS.seconds / BACKING.slowest;

/** The bars of a record, made even. */
export interface Backing {
  readonly samples: Float32Array<ArrayBuffer>;
  /** Samples a second. */
  readonly rate: number;
}

/** A clip that is ready to be played along with: its samples, its attacks in samples, and the grid on it. */
export interface BackingClip {
  readonly samples: Float32Array<ArrayBuffer>;
  readonly rate: number;
  readonly bars: number;
  readonly lay: Lay;
  readonly attacks: readonly number[];
}

/**
 * Whether a clip can go round beneath what is in a meter: bars of that meter, however they are grouped.
 * @example
 * backs({ meter: '7/8 2+2+3' }, meter(7, 8)) // => true
 * backs({ meter: '4/4' }, meter(7, 8)) // => false
 */
export function backs(clip: Pick<Clip, 'meter'>, m: Meter): boolean {
  const own = parseMeter(clip.meter);
  return own?.beats === m.beats && own.unit === m.unit;
}

/** What is found in a clip once, for every tempo. Null where its meter is none, or its grid runs backwards. */
export function backingClip({ samples: letters, rate, bars, meter, marks }: Clip): BackingClip | null {
  const own = parseMeter(meter);
  if (!own || marks.slice(1).some((m, i) => m.tick <= (marks[i]?.tick ?? 0) || m.at <= (marks[i]?.at ?? 0)))
    return null;
  const samples = samplesOf(letters);
  const heard = strokesIn(samples, rate, fluxOf(samples, rate));
  return { samples, rate, bars, lay: { meter: own, marks }, attacks: heard.map((o) => Math.round(o.at * rate)) };
}

/**
 * The bars of a record at a tempo, every bar line and everything between where a click has it: what the tempo of the
 * record did from bar to bar is evened out, what was played off the beat stays off the beat by the same share.
 * @param bpm quarters a minute
 * @returns the first bar line lies `BACKING.lead` seconds from the beginning, the last bar's end `BACKING.tail` before
 * the end; null at a tempo that is too far from its own
 */
export function backingOf({ samples, rate, bars, lay, attacks }: BackingClip, bpm: number): Backing | null {
  const long = bars * barTicks(lay.meter);
  const whole = secondsOf(long, bpm);
  const speed = (layMoment(lay, long) - layMoment(lay, 0)) / whole;
  // A file may claim more bars than any clip holds.
  if (!(speed >= BACKING.slowest && speed <= BACKING.fastest && whole <= MOST)) return null;
  const length = Math.round((BACKING.lead + whole + BACKING.tail) * rate);
  const placed = attacks.map((from) => ({
    from,
    to: Math.round((BACKING.lead + secondsOf(layTick(lay, from / rate), bpm)) * rate),
  }));
  const inside = placed.filter((m) => m.to > 0 && m.to < length);
  return { samples: paced(samples, rate, length, inside), rate };
}
