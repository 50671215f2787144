import { TICKS_PER_QUARTER } from '../time';
import { LIMBS, VOICES, type Limb, type Voice } from '../stroke';
import type { Expected } from '../rendition';
import type { Alignment } from './align';
import { faultsOf, type Fault } from './faults';
import type { Hit } from './hit';
import { deviation, mean, median } from '../base';
import { eighthOf, offBeat } from './off-beat';
import { gapsIn, type Gaps } from './unplayed';

/** Offset and spread of some strokes, in milliseconds; above 0 is late. */
export interface Offset {
  readonly mean: number;
  readonly spread: number;
  readonly many: number;
}

/** Everything a take says, in milliseconds unless said otherwise. */
export interface TakeReading extends Offset {
  /** Strokes that were left out, without those of parts that were not played at all. */
  readonly missed: number;
  readonly extra: number;
  /** Strokes that were expected. */
  readonly strokes: number;
  readonly byLimb: readonly (Offset & { readonly limb: Limb; readonly missed: number })[];
  readonly byVoice: readonly (Offset & { readonly voice: Voice })[];
  /** By place in the loop: index of the stroke in the pattern. */
  readonly byPlace: readonly (Offset & { readonly index: number; readonly missed: number })[];
  /** Seconds from the first stroke to the last. */
  readonly seconds: number;
  /** Milliseconds a minute by which the playing falls back (above 0) or runs away, and one standard error of it. */
  readonly drift: number;
  readonly driftError: number;
  /** Whether the drift goes on from the beginning of the take to its end. */
  readonly driftsOn: boolean;
  /** The tempo that was kept, as a share of what was meant: 0.98 is 2 % slower. */
  readonly tempo: number;
  /** How late all of it is when what is named as a fault is taken out, and one standard error of it. */
  readonly shift: number;
  readonly error: number;
  /** Where the second of two eighths, or 16ths, is meant to fall, in percent of the pair: 50 is straight. */
  readonly meantSwing: Readonly<Record<'8ths' | '16ths', number>>;
  /** Length of a counted beat. */
  readonly beat: number;
  /** What is late or early against the rest by more than chance explains, the greatest first. */
  readonly faults: readonly Fault[];
  /** Length of an eighth, for what is said of swing. */
  readonly eighth: number;
  /** What was not played at all: a part of the loop, a beginning, an end. */
  readonly gaps: Gaps;
  /** Places whose grace strokes were left out, and how often. */
  readonly graces: readonly { readonly index: number; readonly wanted: number; readonly missed: number }[];
  /** Hits that a pad sent twice, and hits of notes that were never taught: nobody's fault. */
  readonly doubled: number;
  readonly unknown: number;
  /** How much louder the right hand is than the left on equal strokes, in MIDI velocity; null where nothing tells. */
  readonly leftRight: number | null;
  /** How many times louder accents are than ghosts; null where nothing tells. */
  readonly accentGhost: number | null;
  /** That ratio as it was meant; null where it was not measured. */
  readonly meantRatio: number | null;
  /** Mean offset while the click was silent less that while it sounded; null when it never was. */
  readonly silence: number | null;
}

/** A stretch of time in which the click was silent, in the seconds of the expected strokes. */
export interface Silence {
  readonly from: number;
  readonly until: number;
}

/** A tempo that is another one by this share is a tempo of its own: less is called a drift. */
const OWN_TEMPO = 0.006;

/**
 * Reads an aligned take. What was really kept is taken out before limbs and places are compared: the lateness of the
 * whole and the tempo. Spread is what is left round that when the faults that are named are taken out too, so that a
 * player who slowly runs away but plays evenly is told about the running only. Where another tempo was kept, offsets
 * are against that tempo. With nothing matched every offset is 0 and `many` says so.
 */
