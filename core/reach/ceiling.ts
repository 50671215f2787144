import { beatTicks, isCompound, swung, ticks, TICKS_PER_QUARTER, type Meter, type Schools, type Ticks } from '../time';
import { LIMB_WORDS, LIMBS, VOICE, VOICES, type Limb, type Stroke, type Voice } from '../stroke';
import { ledIn, loopTicks, pickupOf, placeWords, strokesOf, type Pattern } from '../pattern';
import { revoice, type Kit } from '../kit';
import { blowsOf, type Blow } from './blows';
import { doublesOf, isMeasured, type Able, type StrokeKind } from './profile';
import { distance, riseSeconds, targetOf, travelSeconds, type Fitts } from './travel';
import { fittsOf } from './way-test';

/**
 * A burst of up to this many strokes may go faster than what is kept up, by this much: short runs ride on the first
 * impulse.
 */
export const BURST = Object.freeze({ strokes: 4, faster: 1.25 });

/** Two strokes belong to one run when the gap between them is at most this many times the gap looked at. */
const SAME_RUN = 1.5;

/** Two strokes of one limb in a row, and the tempo from which on they do not fit any more. */
export interface TightPair {
  readonly limb: Limb;
  /** Indexes of the two strokes in the pattern; those of a pick-up count on after the last of the loop. */
  readonly from: number;
  readonly to: number;
  /** Tick of the second, from the pattern's start. */
  readonly at: Ticks;
  /** Counted beats a minute at which it just fits. */
  readonly bpm: number;
  /** Seconds that limb needs. */
  readonly need: number;
  readonly why: 'repeat' | 'travel';
  /** What the limb strikes at both: of grace strokes theirs. */
  readonly struck: readonly [from: Voice, to: Voice];
  /** Which of both are grace strokes of the stroke that is named. */
  readonly graces: readonly [from: boolean, to: boolean];
  /** What the need is made of, in seconds. */
  readonly parts: NeedParts;
}

/** What two strokes in a row of one limb need, in seconds. */
export interface NeedParts {
  /** Striking again, by which kind of stroke, and whose. */
  readonly repeat: number;
  readonly kind: StrokeKind;
  readonly limbs: readonly Limb[];
  /** How many times faster than its rate a burst goes. */
  readonly faster: number;
  /** Raising the stick, which is part of the way where there is one. */
  readonly rise: number;
  readonly travel: number;
  /** By how much grace strokes lengthen the time there is, or shorten it. */
  readonly off: number;
}

export interface Ceiling {
  /** Highest tempo, in counted beats a minute, at which every pair fits; null when no limb plays twice. */
  readonly bpm: number | null;
  /** The three tightest places, tightest first, each place once. */
  readonly pairs: readonly TightPair[];
  /** Whether some rate it rests on was never measured, or the way that limits it never timed. */
  readonly estimate: boolean;
  /** Ticks at which one foot would have to be in two places. */
  readonly impossible: readonly Ticks[];
}

/**
 * The highest tempo a phrase can be played at, going round as a loop: for every two strokes in a row of one limb, the
 * time between them must be at least what the limb needs: the larger of repetition (1 / rate, by limb and kind; a burst
 * of up to four strokes 1.25 times as fast) with what raising the stick costs, and travel (Fitts), which contains the
 * rise. Swing and grace strokes count.
 */
export function ceiling(pattern: Pattern, kit: Kit, profile: Able): Ceiling {
  const strokes = strokesOf(pattern);
  const played = LIMBS.filter((l) => strokes.some((s) => s.limb === l));
  const impossible = bodyParts(kit).flatMap((limbs) => {
    const blows = blowsOf(pattern, limbs).filter((b) => b.offset === 0);
    return blows.flatMap((b, i) => (blows[i + 1]?.at === b.at ? [b.stroke.at] : []));
  });
  const places = new Set<string>();
  const all = [...tightPairs(pattern, kit, profile), ...leadPairs(pattern, kit, profile)].sort(tightestFirst);
  const pairs = all.filter((p) => {
    const place = `${p.at} ${p.limb}`;
    return !places.has(place) && places.add(place);
  });
  return {
    bpm: pairs[0]?.bpm ?? null,
    pairs: pairs.slice(0, 3),
    estimate: !isMeasured(profile, played) || (pairs[0]?.why === 'travel' && (profile.ways ?? []).length === 0),
    impossible: [...new Set(impossible)],
  };
}

/**
 * The ceiling of a phrase as it is written: on a kit that lacks some of its voices, of what is played there instead.
 * Its pairs speak of the re-voiced pattern's strokes.
 * @example
 * ceilingOn(patternOfText(parseStrokeText('K J').value, meter(2, 4), GRID.quarters), KIT_PRESETS[1], USUAL_PROFILE).bpm === ceilingOn(patternOfText(parseStrokeText('K K').value, meter(2, 4), GRID.quarters), KIT_PRESETS[1], USUAL_PROFILE).bpm // => true
 */
