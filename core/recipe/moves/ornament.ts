import { Type, type Static } from '@sinclair/typebox';
import { isHand, ORNAMENTS, SAME_HAND, type Ornament } from '../../stroke';
import { chooses, select, SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, passes, type Move } from './move';

export const OrnamentParams = Type.Object({
  select: SelectionSchema,
  ornament: Type.Unsafe<Ornament | 'none'>({ type: 'string', enum: [...ORNAMENTS, 'none'] }),
  /** The hand of the stroke plays its grace strokes itself; absent: the other one, where it is free. */
  by: Type.Optional(Type.Literal(SAME_HAND)),
});
type Params = Static<typeof OrnamentParams>;

/** Flams, drags, ruffs and buzzes on chosen hand strokes, or none. */
export const ornament: Move<'ornament', Params> = {
  name: 'ornament',
  title: 'Flams and drags',
  hint: 'Grace strokes of the other hand, ruffs and buzzes.',
  schema: OrnamentParams,
  defaults: () => ({ select: chooses({ places: [1] }), ornament: 'flam' }),
  describe: ({ select: who, ornament: what, by }, on) =>
    what === 'none'
      ? `Play ${selectionWords(who, on)} without grace strokes`
      : `A ${what} on ${selectionWords(who, on)}${by ? ', by the same hand' : ''}`,
  apply: (pattern, { select: who, ornament: what, by }) => {
    if (what === 'flam' && by) return passes(pattern, 'limb-busy', 'A flam takes both hands. One hand plays a drag.');
    const chosen = new Set(select(pattern, who).filter((i) => isHand(pattern.strokes[i]?.limb ?? 'K')));
    if (chosen.size === 0) return choseNothing(pattern, `${selectionWords(who, pattern)} of the hands`);
    return done({
      ...pattern,
      strokes: pattern.strokes.map((s, i) => {
        if (!chosen.has(i)) return s;
        const { ornament: _, grace, ...plain } = s;
        if (what === 'none') return plain;
        const strikes = by ?? (grace === SAME_HAND ? undefined : grace);
        return { ...plain, ornament: what, ...(strikes && what !== 'buzz' ? { grace: strikes } : {}) };
      }),
    });
  },
};