export function readTake(
  expected: readonly Expected[],
  hits: readonly Hit[],
  { matches, missed, extra, graces, doubled, unknown, whole, beat }: Alignment,
  silences: readonly Silence[] = [],
): TakeReading {
  const found = matches.flatMap((m) => {
    const [e, h] = [expected[m.expected], hits[m.hit]];
    return e && h ? [{ e, h, late: m.late }] : [];
  });
  const { slope, error: slopeError, goesOn: isSteady } = steadySlope(found.map((p) => [p.e.seconds, p.late]));
  const middle = mean(found.map((p) => p.e.seconds));
  const ownTempo = Math.abs(slope / 1000) >= OWN_TEMPO && Math.abs(slope) > 4 * slopeError;
  const from = whole.from;
  // Another tempo is no lateness: it is counted from where the take begins.
  const points = ownTempo ? found.map((p) => ({ ...p, late: p.late - slope * (p.e.seconds - from) })) : found;
  const left = ownTempo ? 0 : slope;
  const level = (p: Point): number => p.late - left * (p.e.seconds - middle);
  const eighth = eighthOf(expected) * 1000;
  const faults = faultsOf(
    points.map((p) => ({ index: p.e.index, limb: p.e.limb, off: level(p), ...offBeat(p.e.tick, p.e.loop) })),
  );
  const straightened = (p: Point): number =>
    faults.found.reduce((late, f) => (moves(f, p.e) ? late - f.off : late), level(p));
  const gaps = gapsIn(expected, missed, beat);
  const leftOut = missed.filter((i) => !gaps.inside.has(i));
  return {
    ...offsetOf(points, straightened),
    ...partsOf(expected, points, leftOut, level),
    missed: leftOut.length,
    extra: extra.length,
    strokes: expected.length,
    seconds: (expected.at(-1)?.seconds ?? 0) - (expected[0]?.seconds ?? 0),
    drift: left * 60,
    driftError: slopeError * 60,
    driftsOn: isSteady,
    tempo: ownTempo ? 1 / (1 + slope / 1000) : 1,
    shift: faults.shift,
    error: faults.error,
    meantSwing: meantSwing(expected, eighth / 1000),
    beat: beat * 1000,
    faults: faults.found,
    eighth,
    gaps,
    graces: gracesAt(expected, graces),
    doubled: doubled.length,
    unknown: unknown.length,
    leftRight: difference(points, 'R', 'L'),
    ...ratio(points),
    silence: silenceOf(points, silences),
  };
}

/** How late some strokes are, and how far they scatter by a measure of each. */
function offsetOf(own: readonly Point[], by: (p: Point) => number): Offset {
  return { mean: mean(own.map((p) => p.late)), spread: deviation(own.map(by)), many: own.length };
}

/** The same by limb, by voice and by place of the loop, with what of each was left out. */
function partsOf(
  expected: readonly Expected[],
  points: readonly Point[],
  leftOut: readonly number[],
  level: (p: Point) => number,
): Pick<TakeReading, 'byLimb' | 'byVoice' | 'byPlace'> {
  const gone = leftOut.flatMap((i) => expected[i] ?? []);
  const limbs = LIMBS.filter((l) => expected.some((e) => e.limb === l));
  const voices = VOICES.filter((v) => expected.some((e) => e.voice === v));
  const places = [...new Set(expected.map((e) => e.index))].sort((a, b) => a - b);
  const played = new Map(places.map((index) => [index, [] as Point[]]));
  for (const p of points) played.get(p.e.index)?.push(p);
  const missed = new Map<number, number>();
  for (const { index } of gone) missed.set(index, (missed.get(index) ?? 0) + 1);
  const offset = (own: readonly Point[]): Offset => offsetOf(own, level);
  return {
    byLimb: limbs.map((limb) => ({
      limb,
      ...offset(points.filter((p) => p.e.limb === limb)),
      missed: gone.filter((e) => e.limb === limb).length,
    })),
    byVoice: voices.map((voice) => ({ voice, ...offset(points.filter((p) => p.e.voice === voice)) })),
    byPlace: places.map((index) => ({ index, ...offset(played.get(index) ?? []), missed: missed.get(index) ?? 0 })),
  };
}

