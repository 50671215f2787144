import { checkedAt } from '../base';
import { barTicks, ticks } from '../time';
import { isHand, pieceName, strokeTypes, type Limb, type StrokeType } from '../stroke';
import type { Pattern } from './pattern';
import { withoutPickup } from './pickup';
import { rolesOf, type Role } from './roles';

/** What of a pattern is not to be heard. */
export interface Mute {
  readonly limbs: readonly Limb[];
  readonly roles: readonly Role[];
  /** Pieces by their names (`pieceName`); absent: none. */
  readonly pieces?: readonly string[];
}

export const NOTHING_MUTED: Mute = Object.freeze({ limbs: Object.freeze([]), roles: Object.freeze([]) });

/** A pattern without the strokes that are muted; its length and groups stay. The same object when nothing is. */
export function unmuted(pattern: Pattern, { limbs, roles, pieces = [] }: Mute): Pattern {
  if (limbs.length + roles.length + pieces.length === 0) return pattern;
  const heard = (strokes: Pattern['strokes'], own: readonly Role[]): Pattern['strokes'] =>
    strokes.filter(
      (s, i) =>
        !limbs.includes(s.limb) && !roles.includes(checkedAt(own, i, 'role')) && !pieces.includes(pieceName(s.voice)),
    );
  const left = { ...pattern, strokes: heard(pattern.strokes, rolesOf(pattern)) };
  return pattern.pickup ? { ...left, pickup: heard(pattern.pickup, pickupRoles(pattern)) } : left;
}

/** The stroke type of each stroke by index, cyclically by hand as the phrase loops; null for feet. */
export function strokeTypesOf(pattern: Pattern): readonly (StrokeType | null)[] {
  const types = pattern.strokes.map((): StrokeType | null => null);
  for (const hand of ['R', 'L'] as const) {
    const own = pattern.strokes.flatMap((s, i) => (s.limb === hand && isHand(s.limb) ? [{ level: s.level, i }] : []));
    strokeTypes(own.map((o) => o.level)).forEach((type, nth) => {
      const at = own[nth]?.i;
      if (at !== undefined) types[at] = type;
    });
  }
  return types;
}

/** The roles of the strokes before the 1, by what the phrase says of such strokes. */
export function pickupRoles(pattern: Pattern): readonly Role[] {
  const { strokes, pickup = [] } = pattern;
  return rolesOf({ ...pattern, strokes: [...strokes, ...pickup] }).slice(strokes.length);
}

/**
 * A part of a pattern as a pattern of its own: [from, until) in ticks from the pattern's start. Groups are cut to it.
 */
export function partOf(pattern: Pattern, from: number, until: number): Pattern {
  const length = ticks(Math.max(0, Math.min(pattern.length, until) - from));
  return {
    ...withoutPickup(pattern),
    start: ticks(pattern.start + from),
    length,
    strokes: pattern.strokes.filter((s) => s.at >= from && s.at < until).map((s) => ({ ...s, at: ticks(s.at - from) })),
    groups: pattern.groups.flatMap((g) => {
      const [a, b] = [Math.max(g.at, from), Math.min(g.at + g.length, until)];
      return b > a ? [{ ...g, at: ticks(a - from), length: ticks(b - a) }] : [];
    }),
  };
}

/**
 * One bar of a pattern, from 0, as a pattern of its own on its own bar line; empty where the pattern has nothing there.
 * @example
 * barOf(patternOfText(parseStrokeText('(R L)x16').value, meter(4, 4), GRID.sixteenths), 1).strokes.length // => 16
 */
export function barOf(pattern: Pattern, n: number): Pattern {
  const bar = barTicks(pattern.meter);
  const from = Math.max(0, n * bar - pattern.start);
  const until = Math.max(from, Math.min(pattern.length, (n + 1) * bar - pattern.start));
  const part = partOf(pattern, from, until);
  return { ...part, start: ticks(Math.max(0, part.start - n * bar)) };
}
