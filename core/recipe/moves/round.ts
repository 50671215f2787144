import { Type, type Static } from '@sinclair/typebox';
import { count } from '../../base';
import { ticks } from '../../time';
import { isHand, usualVoice, type Stroke, type TypedStroke } from '../../stroke';
import { tidy, type Pattern } from '../../pattern';
import { select, SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, finding, passes, type Move } from './move';
import { readSlots, TextSchema } from './text-param';

export const RoundParams = Type.Object({
  /** What stays as it is: the line that all else goes round. */
  select: SelectionSchema,
  /** What the hands play, over and over: a rest in it leaves a slot free. */
  text: TextSchema,
  /** Also over what stays, where a foot plays it; absent: only where nothing of it is struck. */
  over: Type.Optional(Type.Literal(true)),
  /** From its beginning again behind each stroke that stays. */
  anew: Type.Optional(Type.Literal(true)),
});
type Params = Static<typeof RoundParams>;

/** The strokes of a slot of the text as strokes of the pattern. */
function laid(slot: readonly TypedStroke[], at: number, index: number, repeat: number, move: string): Stroke[] {
  return slot.map((s) => ({
    ...s,
    at: ticks(at),
    voice: s.voice ?? usualVoice(s.limb),
    from: { index, repeat, move },
  }));
}

/** Which slots have something that stays, and whether a hand is busy there. */
function linesOf({ grid }: Pattern, kept: readonly Stroke[]): ReadonlyMap<number, 'foot' | 'hand'> {
  const taken = new Map<number, 'foot' | 'hand'>();
  for (const s of kept) {
    const slot = Math.floor(s.at / grid);
    taken.set(slot, isHand(s.limb) || taken.get(slot) === 'hand' ? 'hand' : 'foot');
  }
  return taken;
}

/** The kick; without one the accents; without those the first stroke of every beat. */
function usualLine({ strokes }: Pattern): Params['select'] {
  if (strokes.some((s) => s.limb === 'K')) return { is: 'limb', limbs: ['K'] };
  if (strokes.some((s) => s.level === 'accent')) return { is: 'height', levels: ['accent'] };
  return { is: 'order', of: { is: 'all' }, which: { first: 1 }, within: 'beat' };
}

/** A line stays, and what is typed goes round it, slot by slot. */
export const round: Move<'round', Params> = {
  name: 'round',
  title: 'Hands round a line',
  hint: 'The kick, the accents or a melody stays; the hands fill the gaps with a sticking of yours.',
  schema: RoundParams,
  whole: true,
  defaults: (pattern) => ({ select: usualLine(pattern), text: 'R L' }),
  describe: ({ select: chosen, text, over, anew }, on) =>
    `Hands round ${selectionWords(chosen, on)}: ${text.trim()}${over ? ', over them too' : ''}${anew ? ', from its start behind each' : ''}`,
  apply: (pattern, { select: chosen, text, over, anew }, { id }) => {
    const stays = new Set(select(pattern, chosen));
    if (stays.size === 0) return choseNothing(pattern, selectionWords(chosen, pattern));
    const read = readSlots(text);
    if ('wrong' in read) return passes(pattern, 'bad-text', read.wrong);
    const cell = read.slots;
    if (cell.length === 0) return passes(pattern, 'bad-text', 'Say what the hands play.');
    const kept = pattern.strokes.filter((_, i) => stays.has(i));
    const lines = linesOf(pattern, kept);
    const added: Stroke[] = [];
    let next = 0;
    for (let slot = 0; slot * pattern.grid < pattern.length; slot++) {
      const line = lines.get(slot);
      if (line && anew) next = 0;
      if (line === 'hand' || (line && !over)) continue;
      const at = slot * pattern.grid;
      const group = pattern.groups.find((g) => g.at + g.length > at);
      const index = Math.floor((at - (group?.at ?? 0)) / pattern.grid);
      added.push(...laid(cell[next++ % cell.length] ?? [], at, index, group?.repeat ?? 0, id));
    }
    if (added.length === 0) return passes(pattern, 'does-not-fit', 'There is no free slot round it.');
    const gone = pattern.strokes.length - kept.length;
    return done(
      // What stays wins where a limb would strike twice.
      tidy({ ...pattern, strokes: [...added, ...kept] }),
      gone > 0 ? [finding('cut', 'note', `${count(gone, 'stroke')} gave way.`)] : [],
    );
  },
};
