import { barTicks, beatTicks, gridName, meterText } from '../time';
import { isHand, VOICE, type Limb, type Stroke, type Voice } from '../stroke';
import { leadOf, momentsOf, untilLanding, type Pattern } from '../pattern';

/** What phrases are told apart by on the map. */
export const TRAITS = [
  'grid',
  'groups',
  'limbs',
  'together',
  'sticking',
  'lead',
  'starts',
  'lands',
  'length',
  'meter',
  'accents',
  'ghosts',
  'way',
  'ornaments',
] as const;
export type Trait = (typeof TRAITS)[number];

/** What each is called. */
export const TRAIT_WORDS: Readonly<Record<Trait, string>> = Object.freeze({
  grid: 'subdivision',
  groups: 'group size',
  limbs: 'limbs',
  together: 'linear or together',
  sticking: 'sticking',
  lead: 'lead',
  starts: 'start',
  lands: 'landing',
  length: 'length',
  meter: 'meter',
  accents: 'accents',
  ghosts: 'ghosts',
  way: 'way round the kit',
  ornaments: 'ornaments',
});

/** A phrase by its traits, each in words. */
export type Traits = Readonly<Record<Trait, string>>;

/**
 * The words of a trait in the order of an axis; those of the others (subdivisions, meters) are sorted as they come.
 */
export const TRAIT_ORDER: Readonly<Partial<Record<Trait, readonly string[]>>> = Object.freeze({
  groups: ['2', '3', '4', '5', '6', '7', '8', '9 and more', 'mixed', 'in one'],
  limbs: ['hands', 'hands and kick', 'hands and hat foot', 'hands and both feet', 'feet', 'nothing'],
  together: ['linear', 'some together', 'mostly together'],
  sticking: ['singles', 'paradiddle-like', 'doubles', 'mixed', 'no hands'],
  lead: ['right', 'left', 'both', 'none'],
  starts: ['on 1', 'on a beat', 'off the beat'],
  lands: ['nowhere', 'kick', 'cymbal with the right', 'cymbal with the left', 'drum'],
  length: ['up to half a bar', 'up to a bar', 'up to two bars', 'up to four bars', 'longer'],
  accents: ['none', 'up to a quarter', 'up to half', 'more than half'],
  ghosts: ['none', 'up to a quarter', 'up to half', 'more than half'],
  way: ['stays', 'hands apart', 'down', 'up', 'round'],
  ornaments: ['none', 'flams', 'drags', 'several'],
});

/**
 * The traits of a phrase. What it lands on is no part of the rest.
 * @example
 * traitsOf(patternOfText(parseStrokeText('R L R R L R L L').value, meter(4, 4), GRID.sixteenths)).sticking // => "paradiddle-like"
 * traitsOf(patternOfText(parseStrokeText('R L K').value, meter(4, 4), GRID.triplets)).together // => "linear"
 */
export function traitsOf(pattern: Pattern): Traits {
  const own = untilLanding(pattern);
  const hands = own.strokes.filter((s) => isHand(s.limb));
  return {
    grid: gridName(pattern.grid),
    groups: groupsOf(own),
    limbs: limbsOf(own),
    together: togetherOf(own),
    sticking: stickingOf(own),
    lead: ((l) => (l.first === null ? 'none' : l.symmetric ? 'both' : l.first === 'R' ? 'right' : 'left'))(leadOf(own)),
    starts: startsOf(own),
    lands: landsOf(pattern),
    length: lengthOf(own),
    meter: meterText(pattern.meter),
    accents: shareWords(hands.filter((s) => s.level === 'accent').length, hands.length),
    ghosts: shareWords(hands.filter((s) => s.level === 'ghost').length, hands.length),
    way: wayOf(hands),
    ornaments: ornamentsOf(own),
  };
}

function groupsOf({ groups, grid, length }: Pattern): string {
  const cells = groups.filter((g) => g.kind === 'cell');
  const [first] = cells;
  if (cells.length <= 1 && (!first || first.length >= length)) {
    const slots = Math.round(length / grid);
    return slots >= 2 && slots <= 8 ? String(slots) : 'in one';
  }
  const sizes = new Set(cells.map((c) => Math.round(c.length / grid)));
  const [size = 0] = sizes;
  if (sizes.size > 1) return 'mixed';
  return size > 8 ? '9 and more' : String(Math.max(2, size));
}

