import { Type, type Static } from '@sinclair/typebox';
import { ticks, wholeTicks } from '../../time';
import { done, passes, type Move } from './move';
import { scaled } from './scale';

const part = Type.Integer({ minimum: 1, maximum: 12 });
/** All durations times `times` / `by`. */
export const RateParams = Type.Object({ times: part, by: part });
type Params = Static<typeof RateParams>;

const WORDS: ReadonlyMap<string, string> = new Map([
  ['1/2', 'Condense it to half its length'],
  ['2/1', 'Stretch it to twice its length'],
  ['3/2', 'Stretch it to one and a half times its length'],
  ['2/3', 'Condense it to two thirds of its length'],
  ['1/3', 'Condense it to a third of its length'],
  ['3/1', 'Stretch it to three times its length'],
]);

/** Stretch or condense everything, the grid with it: a two-bar idea in one bar, a fill at half speed. */
export const rate: Move<'rate', Params> = {
  name: 'rate',
  title: 'Stretch or condense',
  hint: 'Two bars into one, or one into two; the subdivision goes with it.',
  schema: RateParams,
  whole: true,
  defaults: () => ({ times: 1, by: 2 }),
  describe: ({ times, by }) => WORDS.get(`${times}/${by}`) ?? `Make it ${times}/${by} as long`,
  apply: (pattern, { times, by }) => {
    const grid = wholeTicks((pattern.grid * times) / by);
    const moved = scaled(pattern, times, by);
    if (!grid || !moved)
      return passes(pattern, 'not-whole', 'Some strokes do not fit at that length. Nothing changed.');
    return done({ ...moved, grid: ticks(grid) });
  },
};
