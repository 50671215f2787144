import { Type, type Static } from '@sinclair/typebox';
import { isHand, ORNAMENTS, type Ornament } from '../../stroke';
import { chooses, select, SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, type Move } from './move';

export const OrnamentParams = Type.Object({
  select: SelectionSchema,
  ornament: Type.Unsafe<Ornament | 'none'>({ type: 'string', enum: [...ORNAMENTS, 'none'] }),
});
type Params = Static<typeof OrnamentParams>;

/** Flams, drags, ruffs and buzzes on chosen hand strokes, or none. */
export const ornament: Move<'ornament', Params> = {
  name: 'ornament',
  title: 'Flams and drags',
  hint: 'Grace strokes of the other hand, ruffs and buzzes.',
  schema: OrnamentParams,
  defaults: () => ({ select: chooses({ places: [1] }), ornament: 'flam' }),
  describe: ({ select: who, ornament: what }, on) =>
    what === 'none'
      ? `Play ${selectionWords(who, on)} without grace strokes`
      : `A ${what} on ${selectionWords(who, on)}`,
  apply: (pattern, { select: who, ornament: what }) => {
    const chosen = new Set(select(pattern, who).filter((i) => isHand(pattern.strokes[i]?.limb ?? 'K')));
    if (chosen.size === 0) return choseNothing(pattern, `${selectionWords(who, pattern)} of the hands`);
    return done({
      ...pattern,
      strokes: pattern.strokes.map((s, i) => {
        if (!chosen.has(i)) return s;
        const { at, limb, voice, level, from } = s;
        return what === 'none' ? { at, limb, voice, level, from } : { ...s, ornament: what };
      }),
    });
  },
};
