import { readFail, readOk, type Read } from '../base';
import type { Hand, Voice } from '../stroke';
import type { Kit } from '../kit';
import { streamOf, type LimbReading } from './limb-test';
import type { Able, Profile, WayTime } from './profile';
import { difficulty, distance, FITTS, targetOf, type Fitts } from './travel';

/** A way between two pieces and back, as a test asks for it: the distance in cm, the mean difficulty there and back. */
export interface TestedWay {
  readonly distance: number;
  readonly bits: number;
}

/** Nearer than this, in cm, two places are one surface: there is no way between them. */
const LEAST_WAY = 15;
/** A way that takes less than this many times a stroke on one spot is limited by the stroke, not by the way. */
const LONGER_THAN_STROKE = 1.05;
/** Ways that are remembered; the newest. */
const MOST_WAYS = 24;
/** Scatter of one test, and how far a player's constants lie from the usual ones, in seconds: what the ridge weighs. */
const SCATTER = 0.01;
const SPREAD = Object.freeze({ a: 0.025, b: 0.025 });
/** No player's constants are believed beyond these. */
const BELIEVED = Object.freeze({ a: [0.02, 0.2], b: [0.01, 0.15] } as const);

/**
 * The way of a hand from one voice to another and back on a kit; null when the kit lacks one, or they are one place.
 * @example
 * wayOn(USUAL_KIT, 'R', 'snare', 'snare') // => null
 * Math.round(wayOn(USUAL_KIT, 'R', 'snare', 'floor-tom').distance) // => 52
 */
export function wayOn(kit: Kit, hand: Hand, from: Voice, to: Voice): TestedWay | null {
  const [a, b] = [targetOf(kit, hand, from), targetOf(kit, hand, to)];
  if (!a || !b) return null;
  const cm = distance(a.point, b.point);
  if (cm < LEAST_WAY) return null;
  return { distance: cm, bits: (difficulty(cm, a.width) + difficulty(cm, b.width)) / 2 };
}

/**
 * Reads ten seconds of one hand to and fro between two places: `rate` is ways a second. Fails with `too-few` when there
 * is not enough, and with `no-way` when it went as fast as on one spot, as then the way took no time of its own.
 * @example
 * wayReading(Array.from({ length: 41 }, (_, i) => i / 5), USUAL_PROFILE, 'R').value.rate // => 5
 * wayReading(Array.from({ length: 81 }, (_, i) => i / 8), USUAL_PROFILE, 'R').problems[0].code // => "no-way"
 */
export function wayReading(
  moments: readonly number[],
  profile: Profile,
  hand: Hand,
): Read<LimbReading, 'too-few' | 'no-way'> {
  const read = streamOf(moments);
  if (!read.ok) return read;
  const spot = profile.rates[hand].singles;
  if (spot < read.value.rate * LONGER_THAN_STROKE)
    return readFail(
      'no-way',
      null,
      `That is ${read.value.rate.toFixed(1)} strokes per second, as fast as on one piece (${spot.toFixed(1)}). Choose two pieces further apart.`,
    );
  return readOk(read.value);
}

/** A profile with one more way timed: one of the same hand and the same two places takes its place. */
export function withWay(profile: Profile, way: WayTime): Profile {
  const others = (profile.ways ?? []).filter(
    (w) => w.hand !== way.hand || [w.from, w.to].sort().join() !== [way.from, way.to].sort().join(),
  );
  return { ...profile, ways: [...others, way].sort((a, b) => a.at - b.at).slice(-MOST_WAYS) };
}

/**
 * The constants of Fitts's law for one player, by least squares over the ways that were timed, drawn towards the usual
 * ones as strongly as few tests leave them open (ridge: Hoerl & Kennard 1970, Ridge regression). Seconds, and seconds a
 * bit. Without a test they are the usual ones.
 * @example
 * fittsOfWays([]) === FITTS // => true
 */
export function fittsOfWays(ways: readonly WayTime[]): Fitts {
  if (ways.length === 0) return FITTS;
  const w = 1 / SCATTER ** 2;
  const [pa, pb] = [1 / SPREAD.a ** 2, 1 / SPREAD.b ** 2];
  let [aa, ab, bb, ra, rb] = [pa, 0, pb, pa * FITTS.a, pb * FITTS.b];
  for (const { bits, seconds } of ways) {
    aa += w;
    ab += w * bits;
    bb += w * bits * bits;
    ra += w * seconds;
    rb += w * bits * seconds;
  }
  const det = aa * bb - ab * ab;
  const within = (n: number, [least, most]: readonly [number, number]): number => Math.max(least, Math.min(most, n));
  return { a: within((bb * ra - ab * rb) / det, BELIEVED.a), b: within((aa * rb - ab * ra) / det, BELIEVED.b) };
}

/** The constants a player's ways are worked out with: as learnt, else as tested, else the usual ones. */
export function fittsOf(player: Able): Fitts {
  return player.fitts ?? fittsOfWays(player.ways ?? []);
}

/** What a timed way means for others, in a sentence. */
export function wayWords({ rate, tired }: LimbReading, way: TestedWay): string {
  const end = tired > 0.08 ? `, ${Math.round(tired * 100)}% slower at the end` : '';
  return `${Math.round(1000 / rate)} ms for ${Math.round(way.distance)} cm${end}.`;
}
