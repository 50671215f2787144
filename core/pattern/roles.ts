import { isHand, VOICE, type Stroke } from '../stroke';
import type { Pattern } from './pattern';

/** What a stroke is for: primary carries the phrase, timekeeping keeps the time, texture fills between. */
export type Role = 'primary' | 'timekeeping' | 'texture';

/**
 * The role of each stroke. Primary: kicks that are no ghosts, accented skins and wood, crashes. Timekeeping: hats and
 * ride. Texture: ghosts and the taps between. Where no stroke of the pattern is accented or a kick, plain taps are
 * primary, since nothing else could carry it; and where time is kept and no hand accents a skin, the plain strokes on
 * the snare are the backbeat, wherever it is, and primary too.
 */
export function rolesOf(pattern: Pattern): readonly Role[] {
  const plain = !pattern.strokes.some((s) => s.level === 'accent' || s.voice === 'kick');
  const soft = !pattern.strokes.some(
    (s) => s.level === 'accent' && isHand(s.limb) && VOICE[s.voice].family !== 'metal',
  );
  const kept = soft && pattern.strokes.some((s) => VOICE[s.voice].keepsTime);
  return pattern.strokes.map((s) => roleOf(s, plain || (kept && VOICE[s.voice].piece === 'snare')));
}

function roleOf(stroke: Stroke, plain: boolean): Role {
  if (stroke.voice === 'kick') return stroke.level === 'ghost' ? 'texture' : 'primary';
  if (VOICE[stroke.voice].keepsTime) return 'timekeeping';
  if (stroke.level === 'ghost') return 'texture';
  if (stroke.level === 'accent' || VOICE[stroke.voice].family === 'metal') return 'primary';
  return plain ? 'primary' : 'texture';
}

/**
 * Whether strokes that fall together are meant to: a crash or other metal with feet under it is how a cymbal is played
 * and how a phrase lands; time that is kept (hats, ride, the hi-hat foot) goes on over whatever is played with it; and
 * what a move put with the rest was asked for.
 * @example
 * meantTogether([{ limb: 'R', voice: 'hat-closed' }, { limb: 'L', voice: 'snare' }]) // => true
 * meantTogether([{ limb: 'R', voice: 'crash-right' }, { limb: 'K', voice: 'kick' }]) // => true
 * meantTogether([{ limb: 'R', voice: 'snare' }, { limb: 'K', voice: 'kick' }]) // => false
 */
export function meantTogether(together: readonly (Pick<Stroke, 'limb' | 'voice'> & Partial<Stroke>)[]): boolean {
  if (together.some((s) => VOICE[s.voice].keepsTime || (s.from && s.from.move !== null))) return true;
  const feet = together.filter((s) => !isHand(s.limb));
  const hands = together.filter((s) => isHand(s.limb));
  return feet.length > 0 && hands.length > 0 && hands.every((s) => VOICE[s.voice].family === 'metal');
}