function limbsOf({ strokes }: Pattern): string {
  const used = new Set<Limb>(strokes.map((s) => s.limb));
  const hands = used.has('R') || used.has('L');
  const kick = used.has('K');
  const other = used.has('H') || used.has('J');
  if (!hands) return kick || other ? 'feet' : 'nothing';
  return kick && other ? 'hands and both feet' : kick ? 'hands and kick' : other ? 'hands and hat foot' : 'hands';
}

function togetherOf(pattern: Pattern): string {
  const moments = momentsOf(pattern);
  const together = moments.filter((m) => m.limbs.length > 1).length;
  return together === 0 ? 'linear' : together * 2 >= moments.length ? 'mostly together' : 'some together';
}

/** By how many of its hand strokes repeat the hand before, round the loop; strokes of both hands at once part runs. */
function stickingOf(pattern: Pattern): string {
  const row = momentsOf(pattern).flatMap(({ limbs }) => {
    const own = limbs.filter(isHand);
    return own.length === 0 ? [] : [own.length > 1 ? '' : (own[0] ?? '')];
  });
  if (row.length < 2) return 'no hands';
  const again = row.map((hand, i) => hand !== '' && hand === row[(i + row.length - 1) % row.length]);
  const share = again.filter(Boolean).length / row.length;
  if (share < 0.1) return 'singles';
  if (again.some((a, i) => a && again[(i + 1) % row.length])) return 'mixed';
  return share > 0.42 ? 'doubles' : 'paradiddle-like';
}

function startsOf({ start, meter }: Pattern): string {
  const at = start % barTicks(meter);
  const beat = beatTicks(meter);
  return at === 0 ? 'on 1' : at % beat === 0 ? 'on a beat' : 'off the beat';
}

function landsOf(pattern: Pattern): string {
  const land = pattern.groups.find((g) => g.kind === 'land');
  if (!land) return 'nowhere';
  const own = pattern.strokes.filter((s) => s.at === land.at);
  const hand = own.find((s) => isHand(s.limb));
  if (!hand) return own.length > 0 ? 'kick' : 'nowhere';
  if (VOICE[hand.voice].family !== 'metal') return 'drum';
  return hand.limb === 'R' ? 'cymbal with the right' : 'cymbal with the left';
}

function lengthOf({ length, meter }: Pattern): string {
  const bars = length / barTicks(meter);
  if (bars <= 0.5) return 'up to half a bar';
  if (bars <= 1) return 'up to a bar';
  if (bars <= 2) return 'up to two bars';
  return bars <= 4 ? 'up to four bars' : 'longer';
}

function shareWords(of: number, all: number): string {
  if (of === 0) return 'none';
  return of * 4 <= all ? 'up to a quarter' : of * 2 <= all ? 'up to half' : 'more than half';
}

/** Drums from the highest down: whose hands go that way go down the kit. */
const DOWN: readonly Voice[] = ['snare', 'high-tom', 'mid-tom', 'low-tom', 'floor-tom'];

function wayOf(hands: readonly Stroke[]): string {
  const voices = new Set(hands.map((s) => s.voice));
  if (voices.size <= 1) return 'stays';
  const of = (limb: Limb): ReadonlySet<Voice> => new Set(hands.filter((s) => s.limb === limb).map((s) => s.voice));
  if (of('R').size <= 1 && of('L').size <= 1) return 'hands apart';
  const places = hands.map((s) => DOWN.indexOf(s.voice));
  if (places.includes(-1)) return 'round';
  const steps = places.slice(1).map((p, i) => p - (places[i] ?? p));
  if (steps.every((s) => s >= 0)) return 'down';
  return steps.every((s) => s <= 0) ? 'up' : 'round';
}

function ornamentsOf({ strokes }: Pattern): string {
  const own = new Set(strokes.flatMap((s) => (s.ornament ? [s.ornament] : [])));
  if (own.size === 0) return 'none';
  if (own.size > 1) return 'several';
  const [one] = own;
  return one === 'flam' ? 'flams' : one === 'drag' ? 'drags' : 'several';
}
