import { Type, type Static } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../base';
import { TEMPO } from '../time';
import { RecipeSchema } from './recipe';

export const FAMILIES = ['fill', 'lick', 'groove', 'warm-up'] as const;
export type Family = (typeof FAMILIES)[number];

/** The most tags of a phrase, and the longest of them in letters. */
export const TAGS = Object.freeze({ most: 20, letters: 40 });
/** A tag: one word, in small letters. */
const TagSchema = Type.String({ minLength: 1, maxLength: TAGS.letters, pattern: '^[^\\s#,]+$' });

/** Longest name and note, in letters. */
export const NAME_LETTERS = 10_000;

/** What a goal can be wanted for. */
export const GOAL_DAYS = ['night', 'lesson', 'recording', 'day'] as const;
/** The day a goal is wanted: days since 1970-01-01 on the player's own calendar, to 2200. */
const GoalDaySchema = Type.Object({
  day: Type.Integer({ minimum: 0, maximum: 84_005 }),
  what: Type.Unsafe<(typeof GOAL_DAYS)[number]>({ type: 'string', enum: [...GOAL_DAYS] }),
});
export type GoalDay = Static<typeof GoalDaySchema>;

/** A recipe kept on the shelf under a name. Times are milliseconds since 1970. */
export const PhraseSchema = Type.Object({
  id: idSchema(),
  name: Type.String({ minLength: 1, maxLength: NAME_LETTERS, pattern: '\\S' }),
  family: Type.Unsafe<Family>({ type: 'string', enum: [...FAMILIES] }),
  recipe: RecipeSchema,
  /** Tempo at which it plays on the Bench, and the goal of its drill, in counted beats a minute. */
  tempo: Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most }),
  goal: Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most }),
  /** The day on which the goal is wanted. */
  by: Type.Optional(GoalDaySchema),
  /** When to use it, when not to. */
  note: Type.String({ maxLength: NAME_LETTERS }),
  /** The phrase it is a variant of, and the one change that made it. */
  parent: Type.Optional(Type.Object({ id: idSchema(), change: Type.String({ maxLength: 1000 }) })),
  /** Words of the player's own, to find it by. */
  tags: Type.Optional(Type.Array(TagSchema, { maxItems: TAGS.most, uniqueItems: true })),
  created: TimeSchema,
  changed: TimeSchema,
});
export type Phrase = Static<typeof PhraseSchema>;
