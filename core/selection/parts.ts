import { barTicks, beatTicks, countedBeats, unitTicks } from '../time';
import type { Pattern } from '../pattern';
import type { Within } from './selection';

/** A part of a pattern, in ticks from its start; it may begin before it. */
export interface Stretch {
  readonly from: number;
  readonly until: number;
}

/**
 * The parts of a pattern in which something is counted, in order, each as it lies inside: bars, beats, groups of the
 * meter, repeats of the cell. A landing is no repeat. Runs of a hand are told by its strokes and not by ticks: they
 * have no parts, and the whole phrase is one.
 * @example
 * partsIn(patternOfText(parseStrokeText('R L R L').value, meter(2, 4), GRID.eighths), 'beat') // => [{ from: 0, until: 5040 }, { from: 5040, until: 10080 }]
 */
export function partsIn(pattern: Pattern, within: Within): readonly Stretch[] {
  const bar = barTicks(pattern.meter);
  switch (within) {
    case 'phrase':
    case 'run':
      return [{ from: 0, until: pattern.length }];
    case 'bar':
      return inBars(pattern, [0]);
    case 'beat':
      return inBars(
        pattern,
        starts(bar, () => beatTicks(pattern.meter)),
      );
    case 'group': {
      const unit = unitTicks(pattern.meter);
      return inBars(
        pattern,
        starts(bar, (nth) => (pattern.meter.groups[nth] ?? 1) * unit),
      );
    }
    case 'cell':
      return pattern.groups.filter((g) => g.kind !== 'land').map((g) => ({ from: g.at, until: g.at + g.length }));
  }
}

/** Where parts of such lengths begin in a bar. */
function starts(bar: number, lengthOf: (nth: number) => number): readonly number[] {
  const all: number[] = [];
  for (let at = 0, nth = 0; at < bar; nth++) {
    all.push(at);
    at += lengthOf(nth);
  }
  return all;
}

function inBars(pattern: Pattern, begins: readonly number[]): readonly Stretch[] {
  const bar = barTicks(pattern.meter);
  const end = pattern.length;
  const all: number[] = [];
  for (let b = 0; b * bar < pattern.start + end; b++) for (const s of begins) all.push(b * bar + s - pattern.start);
  const inside = all.filter((t) => t < end);
  return inside.map((from, i) => ({ from, until: inside[i + 1] ?? end })).filter((s) => s.until > 0);
}

/**
 * A counted beat of a bar from 1, as it lies in the bar: in 7/8 an eighth, in 6/8 a dotted quarter. Null where the
 * meter has no such beat.
 * @example
 * beatIn(meter(6, 8), 2) // => { from: 7560, until: 15120 }
 * beatIn(meter(3, 4), 4) // => null
 */
export function beatIn(meter: Pattern['meter'], beat: number): Stretch | null {
  const beats = countedBeats(meter);
  const [own, next] = [beats.find((b) => b.number === beat), beats.find((b) => b.number === beat + 1)];
  return own ? { from: own.start, until: next?.start ?? barTicks(meter) } : null;
}
