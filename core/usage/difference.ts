import { mod } from '../base';
import { barTicks, quarterTempo, secondsOf, type Meter } from '../time';
import { untilLanding, type Pattern } from '../pattern';
import { expectedOf } from '../rendition';
import { align, readTake, verdictOf, type Hit, type Strictness, type TakeVerdict } from '../take';
import { isLoud, type Lattice } from './lattice';
import { profileOf } from './profile';
import type { Came } from './recognise';

/** How a phrase that came differs from what is written. Slots are of its grid; ticks are later than written. */
export type Difference =
  | { readonly kind: 'ended early'; readonly slots: number; readonly grid: number }
  | { readonly kind: 'begun late'; readonly slots: number; readonly grid: number }
  | { readonly kind: 'left out'; readonly strokes: number }
  | { readonly kind: 'accents'; readonly where: 'the lefts' | 'the rights' | 'elsewhere' | 'nowhere' }
  | { readonly kind: 'pieces' }
  | { readonly kind: 'swapped' }
  | { readonly kind: 'moved'; readonly ticks: number; readonly grid: number };

/** So many accents must be missing, or be where none is written, to be said. */
const ACCENTS = 2;

/**
 * What was different in a phrase that came: cut short, strokes left out, other accents, other pieces, hands swapped, at
 * another place of the bar. Empty where it came as it is written.
 * @param lattice what was played, on the grid of the phrase
 * @param meter of what was played
 */
export function differencesOf(pattern: Pattern, came: Came, lattice: Lattice, meter: Meter): readonly Difference[] {
  const profile = profileOf(pattern, lattice.blind);
  if (!profile) return [];
  const { grid, slots } = profile;
  const first = came.at / grid;
  const [from, until] = [(came.from - came.at) / grid, (came.until - came.at) / grid];
  const here = slots.map((want, i) => ({ want, hits: lattice.slots[first + i] ?? [], i }));
  const struckAt = here.filter((s) => s.want.kinds.size > 0).map((s) => s.i);
  const inside = here.filter((s) => s.i >= from && s.i < until);
  const found: Difference[] = [];
  const early = slots.length - Math.max(until, ...inside.map((s) => s.i + 1));
  if (struckAt.some((i) => i >= until)) found.push({ kind: 'ended early', slots: early, grid });
  if (struckAt.some((i) => i < from)) found.push({ kind: 'begun late', slots: from, grid });
  if (came.of > came.struck) found.push({ kind: 'left out', strokes: came.of - came.struck });
  const accents = accentsOf(inside, untilLanding(pattern));
  if (accents) found.push({ kind: 'accents', where: accents });
  const pieces = inside.flatMap(({ want, hits }) => {
    const hand = hits.find((h) => h.kind === 'hand');
    return want.voice && hand?.voice ? [hand.voice === want.voice] : [];
  });
  if (pieces.filter((own) => !own).length * 2 >= Math.max(4, pieces.length)) found.push({ kind: 'pieces' });
  if (came.swapped === true) found.push({ kind: 'swapped' });
  const bar = barTicks(meter);
  const later = mod(came.at - pattern.start, bar);
  if (barTicks(pattern.meter) === bar && later !== 0)
    found.push({ kind: 'moved', ticks: later > bar / 2 ? later - bar : later, grid });
  return found;
}

interface Compared {
  readonly want: { readonly loud: boolean | null };
  readonly hits: Lattice['slots'][number];
  readonly i: number;
}

/** Where its accents were instead; null where they are about where they are written, or force was not told. */
function accentsOf(
  inside: readonly Compared[],
  own: Pattern,
): 'the lefts' | 'the rights' | 'elsewhere' | 'nowhere' | null {
  const told = inside.flatMap(({ want, hits, i }) => {
    const is = isLoud(hits);
    return want.loud !== null && is !== null ? [{ wanted: want.loud, is, i }] : [];
  });
  const missing = told.filter((t) => t.wanted && !t.is).length;
  const other = told.filter((t) => !t.wanted && t.is);
  if (missing < ACCENTS) return null;
  if (!told.some((t) => t.is)) return 'nowhere';
  if (other.length < ACCENTS) return null;
  const loud = told
    .filter((t) => t.is)
    .map((t) => own.strokes.filter((s) => s.at === t.i * own.grid).map((s) => s.limb));
  if (loud.every((limbs) => limbs.includes('L') && !limbs.includes('R'))) return 'the lefts';
  if (loud.every((limbs) => limbs.includes('R') && !limbs.includes('L'))) return 'the rights';
  return 'elsewhere';
}

/** What the judge of takes says of a phrase that came whole; null where it came cut short. */
export function verdictOn(
  pattern: Pattern,
  came: Pick<Came, 'at' | 'from' | 'until'>,
  hits: readonly Hit[],
  bpm: number,
  strictness: Strictness,
): TakeVerdict | null {
  const own = untilLanding(pattern);
  const last = own.strokes.reduce((most, s) => Math.max(most, s.at), 0);
  const first = own.strokes.reduce((least, s) => Math.min(least, s.at), last);
  if (came.from > came.at + first || came.until <= came.at + last) return null;
  const quarter = quarterTempo(bpm, own.meter);
  const zero = secondsOf(came.at - own.start, quarter);
  const slot = secondsOf(own.grid, quarter);
  const [from, until] = [secondsOf(came.at + first, quarter) - slot / 2, secondsOf(came.at + last, quarter) + slot / 2];
  const within = hits
    .filter((h) => h.seconds >= from && h.seconds < until)
    .map((h) => ({ ...h, seconds: h.seconds - zero }));
  const expected = expectedOf(own, quarter, 0, 1);
  return verdictOf(readTake(expected, within, align(expected, within)), slot, strictness);
}
