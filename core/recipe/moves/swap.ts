import { Type, type Static } from '@sinclair/typebox';
import { chooses } from '../../selection';
import { USUAL_SCHOOLS } from '../../time';
import { canStrike, isHand, LIMB_WORDS, LIMBS, otherHand, usualVoice, type Limb, type Stroke } from '../../stroke';
import { placesWords, tidy } from '../../pattern';
import { select, SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, finding, passes, type Move } from './move';

const to = Type.Unsafe<Limb | 'other'>({ type: 'string', enum: [...LIMBS, 'other'] });
/** `limb` takes over the chosen strokes; `other` is the other hand. */
export const SwapParams = Type.Object({ select: SelectionSchema, limb: to });
type Params = Static<typeof SwapParams>;

/**
 * The stroke on another limb. Its voice stays where the limb can strike it, else it is the limb's usual one; feet have
 * no ornaments.
 */
function given(stroke: Stroke, limb: Limb): Stroke {
  const { ornament, grace, ...plain } = stroke;
  // A ghost of a hand is no ghost of a foot: a kick put in its place is meant to be heard.
  const level = isHand(stroke.limb) && !isHand(limb) && stroke.level === 'ghost' ? 'tap' : stroke.level;
  const voice = canStrike(limb, stroke.voice) ? stroke.voice : usualVoice(limb);
  return {
    ...plain,
    limb,
    voice,
    level,
    ...(ornament && isHand(limb) ? { ornament, ...(grace ? { grace } : {}) } : {}),
  };
}

/** Substitution: another limb plays the same slot. */
export const swap: Move<'swap', Params> = {
  name: 'swap',
  title: 'Give strokes to another limb',
  hint: 'A kick for a left, the other hand for a double.',
  schema: SwapParams,
  defaults: (pattern) => ({
    select: chooses({ places: [pattern.groups[0] ? Math.max(1, pattern.groups[0].length / pattern.grid) : 1] }),
    limb: 'K',
  }),
  describe: ({ select: who, limb }, on) =>
    `Give ${selectionWords(who, on)} to the ${limb === 'other' ? 'other hand' : LIMB_WORDS[limb]}`,
  apply: (pattern, { select: who, limb }) => {
    const chosen = new Set(select(pattern, who));
    if (chosen.size === 0) return choseNothing(pattern, selectionWords(who, pattern));
    const taken = new Set(pattern.strokes.flatMap((s, i) => (chosen.has(i) ? [] : [`${s.at}${s.limb}`])));
    const busy: Stroke[] = [];
    const strokes = pattern.strokes.map((s, i) => {
      const target = limb === 'other' ? otherHand(s.limb) : limb;
      if (!chosen.has(i) || target === s.limb) return s;
      if (taken.has(`${s.at}${target}`)) {
        busy.push(s);
        return s;
      }
      taken.add(`${s.at}${target}`);
      return given(s, target);
    });
    const at = busy.map((s) => s.at);
    if (busy.length === chosen.size)
      return passes(pattern, 'limb-busy', `That limb already plays there: ${placesWords(pattern, at, USUAL_SCHOOLS)}.`);
    return done(
      tidy({ ...pattern, strokes }),
      busy.length > 0
        ? [
            finding(
              'limb-busy',
              'check',
              `That limb already plays there: ${placesWords(pattern, at, USUAL_SCHOOLS)}.`,
              at,
            ),
          ]
        : [],
    );
  },
};
