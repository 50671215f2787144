import { swung, TICKS_PER_QUARTER } from '../time';
import { GRACE_SECONDS, graceCount, isHand, otherHand, type Limb, type Stroke } from '../stroke';
import type { Pattern } from '../pattern';

/** One stroke of a limb, or the grace strokes that its other hand plays before it. */
export interface Blow {
  readonly index: number;
  /** Ticks from the pattern's start, swung as it is played. */
  readonly at: number;
  /** Seconds by which it lies off that tick whatever the tempo. */
  readonly offset: number;
  readonly stroke: Stroke;
}

/** All a body part does in one turn of the loop, in order, grace strokes included. */
export function blowsOf(pattern: Pattern, limbs: readonly Limb[]): Blow[] {
  const zero = swung(pattern.start, pattern.feel);
  const blows: Blow[] = [];
  pattern.strokes.forEach((stroke, index) => {
    const own = limbs.includes(stroke.limb);
    const grace = stroke.ornament && limbs.includes(graceHand(pattern, index)) ? graceCount(stroke.ornament) : 0;
    if (!own && grace === 0) return;
    const at = swung(pattern.start + stroke.at, pattern.feel) - zero;
    if (own) blows.push({ index, at, offset: 0, stroke });
    // A run of grace strokes is one movement that bounces: only where it begins and where it ends matter.
    if (grace > 0)
      blows.push({
        index,
        at,
        offset: -grace * GRACE_SECONDS,
        stroke: { ...stroke, limb: graceHand(pattern, index), voice: stroke.grace ?? stroke.voice, level: 'ghost' },
      });
  });
  return blows.sort((a, b) => a.at - b.at || a.offset - b.offset);
}

/** Strokes of a hand that keeps time are no further apart than this from one in between, in ticks: a quarter. */
const KEEPS_TIME = TICKS_PER_QUARTER;

/**
 * The hand that plays the grace strokes of a stroke: the other one, where it is free. Where that one strikes something
 * else at the same moment, or keeps time elsewhere before and after, the same hand plays all of them, as a bounce.
 */
function graceHand({ strokes, length }: Pattern, index: number): Limb {
  const stroke = strokes[index];
  if (!stroke || !isHand(stroke.limb)) return stroke?.limb ?? 'R';
  const other = otherHand(stroke.limb);
  const own = strokes.filter((s) => s.limb === other);
  const after = (s: Stroke): number => (s.at - stroke.at + length) % length;
  const voice = stroke.grace ?? stroke.voice;
  const elsewhere = own.filter((s) => s.voice !== voice);
  if (elsewhere.some((s) => s.at === stroke.at)) return stroke.limb;
  const next = least(own, after);
  const last = least(own, (s) => (length - after(s)) % length);
  const keepsTime =
    next &&
    last &&
    next.voice === last.voice &&
    next.voice !== voice &&
    after(next) <= KEEPS_TIME &&
    (length - after(last)) % length <= KEEPS_TIME;
  return keepsTime ? stroke.limb : other;
}

function least(strokes: readonly Stroke[], of: (s: Stroke) => number): Stroke | null {
  return strokes.reduce<Stroke | null>((best, s) => (best === null || of(s) < of(best) ? s : best), null);
}
