import { beatTicks } from '../time';
import { isHand, VOICE, type Stroke } from '../stroke';
import { landingAt, rolesOf, type Pattern } from '../pattern';

/**
 * The strokes of a pattern that no advice touches, by their index: without them, or elsewhere, it is other music. They
 * are where it begins, its landing, the time that is kept, the backbeat over it, and accents that are hits: on metal,
 * or with a foot under them.
 * @example
 * [...heldStrokes(patternOfText(parseStrokeText('R! l l R[ride]').value, meter(4, 4), GRID.sixteenths))] // => [0, 3]
 */
export function heldStrokes(pattern: Pattern): ReadonlySet<number> {
  const { strokes } = pattern;
  const roles = rolesOf(pattern);
  const first = strokes[0]?.at;
  const landing = landingAt(pattern) ?? Infinity;
  const isKept = roles.includes('timekeeping');
  return new Set(
    strokes.flatMap((s, i) => {
      const held =
        s.at === first ||
        s.at >= landing ||
        roles[i] === 'timekeeping' ||
        (isKept && isBackbeat(pattern, s)) ||
        isHit(pattern, s);
      return held ? [i] : [];
    }),
  );
}

/** A snare on a beat that is no ghost. */
function isBackbeat({ meter, start }: Pattern, stroke: Stroke): boolean {
  const at = start + stroke.at;
  return VOICE[stroke.voice].piece === 'snare' && stroke.level !== 'ghost' && at % beatTicks(meter) === 0;
}

/** An accent on metal, and one that a foot is put under, are hits: they are met by others. */
function isHit({ strokes }: Pattern, stroke: Stroke): boolean {
  if (stroke.level !== 'accent') return VOICE[stroke.voice].family === 'metal' && isHand(stroke.limb);
  if (VOICE[stroke.voice].family === 'metal') return true;
  return strokes.some((o) => o.at === stroke.at && isHand(o.limb) !== isHand(stroke.limb));
}