export function ceilingOn(pattern: Pattern, kit: Kit, profile: Able): Ceiling {
  return ceiling(revoice(pattern, kit).pattern, kit, profile);
}

/** Every two strokes in a row of one body part, the tightest first. */
export function tightPairs(pattern: Pattern, kit: Kit, profile: Able): readonly TightPair[] {
  const loop = swung(loopTicks(pattern), pattern.feel);
  const way = waysOn(kit, fittsOf(profile));
  return bodyParts(kit)
    .flatMap((limbs) => {
      const blows = blowsOf(pattern, limbs);
      const own = blows.filter((b) => !b.grace);
      const pairs = pairsOf(pattern, blows, loop, way, profile);
      // Strokes that are too fast by themselves are not slowed down by grace strokes between them.
      return own.length === blows.length ? pairs : [...pairs, ...pairsOf(pattern, own, loop, way, profile)];
    })
    .sort(tightestFirst);
}

const tightestFirst = (a: TightPair, b: TightPair): number => a.bpm - b.bpm || a.at - b.at;

/** Every two strokes in a row of which one at least is of the pick-up, which is played once. */
function leadPairs(pattern: Pattern, kit: Kit, profile: Able): readonly TightPair[] {
  const led = ledIn(pattern);
  if (!led) return [];
  const many = pickupOf(pattern).length;
  const lead = led.length - pattern.length;
  const own = (index: number): number => (index < many ? pattern.strokes.length + index : index - many);
  return tightPairs(led, kit, profile).flatMap((p) =>
    // From the last stroke to the first one there is no way: it is not played again.
    p.from < p.to && p.from < many ? [{ ...p, from: own(p.from), to: own(p.to), at: ticks(p.at - lead) }] : [],
  );
}

/** What moves as one: each hand, and each foot with all its pedals. */
function bodyParts(kit: Kit): readonly (readonly Limb[])[] {
  const { K, J, H } = kit.feet;
  // Without a second pedal the one kick foot plays both kicks; a hi-hat nobody works is the other foot's.
  const feet = { K, J: J ?? K, H: H ?? (K === 'right foot' ? 'left foot' : 'right foot') };
  const of = (foot: string): Limb[] => (['K', 'J', 'H'] as const).filter((l) => feet[l] === foot);
  return [['R'], ['L'], of('right foot'), of('left foot')];
}

/** Seconds of travel between two strokes. */
type Way = (a: Stroke, b: Stroke) => number;

/** Ways that were worked out on a kit: the same ones are asked for again and again, for phrase after phrase. */
const known = new WeakMap<Kit, { readonly fitts: Fitts; readonly ways: Float64Array }>();
const SPOTS = VOICES.length * LIMBS.length;
const PLACE = Object.fromEntries(
  LIMBS.map((l, j) => [l, Object.fromEntries(VOICES.map((v, i) => [v, i * LIMBS.length + j]))]),
) as Record<Limb, Record<Voice, number>>;

function waysOn(kit: Kit, fitts: Fitts): Way {
  const before = known.get(kit);
  const ways =
    before?.fitts.a === fitts.a && before.fitts.b === fitts.b ? before.ways : new Float64Array(SPOTS * SPOTS).fill(NaN);
  if (ways !== before?.ways) known.set(kit, { fitts, ways });
  return (a, b) => {
    if (a.voice === b.voice && a.limb === b.limb) return 0;
    const key = PLACE[a.limb][a.voice] * SPOTS + PLACE[b.limb][b.voice];
    const found = ways[key] ?? NaN;
    return Number.isNaN(found) ? (ways[key] = travelBetween(kit, a, b, fitts)) : found;
  };
}

function pairsOf(pattern: Pattern, blows: readonly Blow[], loop: number, way: Way, profile: Able): TightPair[] {
  if (blows.length < 2) return blows.length === 1 ? lonePair(pattern, blows, loop, profile) : [];
  const gaps = blows.map((b, i) => (blows[i + 1]?.at ?? (blows[0]?.at ?? 0) + loop) - b.at);
  const longest = Math.max(...gaps);
  return blows.flatMap((from, i): TightPair[] => {
    const to = blows[(i + 1) % blows.length];
    const gap = gaps[i] ?? 0;
    // Grace strokes of the hand that plays their stroke bounce into it.
    if (!to || gap <= 0 || (from.index === to.index && blows.length > 2)) return [];
    const again = repeatOf(from, to, runLength(gaps, longest, i), profile);
    const travel = way(from.stroke, to.stroke);
    const rise = riseSeconds(from.stroke.level, to.stroke.level);
    // On its way to another place the stick rises anyhow.
    const need = Math.max(again.repeat + rise, travel);
    // Grace strokes lie a fixed time off their tick, so they take from the time there is, or add to it.
    const off = to.offset - from.offset;
    const bare = need - off;
    if (bare <= 0) return [];
    return [
      {
        limb: to.stroke.limb,
        from: from.index,
        to: to.index,
        at: to.stroke.at,
        bpm: countedTempo((60 * gap) / (TICKS_PER_QUARTER * bare), pattern.meter),
        need,
        why: travel === need ? 'travel' : 'repeat',
        struck: [from.stroke.voice, to.stroke.voice],
        graces: [from.grace, to.grace],
        parts: { ...again, rise, travel, off },
      },
    ];
  });
}

