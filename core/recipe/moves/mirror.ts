import { Type, type Static } from '@sinclair/typebox';
import { otherHand, type Limb } from '../../stroke';
import { changedAll, tidy } from '../../pattern';
import { done, type Move } from './move';

/** `feet`: the two kick feet change too. */
export const MirrorParams = Type.Object({ feet: Type.Boolean() });
type Params = Static<typeof MirrorParams>;

function mirrored(limb: Limb, feet: boolean): Limb {
  if (feet && limb === 'K') return 'J';
  if (feet && limb === 'J') return 'K';
  return otherHand(limb);
}

/** Swap the hands, and the kick feet if asked. */
export const mirror: Move<'mirror', Params> = {
  name: 'mirror',
  title: 'Swap the hands',
  hint: 'Every right a left and every left a right: lead with the other hand.',
  schema: MirrorParams,
  whole: true,
  defaults: () => ({ feet: false }),
  describe: ({ feet }) => (feet ? 'Swap the hands, and the kick feet' : 'Swap the hands'),
  apply: (pattern, { feet }) =>
    // What leads in is of the same hands.
    done(tidy(changedAll(pattern, (strokes) => strokes.map((s) => ({ ...s, limb: mirrored(s.limb, feet) }))))),
};
