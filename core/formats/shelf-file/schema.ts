import { Type, type Static, type TSchema } from '@sinclair/typebox';
import { AttemptSchema, DrillStateSchema } from '../../drill';
import { KitSchema, KitsSchema } from '../../kit';
import { SelectorSchema } from '../../pattern';
import { ProfileSchema } from '../../reach';
import { TakeSchema } from '../../take';
import { MOVE_NAMES, MOVES, PhraseSchema, PlainRecipeSchema, RecipeSchema } from '../../recipe';

/** Sizes a shelf is made for; a larger file is refused before it is read. */
export const SHELF_LIMITS = Object.freeze({
  phrases: 10_000,
  attempts: 200_000,
  drills: 10_000,
  bytes: 128 * 1024 * 1024,
});

export const SHELF_FORMAT = 'loop-shelf';
export const SHELF_VERSION = 1;

export const SettingsSchema = Type.Object({
  theme: Type.Union([Type.Literal('light'), Type.Literal('dark')]),
  /** The practice room is dark whatever the rest is, unless it is to be the same. */
  room: Type.Optional(Type.Union([Type.Literal('dark'), Type.Literal('same')])),
  triplets: Type.Union([Type.Literal('trip-let'), Type.Literal('and-a')]),
  sextuplets: Type.Union([Type.Literal('trip-let'), Type.Literal('ta-la')]),
  /** The user's own syllables to sing, by voice and level. */
  sung: Type.Optional(Type.Record(Type.String({ maxLength: 40 }), Type.String({ maxLength: 12 }))),
});
export type Settings = Static<typeof SettingsSchema>;

/** The shelf file, version 1. Fields it does not name are kept when it is written back. */
export const ShelfFileSchema = Type.Object(
  {
    format: Type.Literal(SHELF_FORMAT),
    version: Type.Literal(SHELF_VERSION),
    phrases: Type.Array(PhraseSchema, { maxItems: SHELF_LIMITS.phrases }),
    attempts: Type.Array(AttemptSchema, { maxItems: SHELF_LIMITS.attempts }),
    drills: Type.Array(DrillStateSchema, { maxItems: SHELF_LIMITS.drills }),
    settings: Type.Optional(SettingsSchema),
    kits: Type.Optional(KitsSchema),
    profile: Type.Optional(ProfileSchema),
  },
  { $id: 'shelf-file', title: 'A shelf of Loop Shelf, version 1' },
);
export type ShelfFile = Static<typeof ShelfFileSchema>;

const Worked = {
  phrase: Type.Union([Type.String({ minLength: 1, maxLength: 64 }), Type.Null()]),
  recipe: Type.Union([RecipeSchema, Type.Null()]),
  tempo: Type.Number({ minimum: 20, maximum: 400 }),
};

/** Steps of the Bench's past and future that are kept across a reload. */
export const KEPT_STEPS = 100;

/**
 * What is being worked on at the Bench, with the steps that undo and redo walk, kept so that a closed tab loses
 * nothing.
 */
export const DraftSchema = Type.Object({
  ...Worked,
  past: Type.Optional(Type.Array(Type.Object(Worked), { maxItems: KEPT_STEPS })),
  future: Type.Optional(Type.Array(Type.Object(Worked), { maxItems: KEPT_STEPS })),
});
export type Draft = Static<typeof DraftSchema>;

/** What is compiled into a validator of its own, by name. */
export const VALIDATED = {
  ShelfFile: ShelfFileSchema,
  Phrase: PhraseSchema,
  Attempt: AttemptSchema,
  DrillState: DrillStateSchema,
  Draft: DraftSchema,
  Settings: SettingsSchema,
  Kits: KitsSchema,
  Profile: ProfileSchema,
  Take: TakeSchema,
};

/** Parts that several of them contain, by name, so that each is written and compiled once. */
export const PARTS: Readonly<Record<string, TSchema>> = {
  Recipe: RecipeSchema,
  PlainRecipe: PlainRecipeSchema,
  Selector: SelectorSchema,
  Kit: KitSchema,
  ...Object.fromEntries(MOVE_NAMES.map((name) => [`${name}Params`, MOVES[name].schema])),
};
