import { Type, type Static } from '@sinclair/typebox';
import { count } from '../../base';
import { barTicks, gridName, ticks, USUAL_SCHOOLS } from '../../time';
import { compareStrokes, usualVoice, type Stroke } from '../../stroke';
import { pickupWords, placeWords, withoutPickup } from '../../pattern';
import { done, finding, passes, type Move } from './move';
import { readSlots, TextSchema } from './text-param';

export const PickupParams = Type.Object({
  /** The strokes that lead to the 1, on the home grid; the last of them stands right before it. */
  text: TextSchema,
  /** Slot of its strokes in ticks, when it is not the home grid: a roll of 32nds into the 1. */
  grid: Type.Optional(Type.Integer({ minimum: 105, maximum: 20160 })),
});
type Params = Static<typeof PickupParams>;

/** Strokes before the 1: heard once, before the phrase goes round. What stands after it in a recipe leaves it alone. */
export const pickup: Move<'pickup', Params> = {
  name: 'pickup',
  title: 'Pick-up before the 1',
  hint: 'A few strokes that lead in, heard once before the loop.',
  schema: PickupParams,
  defaults: () => ({ text: 'R L' }),
  describe: ({ text, grid }) =>
    `Pick-up before the 1: ${text.trim() || 'nothing'}${grid === undefined ? '' : ` in ${gridName(grid)}`}`,
  apply: (pattern, { text, grid: slot = pattern.grid }, { id }) => {
    const read = readSlots(text);
    if ('wrong' in read) return passes(pattern, 'bad-text', read.wrong);
    if (pattern.start > 0)
      return passes(
        pattern,
        'does-not-fit',
        `It begins on ${placeWords(pattern, ticks(0), USUAL_SCHOOLS)}: a pick-up leads to the 1.`,
      );
    const many = read.slots.length;
    const bar = barTicks(pattern.meter);
    if (many * slot > bar)
      return passes(
        pattern,
        'does-not-fit',
        `${count(many, 'slot')} before the 1 are more than a bar. At most ${Math.floor(bar / slot)} fit.`,
      );
    const own = read.slots.flatMap((together, i) =>
      together.map((s): Stroke => ({
        ...s,
        at: ticks((i - many) * slot),
        voice: s.voice ?? usualVoice(s.limb),
        from: { index: i, repeat: 0, move: id },
      })),
    );
    if (own.length === 0) return done(withoutPickup(pattern));
    const led = { ...pattern, pickup: own.sort(compareStrokes) };
    return done(led, [finding('pickup', 'sum', pickupWords(led, USUAL_SCHOOLS) ?? '')]);
  },
};
