import { Type, type Static } from '@sinclair/typebox';
import { chooses, select, SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, type Move } from './move';

export const DropParams = Type.Object({ select: SelectionSchema });
type Params = Static<typeof DropParams>;

/** Turn strokes into rests. */
export const drop: Move<'drop', Params> = {
  name: 'drop',
  title: 'Remove strokes',
  hint: 'A rest takes the place of each stroke; the length stays.',
  schema: DropParams,
  defaults: () => ({ select: chooses({ places: [2] }) }),
  describe: (params, on) => `Remove ${selectionWords(params.select, on)}`,
  apply: (pattern, params) => {
    const chosen = new Set(select(pattern, params.select));
    if (chosen.size === 0) return choseNothing(pattern, selectionWords(params.select, pattern));
    return done({ ...pattern, strokes: pattern.strokes.filter((_, i) => !chosen.has(i)) });
  },
};
