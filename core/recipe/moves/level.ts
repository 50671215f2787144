import { Type, type Static } from '@sinclair/typebox';
import { count, mod } from '../../base';
import { LEVELS, type Level } from '../../stroke';
import { chooses, select, SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, type Move } from './move';

export const LevelParams = Type.Object({
  select: SelectionSchema,
  level: Type.Unsafe<Level>({ type: 'string', enum: [...LEVELS] }),
  /** Slots by which the whole accent pattern is displaced, round the end. */
  shift: Type.Optional(Type.Integer({ minimum: -2048, maximum: 2048 })),
});
type Params = Static<typeof LevelParams>;

const VERB: Readonly<Record<Level, (what: string) => string>> = {
  accent: (what) => `Accent ${what}`,
  ghost: (what) => `Ghost ${what}`,
  tap: (what) => `Play ${what} as plain taps`,
};

/** Accents and ghosts, also displaced against the strokes they were thought for. */
export const level: Move<'level', Params> = {
  name: 'level',
  title: 'Accents and ghosts',
  hint: 'Choose strokes and set their stick height.',
  schema: LevelParams,
  defaults: () => ({ select: chooses({ places: [1] }), level: 'accent' }),
  describe: ({ select: who, level: to, shift = 0 }, on) => {
    const displaced = shift === 0 ? '' : `, ${count(Math.abs(shift), 'slot')} ${shift > 0 ? 'later' : 'earlier'}`;
    return `${VERB[to](selectionWords(who, on))}${displaced}`;
  },
  apply: (pattern, { select: who, level: to, shift = 0 }) => {
    const chosen = new Set(select(pattern, who));
    if (chosen.size === 0) return choseNothing(pattern, selectionWords(who, pattern));
    if (shift === 0)
      return done({ ...pattern, strokes: pattern.strokes.map((s, i) => (chosen.has(i) ? { ...s, level: to } : s)) });
    const at = new Set(
      pattern.strokes.flatMap((s, i) => (chosen.has(i) ? [mod(s.at + shift * pattern.grid, pattern.length)] : [])),
    );
    if (!pattern.strokes.some((s) => at.has(s.at)))
      return choseNothing(pattern, 'strokes where the accents would fall');
    return done({ ...pattern, strokes: pattern.strokes.map((s) => (at.has(s.at) ? { ...s, level: to } : s)) });
  },
};
