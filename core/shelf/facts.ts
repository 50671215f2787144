import { checksumOf, stableJson } from '../base';
import { barTicks, beatTicks, countAt, meterText, TICKS_PER_QUARTER, USUAL_SCHOOLS, type Feel } from '../time';
import { untilLanding, countingOf, endsOn, leadOf, splitGraces, unisons, type Pattern } from '../pattern';
import { LIMBS, VOICES, type Limb, type Voice } from '../stroke';
import type { Recipe } from '../recipe';
import { traitsOf, type Traits } from './traits';
import { canonicalForm, exactForm } from '../variants';

/** What is known of a phrase by working it out once: a cache that may be dropped. Lengths in ticks. */
export interface Facts {
  readonly length: number;
  /** How long it is up to its landing, and how far behind a bar line it begins. */
  readonly own: number;
  readonly start: number;
  /** Bars it is long, as a fraction. */
  readonly bars: number;
  readonly meter: string;
  readonly grid: number;
  readonly feel: Feel;
  /** The count it starts on, and the one it lands on, as "1" or "4&". */
  readonly starts: string;
  readonly lands: string | null;
  readonly limbs: readonly Limb[];
  readonly voices: readonly Voice[];
  readonly linear: boolean;
  /** The hand it begins with; null when no hand plays. */
  readonly leads: 'R' | 'L' | null;
  /** Strokes a quarter. */
  readonly density: number;
  /** Strokes of each hand in a counted beat. */
  readonly hands: { readonly R: number; readonly L: number };
  /** By what it is told apart on the map. */
  readonly traits: Traits;
  /** The same for phrases that are each other turned or mirrored. */
  readonly form: string;
  /** The same for phrases that are played alike, stroke by stroke. */
  readonly exact: string;
}

/** The version of what facts are: facts of another are worked out anew. */
export const FACTS_VERSION = 7;

/** What facts follow from: of the same recipe they are the same. */
export function factsKey(recipe: Recipe): string {
  return `${FACTS_VERSION}-${checksumOf(stableJson(recipe))}`;
}

/** The facts of a phrase that was worked out. */
export function factsOf(pattern: Pattern): Facts {
  const bar = barTicks(pattern.meter);
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const count = (tick: number): string => countAt(((tick % bar) + bar) % bar, counting).text;
  const land = pattern.groups.find((g) => g.kind === 'land');
  const ends = endsOn(pattern);
  const used = new Set(pattern.strokes.map((s) => s.limb));
  const struck = new Set(pattern.strokes.map((s) => s.voice));
  const own = untilLanding(pattern);
  return {
    length: pattern.length,
    own: own.length,
    start: pattern.start % bar,
    bars: pattern.length / bar,
    meter: meterText(pattern.meter),
    grid: pattern.grid,
    feel: pattern.feel,
    starts: count(pattern.start),
    lands: ends === null ? null : count(pattern.start + (land ? land.at : ends.release)),
    limbs: LIMBS.filter((l) => used.has(l)),
    voices: VOICES.filter((v) => struck.has(v)),
    linear: unisons(pattern).length === 0 && splitGraces(pattern).length === 0,
    leads: leadOf(pattern).first,
    density: own.length === 0 ? 0 : (own.strokes.length * TICKS_PER_QUARTER) / own.length,
    hands: { R: aBeat(pattern, 'R'), L: aBeat(pattern, 'L') },
    traits: traitsOf(pattern),
    form: checksumOf(canonicalForm(pattern)),
    exact: checksumOf(exactForm(pattern)),
  };
}

/** Strokes of a limb in a counted beat, of whole turns. */
function aBeat(pattern: Pattern, limb: Limb): number {
  const many = pattern.strokes.filter((s) => s.limb === limb).length;
  return pattern.length === 0 ? 0 : (many * beatTicks(pattern.meter)) / pattern.length;
}