/** A limb that plays once a turn still comes round to its own stroke. */
function lonePair(pattern: Pattern, [blow]: readonly Blow[], loop: number, profile: Able): TightPair[] {
  if (!blow || loop <= 0) return [];
  const { limb, at, voice } = blow.stroke;
  const need = 1 / profile.rates[limb].singles;
  const bpm = countedTempo((60 * loop) / (TICKS_PER_QUARTER * need), pattern.meter);
  const parts = { repeat: need, kind: 'singles', limbs: [limb], faster: 1, rise: 0, travel: 0, off: 0 } as const;
  return [
    {
      limb,
      from: blow.index,
      to: blow.index,
      at,
      bpm,
      need,
      why: 'repeat',
      struck: [voice, voice],
      graces: [false, false],
      parts,
    },
  ];
}

/**
 * How many strokes make the run that a gap stands in: its neighbours for as long as they are no longer than one and a
 * half of it. Infinity for a loop without a breath.
 */
function runLength(gaps: readonly number[], longest: number, i: number): number {
  const most = (gaps[i] ?? 0) * SAME_RUN;
  const n = gaps.length;
  // Beyond a burst only a loop without any breath is told apart, so a long run is not counted to its end at every
  // stroke.
  if (longest <= most) return Infinity;
  let run = 1;
  for (let k = 1; run <= BURST.strokes && (gaps[(i + k) % n] ?? 0) <= most; k++) run++;
  for (let k = 1; run <= BURST.strokes && (gaps[(i - k + n) % n] ?? 0) <= most; k++) run++;
  return run + 1;
}

function repeatOf(
  from: Blow,
  to: Blow,
  run: number,
  profile: Able,
): Pick<NeedParts, 'repeat' | 'kind' | 'limbs' | 'faster'> {
  const { limb } = to.stroke;
  const { singles } = profile.rates[limb];
  if (from.stroke.limb !== limb) {
    const slower = Math.min(singles, profile.rates[from.stroke.limb].singles);
    return { repeat: 1 / slower, kind: 'singles', limbs: [from.stroke.limb, limb], faster: 1 };
  }
  const burst = singles * BURST.faster;
  // A grace stroke falls from where the stick is, low, as the second stroke of a double does.
  if (run === 2 || to.offset < 0)
    return { repeat: 1 / Math.max(doublesOf(profile, limb), burst), kind: 'doubles', limbs: [limb], faster: 1 };
  return run <= BURST.strokes
    ? { repeat: 1 / burst, kind: 'singles', limbs: [limb], faster: BURST.faster }
    : { repeat: 1 / singles, kind: 'singles', limbs: [limb], faster: 1 };
}

function travelBetween(kit: Kit, a: Stroke, b: Stroke, fitts: Fitts): number {
  if (a.limb === b.limb && a.voice === b.voice) return 0;
  const [from, to] = [targetOf(kit, a.limb, a.voice), targetOf(kit, b.limb, b.voice)];
  return from && to ? travelSeconds(distance(from.point, to.point), to.width, fitts) : 0;
}

/** Counted beats a minute from quarters a minute: the other way round of `quarterTempo`. */
function countedTempo(quarters: number, meter: Meter): number {
  return isCompound(meter) ? (quarters * TICKS_PER_QUARTER) / beatTicks(meter) : quarters;
}

/**
 * A tight place as it is said: "left hand, snare to left crash, the a of 2".
 */
export function pairWords(pattern: Pattern, pair: TightPair, schools: Schools): string {
  return `${pairTravel(pair)}, ${placeWords(pattern, pair.at, schools)}`;
}

/** The limb of a hard spot and its way, wherever it is: "left hand, snare to left crash", "kick foot, kick twice". */
export function pairTravel({ limb, struck: [from, to] }: TightPair): string {
  const way = from === to ? `${VOICE[to].name} twice` : `${VOICE[from].name} to ${VOICE[to].name}`;
  return `${LIMB_WORDS[limb]}, ${way}`;
}