/** Whether a fault moves a stroke. */
function moves(fault: Fault, e: Expected): boolean {
  switch (fault.kind) {
    case 'limb':
      return e.limb === fault.limb;
    case 'place':
      return e.index === fault.index;
    case 'swing':
      return fault.on === '8ths' ? offBeat(e.tick, e.loop).eighth : offBeat(e.tick, e.loop).sixteenth;
  }
}

/** Where strokes off the beat are meant, told by their ticks and their seconds. */
function meantSwing(expected: readonly Expected[], eighth: number): TakeReading['meantSwing'] {
  const own = (on: 'eighth' | 'sixteenth', pair: number): number => {
    const e = expected.find((s) => offBeat(s.tick, s.loop)[on]);
    if (!e || e.tick === undefined || eighth <= 0) return 50;
    const straight = (e.tick * eighth) / (TICKS_PER_QUARTER / 2);
    const origin = expected.find((s) => s.tick !== undefined && s.tick % TICKS_PER_QUARTER === 0);
    const zero = origin ? origin.seconds - ((origin.tick ?? 0) * eighth) / (TICKS_PER_QUARTER / 2) : 0;
    const percent = 50 + (100 * (e.seconds - zero - straight)) / pair;
    return Math.abs(percent - 50) < 0.5 ? 50 : percent;
  };
  return { '8ths': own('eighth', 2 * eighth), '16ths': own('sixteenth', eighth) };
}

function gracesAt(expected: readonly Expected[], answered: Alignment['graces']): TakeReading['graces'] {
  const at = new Map<number, { wanted: number; missed: number }>();
  for (const g of answered) {
    const index = expected[g.expected]?.index ?? -1;
    const own = at.get(index) ?? { wanted: 0, missed: 0 };
    own.wanted++;
    if (g.heard < g.wanted) own.missed++;
    at.set(index, own);
  }
  return [...at].map(([index, own]) => ({ index, ...own })).filter((g) => g.missed > 0);
}

interface Point {
  readonly e: Expected;
  readonly h: Hit;
  readonly late: number;
}

/** How many usual scatters from the line a stroke may lie before the line forgets it. */
const WILD = 3;

/**
 * The slope with wild strokes left out, and its standard error: one stroke that was laid on the wrong place at the end
 * of a short take would tilt the whole line. Fitted once, then again without what lies further from it than three times
 * the usual scatter (median absolute deviation × 1.48).
 */
function steadySlope(points: readonly (readonly [number, number])[]): {
  readonly slope: number;
  readonly error: number;
  /** Whether it goes on from the beginning to the end. */
  readonly goesOn: boolean;
} {
  const first = slopeOf(points);
  const [mx, my] = [mean(points.map((p) => p[0])), mean(points.map((p) => p[1]))];
  const off = (p: readonly [number, number]): number => Math.abs(p[1] - my - first * (p[0] - mx));
  const scatter = 1.4826 * median(points.map(off));
  const calm = points.filter((p) => off(p) <= WILD * scatter);
  const own = calm.length < points.length && calm.length >= 3 ? calm : points;
  const width = deviation(own.map((p) => p[0]));
  const slope = own === points ? first : slopeOf(own);
  return {
    slope,
    error: width > 0 ? (Math.max(scatter, 1) * wander(own, slope)) / (width * Math.sqrt(own.length)) : Infinity,
    goesOn: goesOn(own, slope),
  };
}

/** A slope by so many strokes that tell by themselves is but half as sure as its scatter says, near enough. */
const FEW = 6;
/** No player's strokes hang together more than this. */
const MOST_ALIKE = 0.97;

/**
 * By how much a slope is less sure than its strokes say by themselves: what a player wanders from stroke to stroke
 * hangs together, and so many strokes tell as little as fewer. From the correlation of each stroke with the next, its
 * bias in short rows taken out (Kendall 1954; for the error of a trend: Santer et al. 2000).
 */
