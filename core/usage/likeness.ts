import { untilLanding, type Pattern } from '../pattern';
import { barTicks } from '../time';
import { isHand } from '../stroke';
import type { Played } from './ground';
import { isLoud, latticeOf, type Kind, type Lattice } from './lattice';

/** How a stretch that was played agrees with strokes that were expected there. */
export interface Likeness {
  /** Strokes that are in both, only expected, only played; a slot's hand, kick and hat foot count apart. */
  readonly both: number;
  readonly missing: number;
  readonly extra: number;
  /** Accents that were loud, of those expected whose force was told. */
  readonly loud: { readonly yes: number; readonly of: number };
}

/** Two hands of one slot, or none that is told apart: kinds are compared, not pieces. */
const KINDS_OF: readonly Kind[] = ['hand', 'kick', 'hat-foot'];

/**
 * A pattern held against what was played from a tick on, slot by slot. What the pattern has, a landing aside, is
 * expected; where it is silent nothing is.
 * @param from where the pattern begins, in ticks from the first bar line
 */
export function likenessAt(pattern: Pattern, lattice: Lattice, from: number): Likeness {
  const own = untilLanding(pattern);
  const many = Math.ceil(own.length / lattice.grid);
  let [both, missing, extra, yes, of] = [0, 0, 0, 0, 0];
  for (let i = 0; i < many; i++) {
    const here = own.strokes.filter((s) => Math.round(s.at / lattice.grid) === i);
    const hits = lattice.slots[Math.round(from / lattice.grid) + i] ?? [];
    for (const kind of KINDS_OF) {
      const wanted = here.some(
        (s) => (lattice.blind || isHand(s.limb) ? 'hand' : s.limb === 'H' ? 'hat-foot' : 'kick') === kind,
      );
      const is = hits.some((h) => h.kind === kind);
      if (wanted && is) both++;
      else if (wanted) missing++;
      else if (is) extra++;
    }
    const loud = isLoud(hits);
    if (loud !== null && here.some((s) => isHand(s.limb) && s.level === 'accent')) {
      of++;
      if (loud) yes++;
    }
  }
  return { both, missing, extra, loud: { yes, of } };
}

/**
 * A likeness as a share, 0–1: of strokes that are in both, less where accents are not loud.
 * @example
 * shareAlike({ both: 8, missing: 0, extra: 0, loud: { yes: 0, of: 0 } }) // => 1
 * shareAlike({ both: 6, missing: 2, extra: 2, loud: { yes: 0, of: 0 } }) // => 0.75
 * shareAlike({ both: 0, missing: 8, extra: 0, loud: { yes: 0, of: 0 } }) // => 0
 */
export function shareAlike({ both, missing, extra, loud }: Likeness): number {
  const alike = both === 0 ? 0 : (2 * both) / (2 * both + missing + extra);
  return loud.of < 2 ? alike : alike * (0.75 + (0.25 * loud.yes) / loud.of);
}

/** What was played, on the grid of a pattern; null where that does not go into the bar. */
export function playedOn({ hits, meter, bpm }: Played, { grid, feel }: Pattern): Lattice | null {
  return barTicks(meter) % grid === 0 ? latticeOf(hits, meter, bpm, grid, feel) : null;
}
