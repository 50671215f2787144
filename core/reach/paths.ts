import { barTicks } from '../time';
import type { Hand } from '../stroke';
import { loopTicks, type Pattern } from '../pattern';
import type { Kit, Point } from '../kit';
import { distance, targetOf } from './travel';

/** Where a hand strikes, stroke by stroke. */
export interface HandPath {
  readonly hand: Hand;
  readonly points: readonly (Point & { readonly at: number })[];
  /** cm to a bar, going round as a loop. */
  readonly perBar: number;
}

export interface Paths {
  readonly hands: readonly HandPath[];
  /** Ticks at which the right hand strikes to the left of where the left hand is, or the other way round. */
  readonly crossings: readonly number[];
}

/** Hands nearer to each other than this, in cm, do not count as crossed: they play the same drum. */
const SIDE_BY_SIDE = 8;

/** The ways of both hands round a kit, their length to a bar, and where they cross. */
export function handPaths(pattern: Pattern, kit: Kit): Paths {
  const bars = Math.max(1, loopTicks(pattern)) / barTicks(pattern.meter);
  const hands = (['R', 'L'] as const).map((hand): HandPath => {
    const points = pattern.strokes.flatMap((s) => {
      const target = s.limb === hand ? targetOf(kit, hand, s.voice) : null;
      return target ? [{ ...target.point, at: s.at }] : [];
    });
    const way = points.reduce(
      (sum, p, i) => sum + distance(points[(i + points.length - 1) % points.length] ?? p, p),
      0,
    );
    return { hand, points, perBar: way / bars };
  });
  return { hands, crossings: crossings(hands) };
}

function crossings(hands: readonly HandPath[]): number[] {
  const all = hands.flatMap((h) => h.points.map((p) => ({ hand: h.hand, ...p }))).sort((a, b) => a.at - b.at);
  const x: { R: number | null; L: number | null } = { R: null, L: null };
  const found = new Set<number>();
  for (const p of all) {
    x[p.hand] = p.x;
    if (x.R !== null && x.L !== null && x.R < x.L - SIDE_BY_SIDE) found.add(p.at);
  }
  return [...found];
}
