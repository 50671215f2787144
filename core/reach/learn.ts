import type { Limb } from '../stroke';
import type { Pattern } from '../pattern';
import { revoice, type Kit } from '../kit';
import { BURST, tightPairs, type Ceiling, type TightPair } from './ceiling';
import { doublesOf, RATE_LIMITS, type Able, type Profile, type StrokeKind } from './profile';
import { fittsOf } from './way-test';

/** A phrase that was played clean, and how fast; the tempo in counted beats a minute, the time since 1970 in ms. */
export interface Proof {
  readonly name: string;
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly at: number;
}

/** What a clean try showed beyond what was known: a rate that is at least so high, or ways that are so much shorter. */
export type Lesson = { readonly name: string; readonly bpm: number; readonly at: number } & (
  | { readonly of: 'rate'; readonly limb: Limb; readonly kind: StrokeKind; readonly rate: number }
  | { readonly of: 'ways'; readonly share: number }
);

/** So little more than enough that rounding takes no beat from what was shown. */
const ENOUGH = 1 + 1e-9;

/** Ways are never believed to take less than this share of what they are usually timed at. */
const LEAST_SHARE = 0.4;

/**
 * What clean tries show of what a player's limbs can do: the least by which rates must be raised, and ways shortened,
 * so that every stroke of every phrase had time enough. Of each rate the try that asks most of it. Empty when all of it
 * was known.
 */
export function lessonsOf(proofs: readonly Proof[], kit: Kit, profile: Profile): readonly Lesson[] {
  return gathered(
    proofs.flatMap((proof) => taughtBy(proof, kit, profile)),
    profile,
  );
}

/** All that one clean try asks of a player's limbs beyond what is known, to be gathered with that of others. */
export function taughtBy({ name, pattern, bpm, at }: Proof, kit: Kit, profile: Profile): readonly Lesson[] {
  const told = { name, bpm, at };
  return tightPairs(revoice(pattern, kit).pattern, kit, profile)
    .filter((pair) => pair.bpm < bpm)
    .flatMap((pair): Lesson[] => {
      const { repeat, rise, travel, kind, limbs, faster, off } = pair.parts;
      const had = ((pair.need - off) * pair.bpm) / bpm + off;
      const ways: Lesson[] =
        travel > had ? [{ ...told, of: 'ways', share: Math.max(LEAST_SHARE, had / travel / ENOUGH) }] : [];
      if (repeat + rise <= had || had <= rise) return ways;
      const rate = Math.min(RATE_LIMITS.most, ENOUGH / (had - rise) / faster);
      return [...ways, ...limbs.map((limb): Lesson => ({ ...told, of: 'rate', limb, kind, rate }))];
    });
}

/** Of what many tries ask, what asks most of each rate and of the ways. */
export function gathered(lessons: readonly Lesson[], profile: Profile): readonly Lesson[] {
  const found = new Map<string, Lesson>();
  for (const lesson of lessons) {
    const key = lesson.of === 'ways' ? 'ways' : `${lesson.limb} ${lesson.kind}`;
    const known = found.get(key);
    if (!known || askedBy(lesson) > askedBy(known)) found.set(key, lesson);
  }
  const all = [...found.values()];
  // Who plays singles so fast plays doubles faster anyhow: that needs no lesson of its own.
  const singly = effectiveProfile(
    profile,
    all.filter((l) => l.of === 'ways' || l.kind === 'singles'),
  );
  return all.filter((l) => l.of === 'ways' || l.kind === 'singles' || fastestPair(singly, l.limb) < l.rate / ENOUGH);
}

/** How fast two strokes of a limb follow each other at most. */
function fastestPair(able: Able, limb: Limb): number {
  return Math.max(doublesOf(able, limb), able.rates[limb].singles * BURST.faster);
}

function askedBy(lesson: Lesson): number {
  return lesson.of === 'rate' ? lesson.rate : 1 / lesson.share;
}

/**
 * A player as their tests and what they showed have them. Without lessons the profile itself.
 * @example
 * effectiveProfile(USUAL_PROFILE, []) === USUAL_PROFILE // => true
 * effectiveProfile(USUAL_PROFILE, [{ of: 'rate', limb: 'R', kind: 'singles', rate: 9, name: 'Rope', bpm: 97, at: 5 }]).rates.R.singles // => 9
 */
export function effectiveProfile(profile: Profile, lessons: readonly Lesson[]): Able {
  return lessons.reduce<Able>((able, lesson) => {
    if (lesson.of === 'ways') {
      const { a, b } = fittsOf(profile);
      return { ...able, fitts: { a: a * lesson.share, b: b * lesson.share } };
    }
    const { limb, kind, rate } = lesson;
    const own = able.rates[limb];
    return { ...able, rates: { ...able.rates, [limb]: { ...own, [kind]: Math.max(own[kind], rate) } } };
  }, profile);
}

/** The lesson that raised a ceiling: the one about what limited it before; null when none was. */
export function lessonFor(before: Pick<Ceiling, 'pairs'>, lessons: readonly Lesson[]): Lesson | null {
  const [pair] = before.pairs;
  return (pair && lessons.find((l) => teaches(l, pair))) ?? null;
}

function teaches(lesson: Lesson, { why, parts }: TightPair): boolean {
  if (lesson.of === 'ways') return why === 'travel';
  // Faster singles make doubles faster, not the other way round.
  const speaks = lesson.kind === parts.kind || lesson.kind === 'singles';
  return why === 'repeat' && speaks && parts.limbs.includes(lesson.limb);
}
