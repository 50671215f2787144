import { Type, type Static } from '@sinclair/typebox';
import { count } from '../../base';
import { ticks } from '../../time';
import { tidy, type Group, type Pattern } from '../../pattern';
import { select, SelectionSchema, selectionWords, type Selection } from '../../selection';
import { choseNothing, done, passes, type Move } from './move';
import { namedSlots } from './named-slots';

export const CutParams = Type.Object({ select: SelectionSchema });
type Params = Static<typeof CutParams>;

/** Slots that go, in ticks, ascending: where nothing else is struck; of places that are named, the empty ones too. */
function slotsGone(pattern: Pattern, selection: Selection): readonly number[] {
  const { grid, strokes } = pattern;
  const chosen = new Set(select(pattern, selection));
  const stays = new Set(strokes.flatMap((s, i) => (chosen.has(i) ? [] : [Math.floor(s.at / grid)])));
  const gone = new Set([...chosen].map((i) => Math.floor((strokes[i]?.at ?? 0) / grid)));
  for (const slot of namedSlots(pattern, selection)) gone.add(slot);
  return [...gone]
    .filter((slot) => !stays.has(slot))
    .sort((a, b) => a - b)
    .map((slot) => slot * grid);
}

/** Take strokes out with their slots: what follows moves up, and the phrase is so much shorter. */
export const cut: Move<'cut', Params> = {
  name: 'cut',
  title: 'Cut strokes out',
  hint: 'The gap closes: what follows moves up, and the phrase gets shorter.',
  schema: CutParams,
  whole: true,
  defaults: () => ({ select: { is: 'order', of: { is: 'all' }, which: { last: 1 }, within: 'phrase' } }),
  describe: (params, on) => `Cut ${selectionWords(params.select, on)} out, the rest moves up`,
  apply: (pattern, params) => {
    const chosen = new Set(select(pattern, params.select));
    const gone = slotsGone(pattern, params.select);
    if (chosen.size === 0 && gone.length === 0) return choseNothing(pattern, selectionWords(params.select, pattern));
    const left = pattern.length - gone.length * pattern.grid;
    if (left <= 0) return passes(pattern, 'does-not-fit', 'Nothing would be left, so nothing changes.');
    const before = (t: number): number => gone.filter((g) => g < t).length * pattern.grid;
    const groups = pattern.groups.flatMap((g): Group[] => {
      const [at, until] = [g.at - before(g.at), g.at + g.length - before(g.at + g.length)];
      return until > at ? [{ ...g, at: ticks(at), length: ticks(until - at) }] : [];
    });
    const strokes = pattern.strokes
      .filter((_, i) => !chosen.has(i))
      .map((s) => {
        const at = s.at - before(s.at);
        const own = groups.find((g) => at >= g.at && at < g.at + g.length);
        const index = Math.floor((at - (own?.at ?? 0)) / pattern.grid);
        return { ...s, at: ticks(at), from: { ...s.from, index } };
      });
    const kept = chosen.size - new Set(gone).size;
    return done(
      tidy({ ...pattern, strokes, groups, length: ticks(left) }),
      gone.length === 0
        ? [
            {
              code: 'does-not-fit',
              weight: 'note',
              words: `Other strokes stand there too, so ${count(kept, 'slot')} stayed.`,
            },
          ]
        : [],
    );
  },
};
