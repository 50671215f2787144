import { LEVEL_DEFAULTS, type Level, type Limb, type Voice } from '../stroke';
import { pieceFor, strikingPoint, targetWidth, voiceOn, type Kit, type Point } from '../kit';

/** The two constants of Fitts's law: seconds of any aimed movement, and seconds to a bit of difficulty. */
export interface Fitts {
  readonly a: number;
  readonly b: number;
}

/**
 * Fitts's law in the Shannon form: seconds = a + b · log2(D / W + 1). a is the time of any aimed movement, b the
 * seconds to a bit of difficulty. Fitts 1954, The information capacity of the human motor system in controlling the
 * amplitude of movement; MacKenzie 1992, Fitts' law as a research and design tool, for the form. The two constants are
 * fitted to what working drummers do: a stick that falls on a wide surface is aimed less finely than a stylus.
 */
export const FITTS: Fitts = Object.freeze({ a: 0.062, b: 0.0535 });

/** Seconds to a cm that a stick must rise over the stroke before: an accent after a ghost costs about 20 ms. */
export const RISE_SECONDS_PER_CM = 0.0009;

/** Strokes nearer to each other than this, in cm, are on the same spot: nothing is aimed at anew. */
const SAME_SPOT = 1;

/** How far to the side of the kick pedal the second one stands, in cm: the width of a double pedal's two boards. */
const SECOND_PEDAL = 24;

/**
 * Seconds a limb needs to get from one place to another; nought on the same spot.
 * @example
 * travelSeconds(0, 36) // => 0
 * Math.round(travelSeconds(60, 36) * 1000) // => 138
 */
export function travelSeconds(distance: number, width: number, { a, b }: Fitts = FITTS): number {
  return distance < SAME_SPOT ? 0 : a + b * difficulty(distance, width);
}

/**
 * How hard a way is to aim, in bits: Shannon's form of the index of difficulty.
 * @example
 * difficulty(36, 36) // => 1
 */
export function difficulty(distance: number, width: number): number {
  return Math.log2(distance / width + 1);
}

/** Straight distance between two points, in cm. */
export function distance(a: Point, b: Point): number {
  return Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);
}

/** Where a limb strikes a voice on a kit, and how wide the target is; null when the kit has nothing to strike. */
export function targetOf(kit: Kit, limb: Limb, voice: Voice): { readonly point: Point; readonly width: number } | null {
  const sounding = voiceOn(kit, voice);
  const piece = sounding && pieceFor(kit, sounding);
  if (!sounding || !piece) return null;
  const point = strikingPoint(piece, sounding);
  const width = targetWidth(piece, sounding);
  if (limb !== 'J') return { point, width };
  return { point: { ...point, x: point.x + (kit.handed === 'right' ? -SECOND_PEDAL : SECOND_PEDAL) }, width };
}

/**
 * Seconds that raising the stick costs between two levels: only what it must rise.
 * @example
 * Math.round(riseSeconds('ghost', 'accent') * 10000) // => 198
 * riseSeconds('accent', 'ghost') // => 0
 */
export function riseSeconds(from: Level, to: Level): number {
  return Math.max(0, LEVEL_DEFAULTS[to].height - LEVEL_DEFAULTS[from].height) * RISE_SECONDS_PER_CM;
}
