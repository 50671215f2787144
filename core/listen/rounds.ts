import { count, fraction, lcm } from '../base';
import { barTicks, beatTicks, type Meter } from '../time';

/** A cell that comes back in what was heard. */
export interface HeardRound {
  /** Ticks of the cell. */
  readonly length: number;
  /** Share of the slots that come back as they were, 0–1. */
  readonly alike: number;
  /** "three beats long, the same again after three bars". */
  readonly words: string;
}

/** So much of it must come back to be called a repeat. */
const ALIKE = 0.88;

/**
 * The shortest cell that what was heard is made of, where one comes back: the same on the slots that follow, at least
 * twice over. `keys` says what is on each slot, in any words, empty for nothing. Null where nothing comes back.
 * @example
 * roundOf(['R', 'L', 'K', 'R', 'L', 'K'], 1260, meter(3, 4)).words // => "¾ of a beat long, the same again after 1 bar"
 * roundOf(['R', '', 'K', 'L'], 1260, meter(4, 4)) // => null
 */
export function roundOf(keys: readonly string[], grid: number, meter: Meter): HeardRound | null {
  for (let p = 2; 2 * p <= keys.length; p++) {
    let [same, all] = [0, 0];
    for (let i = 0; i + p < keys.length; i++) {
      if (keys[i] === '' && keys[i + p] === '') continue;
      all++;
      if (keys[i] === keys[i + p]) same++;
    }
    const alike = all === 0 ? 0 : same / all;
    // A cell of one and the same thing says nothing.
    if (alike < ALIKE || new Set(keys.slice(0, p)).size < 2) continue;
    return { length: p * grid, alike, words: roundWords(p * grid, meter) };
  }
  return null;
}

/**
 * How long a cell is, and after how many bars it begins on the 1 again.
 * @example
 * roundWords(15120, meter(4, 4)) // => "3 beats long, the same again after 3 bars"
 * roundWords(20160, meter(4, 4)) // => "1 bar long, the same in every bar"
 */
export function roundWords(length: number, meter: Meter): string {
  const [bar, beat] = [barTicks(meter), beatTicks(meter)];
  if (length % bar === 0) {
    const bars = length / bar;
    return bars === 1 ? '1 bar long, the same in every bar' : `${count(bars, 'bar')} long, the same every ${bars} bars`;
  }
  const beats = length / beat;
  const long = Number.isInteger(beats)
    ? count(beats, 'beat')
    : beats < 1
      ? `${fraction(beats)} of a beat`
      : `${fraction(beats)} beats`;
  return `${long} long, the same again after ${count(lcm(length, bar) / bar, 'bar')}`;
}
