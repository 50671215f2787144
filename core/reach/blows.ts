import { swung } from '../time';
import { GRACE_SECONDS, type Limb, type Stroke } from '../stroke';
import { gracesOf, withGraces, type Pattern } from '../pattern';

/** One stroke of a limb, or the grace strokes that its other hand plays before it. */
export interface Blow {
  readonly index: number;
  /** Ticks from the pattern's start, swung as it is played. */
  readonly at: number;
  /** Seconds by which it lies off that tick whatever the tempo. */
  readonly offset: number;
  readonly stroke: Stroke;
  /** They are grace strokes: where they begin. */
  readonly grace: boolean;
}

/** All a body part does in one turn of the loop, in order, grace strokes included. */
export function blowsOf(pattern: Pattern, limbs: readonly Limb[]): Blow[] {
  const zero = swung(pattern.start, pattern.feel);
  const blows: Blow[] = [];
  withGraces(pattern).strokes.forEach((stroke, index) => {
    const own = limbs.includes(stroke.limb);
    const all = gracesOf(stroke);
    const graces = all && limbs.includes(all.limb) ? all : null;
    if (!own && !graces) return;
    const at = swung(pattern.start + stroke.at, pattern.feel) - zero;
    if (own) blows.push({ index, at, offset: 0, stroke, grace: false });
    // A run of grace strokes is one movement that bounces: only where it begins and where it ends matter.
    if (graces)
      blows.push({
        index,
        at,
        offset: -graces.many * GRACE_SECONDS,
        stroke: { ...stroke, limb: graces.limb, voice: graces.voice, level: 'ghost' },
        grace: true,
      });
  });
  return blows.sort((a, b) => a.at - b.at || a.offset - b.offset);
}
