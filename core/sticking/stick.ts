import { count } from '../base';
import type { Schools } from '../time';
import { isHand, LIMB_WORDS, LIMBS, type Hand, type Stroke } from '../stroke';
import { placesWords, placeWords, tidy, type Pattern } from '../pattern';
import { asEdit, type Edit } from '../recipe';
import { voiceOn, type Kit } from '../kit';
import { ceilingOn, type Able, limitOf } from '../reach';
import { costOf, Needs, type CostParts, type Terms, type StickingFacts } from './cost';
import { rhythmOf, type Pins, type Rhythm, type Unplayable } from './rhythm';
import { STICKING_SCHOOLS, type StickingSchool } from './schools';
import { bestWays, type Way } from './solve';

/** A sticking for a pattern, with its reasons. */
export interface Sticking {
  readonly school: StickingSchool;
  readonly pattern: Pattern;
  /**
   * Which limb plays each stroke of the pattern it was found for: a letter a stroke, in that pattern's order. With
   * `limbed` it gives the pattern again.
   */
  readonly limbs: string;
  readonly cost: number;
  readonly parts: CostParts;
  /** Strokes of each hand. */
  readonly load: Readonly<Record<Hand, number>>;
  /** Whether it can be played at the tempo that was asked for. */
  readonly fits: boolean;
  /** Counted beats a minute from which on it breaks; null when nothing limits it. */
  readonly breaksAt: number | null;
  /** Why, in short sentences. */
  readonly words: readonly string[];
}

export interface StickingWish {
  /** Counted beats a minute. */
  readonly bpm: number;
  readonly kit: Kit;
  readonly profile: Able;
  readonly pins: Pins;
  readonly schools: Schools;
  /** How many answers of each school. */
  readonly many: number;
  /** In how many strokes answers of one school must differ; 1 gives the plain best. */
  readonly apart: number;
}

export interface Stickings {
  readonly found: readonly Sticking[];
  readonly unplayable: readonly Unplayable[];
  /** Schools with nothing to say, or nothing that holds at the tempo, and why. */
  readonly silent: readonly Silent[];
}

/** A school that finds nothing, or nothing that can be played so fast. */
export interface Silent {
  readonly school: StickingSchool;
  readonly words: string;
}

/** The longest rhythm that is stuck at once, in moments. */
export const MOST_MOMENTS = 4096;

/** How many ways are looked at for each that is shown, so that those shown can differ. */
const POOL = 6;

/**
 * The best stickings of a pattern in every school: hands share what hands play, feet keep their own. The phrase goes
 * round, so the end leads to the beginning. A rhythm that two hands cannot play comes back without answers, and says by
 * count what could give; a school that has nothing to say here is left out and says why. The same wish always gives the
 * same answers.
 */
export function stickings(
  pattern: Pattern,
  wish: StickingWish,
  only: readonly StickingSchool[] = STICKING_SCHOOLS,
  onProgress?: (share: number) => void,
): Stickings {
  const rhythm = rhythmOf(pattern, wish.bpm, wish.pins, wish.schools, (v) => voiceOn(wish.kit, v) ?? v);
  const { events, unplayable } = rhythm;
  if (unplayable.length > 0) return { found: [], unplayable, silent: [] };
  if (events.length > MOST_MOMENTS)
    return {
      found: [],
      silent: [],
      unplayable: [
        {
          at: 0,
          words: `This has ${events.length} places to play; stickings are found for up to ${MOST_MOMENTS}. Choose a shorter part.`,
        },
      ],
    };
  const answers = only.map((school, nth): Answered => {
    if (school === 'time hand' && !rhythm.keepsTime)
      return { found: [], silent: { school, words: 'No hi-hat or cymbal here for a hand to keep time on.' } };
    return ofSchool(pattern, wish, rhythm, school, (share) => onProgress?.((nth + share) / only.length));
  });
  onProgress?.(1);
  return {
    found: answers.flatMap((a) => a.found),
    unplayable,
    silent: answers.flatMap((a) => a.silent ?? []),
  };
}

/** What a school answers, and what is to be said where none of it holds. */
interface Answered {
  readonly found: readonly Sticking[];
  readonly silent: Silent | null;
}

/** The best stickings of one school. */
function ofSchool(
  pattern: Pattern,
  wish: StickingWish,
  rhythm: Rhythm,
  school: StickingSchool,
  onProgress: (share: number) => void,
): Answered {
  const terms: Terms = { school, kit: wish.kit, profile: wish.profile };
  const needs = new Needs(terms);
  const pool = bestWays(terms, rhythm, wish.apart > 1 ? wish.many * POOL : wish.many, onProgress);
  const found = apart(pool, wish.many, wish.apart).map((way) => stickingOf(pattern, wish, rhythm, terms, needs, way));
  if (found.length === 0 || found.some((a) => a.fits)) return { found, silent: null };
  const best = Math.max(...found.map((a) => a.breaksAt ?? Infinity));
  const words = `Too fast for this style at ${wish.bpm}. Its best reaches ${Math.floor(best)}.`;
  return { found, silent: { school, words } };
}