function wander(points: readonly (readonly [number, number])[], slope: number): number {
  if (points.length < 4) return 1;
  const [mx, my] = [mean(points.map((p) => p[0])), mean(points.map((p) => p[1]))];
  const rest = [...points].sort((a, b) => a[0] - b[0]).map((p) => p[1] - my - slope * (p[0] - mx));
  const all = rest.reduce((sum, r) => sum + r * r, 0);
  if (all === 0) return 1;
  const next = rest.slice(1).reduce((sum, r, i) => sum + r * (rest[i] ?? 0), 0) / all;
  const alike = Math.min(MOST_ALIKE, Math.max(0, next + (1 + 3 * Math.max(0, next)) / rest.length));
  const fewer = (1 + alike) / (1 - alike);
  // And the fewer they tell like, the less is known of their scatter itself.
  return Math.sqrt(fewer * (1 + (FEW * fewer) / rest.length));
}

/** Whether a slope goes on over all of it: both halves lie on it, at least in part. */
function goesOn(points: readonly (readonly [number, number])[], slope: number): boolean {
  const sorted = [...points].sort((a, b) => a[0] - b[0]);
  const middle = Math.floor(sorted.length / 2);
  return [sorted.slice(0, middle), sorted.slice(middle)].every(
    (half) => slopeOf(half) * Math.sign(slope) > Math.abs(slope) / 2,
  );
}

/** Least-squares slope; 0 for fewer than three points or no extent. */
function slopeOf(points: readonly (readonly [number, number])[]): number {
  if (points.length < 3) return 0;
  const [mx, my] = [mean(points.map((p) => p[0])), mean(points.map((p) => p[1]))];
  const [sxy, sxx] = points.reduce<readonly [number, number]>(
    ([a, b], [x, y]) => [a + (x - mx) * (y - my), b + (x - mx) ** 2] as const,
    [0, 0],
  );
  return sxx === 0 ? 0 : sxy / sxx;
}

/** How loud some strokes were: mean, and its standard error; null where too few are known. */
function loudness(points: readonly Point[]): { readonly mean: number; readonly error: number } | null {
  const known = points.flatMap((p) => p.h.velocity ?? []);
  return known.length < 3
    ? null
    : { mean: mean(known), error: Math.max(1, deviation(known)) / Math.sqrt(known.length) };
}

/** A difference in loudness counts when it is this many standard errors: less is chance. */
const LOUDER = 3;

/** Right less left, over strokes that both hands play at one loudness; 0 where chance explains it. */
function difference(points: readonly Point[], a: Limb, b: Limb): number | null {
  const levels = [...new Set(points.map((p) => p.e.velocity))];
  const found = levels.flatMap((velocity) => {
    const [x, y] = [a, b].map((limb) => loudness(points.filter((p) => p.e.limb === limb && p.e.velocity === velocity)));
    return x && y ? [{ off: x.mean - y.mean, error: Math.hypot(x.error, y.error) }] : [];
  });
  if (found.length === 0) return null;
  const off = mean(found.map((f) => f.off));
  const error = Math.hypot(...found.map((f) => f.error)) / found.length;
  return Math.abs(off) > LOUDER * error ? off : 0;
}

/** How much louder the loudest strokes of the hands were than the softest, and how much they were meant to be. */
function ratio(points: readonly Point[]): Pick<TakeReading, 'accentGhost' | 'meantRatio'> {
  const hands = points.filter((p) => p.e.limb === 'R' || p.e.limb === 'L');
  const [loud, soft] = [Math.max(...hands.map((p) => p.e.velocity)), Math.min(...hands.map((p) => p.e.velocity))];
  const [louder, softer] = [loud, soft].map((level) => loudness(hands.filter((p) => p.e.velocity === level)));
  if (hands.length === 0 || loud === soft || !louder || !softer) return { accentGhost: null, meantRatio: null };
  return { accentGhost: louder.mean / softer.mean, meantRatio: loud / soft };
}

function silenceOf(points: readonly Point[], silences: readonly Silence[]): number | null {
  const silent = points.filter((p) => silences.some((s) => p.e.seconds >= s.from && p.e.seconds < s.until));
  const sounding = points.filter((p) => !silences.some((s) => p.e.seconds >= s.from && p.e.seconds < s.until));
  return silent.length < 4 || sounding.length < 4
    ? null
    : mean(silent.map((p) => p.late)) - mean(sounding.map((p) => p.late));
}
