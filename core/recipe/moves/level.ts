import { Type, type Static } from '@sinclair/typebox';
import { LEVELS, type Level } from '../../stroke';
import { select, SelectorSchema, selectorWords } from '../../pattern';
import { choseNothing, done, type Move } from '../move';

export const LevelParams = Type.Object({ select: SelectorSchema, level: Type.Unsafe<Level>({ type: 'string', enum: [...LEVELS] }) });
type Params = Static<typeof LevelParams>;

const VERB: Readonly<Record<Level, (what: string) => string>> = {
  accent: (what) => `Accent ${what}`,
  ghost: (what) => `Ghost ${what}`,
  tap: (what) => `Play ${what} as plain taps`,
};

/** Accents and ghosts. */
export const level: Move<'level', Params> = {
  name: 'level',
  title: 'Accents and ghosts',
  hint: 'Choose strokes and how high the stick comes from.',
  schema: LevelParams,
  defaults: () => ({ select: { places: [1] }, level: 'accent' }),
  describe: (params) => VERB[params.level](selectorWords(params.select)),
  apply: (pattern, params) => {
    const chosen = new Set(select(pattern, params.select));
    if (chosen.size === 0) return choseNothing(pattern, selectorWords(params.select));
    return done({ ...pattern, strokes: pattern.strokes.map((s, i) => (chosen.has(i) ? { ...s, level: params.level } : s)) });
  },
};