/** One way for the hands as a sticking: where it breaks, what it asks of each hand, and why it is proposed. */
function stickingOf(
  pattern: Pattern,
  { bpm, kit, profile, schools }: StickingWish,
  rhythm: Rhythm,
  terms: Terms,
  needs: Needs,
  way: Way,
): Sticking {
  const { cost, parts, used, worst, told } = costOf(terms, rhythm, way.hands, needs);
  const limbs = pattern.strokes.map((s) => s.limb);
  rhythm.events.forEach((e, i) => e.strokes.forEach((s, n) => (limbs[s.index] = way.hands[i]?.[n] ?? 'R')));
  const stuck = withLimbs(pattern, limbs.join(''));
  const breaksAt = limitOf(ceilingOn(stuck, kit, profile).bpm);
  const load = { R: 0, L: 0 };
  for (const hands of way.hands) for (const h of hands) load[h]++;
  const tight = worst === null || used < 0.6 ? null : placeWords(pattern, worst, schools);
  const fits = breaksAt === null || bpm <= breaksAt;
  const again = terms.school === 'alternating' && told.again.length > 0;
  return {
    ...{ school: terms.school, pattern: stuck, limbs: limbs.join(''), cost, parts, load, fits, breaksAt },
    words: [
      ...reasons(told, load, tight, fits),
      ...(again ? [`not strict: the same hand twice at ${placesWords(pattern, told.again, schools)}`] : []),
    ],
  };
}

/** Ways that differ in enough strokes from all taken before, the cheapest always first. */
function apart(pool: readonly Way[], many: number, least: number): readonly Way[] {
  // The solver's answers are all different already.
  if (least <= 1) return pool.slice(0, many);
  const taken: Way[] = [];
  for (const way of pool) {
    if (taken.length === many) break;
    const near = taken.some((t) => t.hands.reduce((n, h, i) => n + (h[0] === way.hands[i]?.[0] ? 0 : 1), 0) < least);
    if (!near) taken.push(way);
  }
  return taken;
}

/**
 * A pattern with its strokes given to limbs, a letter a stroke in the pattern's order; voices, heights and ornaments
 * stay. A stroke without a letter of a limb keeps its own.
 */
export function withLimbs(pattern: Pattern, limbs: string): Pattern {
  return tidy({
    ...pattern,
    strokes: pattern.strokes.map((s, i): Stroke => ({ ...s, limb: LIMBS.find((l) => l === limbs[i]) ?? s.limb })),
  });
}

function reasons(
  told: StickingFacts,
  load: Readonly<Record<Hand, number>>,
  tight: string | null,
  fits: boolean,
): string[] {
  const { thirds, seconds, crossed } = told;
  return [
    `${LIMB_WORDS.R} ${load.R}, ${LIMB_WORDS.L} ${load.L}`,
    ...(thirds > 0 ? [`3 or more in a row: ${count(thirds, 'stroke')}`] : []),
    ...(seconds > 0 ? [`${count(seconds, 'accent')} on the second of a double`] : []),
    ...(crossed > 0 ? [`hands crossed ${crossed === 1 ? 'once' : `${crossed} times`}`] : []),
    ...(tight === null ? [] : [`${fits ? 'hardest' : 'too fast'} ${tight.startsWith('just') ? '' : 'at '}${tight}`]),
  ];
}

/** Of the same letters as the first answer of a school before it: then it says so instead of showing them again. */
export function sameAs(found: readonly Sticking[], sticking: Sticking): StickingSchool | null {
  const before = STICKING_SCHOOLS.slice(0, STICKING_SCHOOLS.indexOf(sticking.school));
  return before.find((school) => found.some((f) => f.school === school && f.limbs === sticking.limbs)) ?? null;
}

/** What turns the sticking a pattern has into another one, as hand edits of a `touch`. */
export function stickingEdits(before: Pattern, after: Pattern): Edit[] {
  const keyOf = (s: Stroke): string => `${s.at} ${s.limb} ${s.voice} ${s.level} ${s.ornament ?? ''}${s.grace ?? ''}`;
  const own = new Set(before.strokes.map(keyOf));
  const wanted = new Set(after.strokes.map(keyOf));
  const goes = before.strokes.filter((s) => isHand(s.limb) && !wanted.has(keyOf(s)));
  const comes = after.strokes.filter((s) => isHand(s.limb) && !own.has(keyOf(s)));
  const taken = new Set(comes.map((s) => `${s.at}${s.limb}`));
  return [
    ...goes.filter((s) => !taken.has(`${s.at}${s.limb}`)).map((s): Edit => ({ at: s.at, limb: s.limb, stroke: null })),
    ...comes.map((s) => asEdit(s, s.at)),
  ];
}

/** A sticking in letters, as people write it: "R L R R". Feet are left out, moments of both hands are "RL". */
export function stickingText(pattern: Pattern): string {
  const moments = new Map<number, string>();
  for (const s of pattern.strokes) if (isHand(s.limb)) moments.set(s.at, `${moments.get(s.at) ?? ''}${s.limb}`);
  return [...moments.values()].join(' ');
}
