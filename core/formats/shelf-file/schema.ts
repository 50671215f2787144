import { Type, type Static, type TSchema } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../../base';
import { AttemptSchema, DrillStateSchema, TriesPageSchema } from '../../drill';
import { KitSchema, KitsSchema } from '../../kit';
import { CLICK_KINDS, COUNT_KINDS, LOUDEST, PARTS as SOUNDING, type ClickKind, type CountKind } from '../../playback';
import { ClipSchema, ListeningSchema } from '../../listen';
import { SelectionSchema } from '../../selection';
import { KeptLessonSchema, LessonSchema, ReportSchema } from '../../lesson';
import { PlanDaysSchema, TodaySchema } from '../../plan';
import { ProfileSchema } from '../../reach';
import {
  BoardSchema,
  FreeSittingSchema,
  KeptStateSchema,
  NamedSchema,
  RemovalSchema,
  SHELF_LIMITS,
  ShowSchema,
  ShowStateSchema,
} from '../../shelf';
import { VOICES, type Voice } from '../../stroke';
import { STRICTNESS, TakeSchema, type Strictness } from '../../take';
import { KEPT_STEPS, MOVE_NAMES, MOVES, PhraseSchema, PlainRecipeSchema, RecipeSchema } from '../../recipe';

export const SHELF_FORMAT = 'loop-shelf';
/**
 * Since version 3 stages and findings are kept as facts, where version 2 had their sentences; since version 4 what
 * moves choose is an expression, where it was a list of restrictions.
 */
export const SHELF_VERSION = 4;

export const SettingsSchema = Type.Object({
  theme: Type.Union([Type.Literal('light'), Type.Literal('dark')]),
  /** The practice room is dark whatever the rest is, unless it is to be the same. */
  room: Type.Optional(Type.Union([Type.Literal('dark'), Type.Literal('same')])),
  triplets: Type.Union([Type.Literal('trip-let'), Type.Literal('and-a')]),
  sextuplets: Type.Union([Type.Literal('trip-let'), Type.Literal('ta-la')]),
  /** Whether a hand edit in one repeat of a cell goes through all of them; absent until it was asked. */
  repeats: Type.Optional(Type.Union([Type.Literal('every'), Type.Literal('one')])),
  /** The words of ours that need no explaining any more. */
  known: Type.Optional(Type.Array(Type.String({ maxLength: 40 }), { maxItems: 100 })),
  /** The user's own syllables to sing, by voice and level. */
  sung: Type.Optional(Type.Record(Type.String({ maxLength: 40 }), Type.String({ maxLength: 12 }))),
});
export type Settings = Static<typeof SettingsSchema>;

const LoudSchema = Type.Number({ minimum: 0, maximum: LOUDEST });
/** How loud each part was set. The record's came later than the others: older files do not say it. */
export const LoudnessSchema = Type.Object({
  ...(Object.fromEntries(SOUNDING.map((part) => [part, LoudSchema])) as Record<
    Exclude<(typeof SOUNDING)[number], 'record'>,
    typeof LoudSchema
  >),
  record: Type.Optional(LoudSchema),
});

/** Which voice a MIDI note is, by the note's number. */
export const MidiMapSchema = Type.Unsafe<Readonly<Record<string, Voice>>>({
  type: 'object',
  propertyNames: { pattern: '^([0-9]|[1-9][0-9]|1[01][0-9]|12[0-7])$' },
  additionalProperties: { type: 'string', enum: [...VOICES] },
});

/** How loud a hit must be to count, and how loud the hardest is: peaks from 0 to 1. */
export const MicLevelsSchema = Type.Object({
  threshold: Type.Number({ exclusiveMinimum: 0, maximum: 4 }),
  loudest: Type.Number({ exclusiveMinimum: 0, maximum: 4 }),
});

/** Seconds by which each source is behind, by its kind. */
export const LatencySchema = Type.Record(Type.String({ maxLength: 40 }), Type.Number({ minimum: -10, maximum: 10 }));
/** When each source was calibrated. */
export const LatencyAtSchema = Type.Record(Type.String({ maxLength: 40 }), TimeSchema);

/** What listens to a drummer's own playing; null for the own ear. A stand-in is no habit, so it is not among them. */
export const OWN_SOURCES = ['keys', 'midi', 'microphone'] as const;
export type OwnSource = (typeof OWN_SOURCES)[number];

/** How a drummer likes the practice room. */
export const RoomHabitsSchema = Type.Object({
  source: Type.Union([Type.Unsafe<OwnSource>({ type: 'string', enum: [...OWN_SOURCES] }), Type.Null()]),
  strictness: Type.Unsafe<Strictness>({ type: 'string', enum: [...STRICTNESS] }),
  click: Type.Unsafe<ClickKind>({ type: 'string', enum: [...CLICK_KINDS] }),
  /** Whether somebody counts along, and how; tones where that is not said. */
  counts: Type.Boolean(),
  counting: Type.Optional(Type.Unsafe<CountKind>({ type: 'string', enum: [...COUNT_KINDS] })),
});
export type RoomHabits = Static<typeof RoomHabitsSchema>;

/** Whether a backup is written by itself every week, and when the last one was. */
export const BackupSchema = Type.Object({
  weekly: Type.Boolean(),
  last: Type.Union([TimeSchema, Type.Null()]),
});
export type Backup = Static<typeof BackupSchema>;

const lists = {
  phrases: Type.Array(PhraseSchema, { maxItems: SHELF_LIMITS.phrases }),
  attempts: Type.Array(AttemptSchema, { maxItems: SHELF_LIMITS.attempts }),
  drills: Type.Array(DrillStateSchema, { maxItems: SHELF_LIMITS.drills }),
};

/** The shelf file, version 4. Fields it does not name are kept when it is written back. */
export const ShelfFileSchema = Type.Object(
  {
    format: Type.Literal(SHELF_FORMAT),
    version: Type.Literal(SHELF_VERSION),
    ...lists,
    takes: Type.Array(TakeSchema, { maxItems: SHELF_LIMITS.takes }),
    states: Type.Array(KeptStateSchema, { maxItems: SHELF_LIMITS.states }),
    removals: Type.Array(RemovalSchema, { maxItems: SHELF_LIMITS.removals }),
    boards: Type.Array(BoardSchema, { maxItems: SHELF_LIMITS.boards }),
    /** Shows and what they were before; files from before that have none. */
    shows: Type.Optional(Type.Array(ShowSchema, { maxItems: SHELF_LIMITS.shows })),
    showStates: Type.Optional(Type.Array(ShowStateSchema, { maxItems: SHELF_LIMITS.showStates })),
    /** What was played freely; files from before that have none. */
    freeSittings: Type.Optional(Type.Array(FreeSittingSchema, { maxItems: SHELF_LIMITS.freeSittings })),
    /** Lessons that are given or were taken, and reports; files from before that have none. */
    lessons: Type.Optional(Type.Array(KeptLessonSchema, { maxItems: SHELF_LIMITS.lessons })),
    /** Bars of records that are kept with phrases; files from before that have none. */
    clips: Type.Optional(Type.Array(ClipSchema, { maxItems: SHELF_LIMITS.clips })),
    named: Type.Array(NamedSchema, { maxItems: SHELF_LIMITS.named }),
    /** Of everything that stands before it, to tell a file that was changed since it was written. */
    checksum: Type.Optional(Type.String({ maxLength: 64 })),
  },
  { $id: 'shelf-file', title: 'A shelf of Loop Shelf, version 4' },
);

const Worked = {
  phrase: Type.Union([idSchema(), Type.Null()]),
  recipe: Type.Union([RecipeSchema, Type.Null()]),
  tempo: Type.Number({ minimum: 20, maximum: 400 }),
};

/**
 * What is being worked on at the Bench, with the steps that undo and redo walk, kept so that a closed tab loses
 * nothing.
 */
export const DraftSchema = Type.Object({
  ...Worked,
  /** The phrase as it was when it was put on the Bench: what was kept elsewhere since is noticed by it. */
  base: Type.Optional(Type.Union([PhraseSchema, Type.Null()])),
  past: Type.Optional(Type.Array(Type.Object(Worked), { maxItems: KEPT_STEPS })),
  future: Type.Optional(Type.Array(Type.Object(Worked), { maxItems: KEPT_STEPS })),
});
export type Draft = Static<typeof DraftSchema>;

/** The draft of one tab. */
export const TabDraftSchema = Type.Object({ id: idSchema(80), at: TimeSchema, draft: DraftSchema });
export type TabDraft = Static<typeof TabDraftSchema>;

/** Work that left the Bench without being kept: changes of a phrase, or something new. */
export const UnkeptSchema = Type.Object({
  id: idSchema(80),
  /** When it was left. */
  at: TimeSchema,
  /** The phrase it is a change of; null for something new. */
  phrase: Type.Union([idSchema(), Type.Null()]),
  recipe: RecipeSchema,
  tempo: Worked.tempo,
  /** That phrase as it was when the work on it began. */
  base: Type.Optional(Type.Union([PhraseSchema, Type.Null()])),
});
export type Unkept = Static<typeof UnkeptSchema>;

/** What is compiled into a validator of its own, by name. */
export const VALIDATED = {
  Phrase: PhraseSchema,
  Attempt: AttemptSchema,
  TriesPage: TriesPageSchema,
  DrillState: DrillStateSchema,
  KeptState: KeptStateSchema,
  Removal: RemovalSchema,
  Board: BoardSchema,
  Show: ShowSchema,
  ShowState: ShowStateSchema,
  FreeSitting: FreeSittingSchema,
  Lesson: LessonSchema,
  Report: ReportSchema,
  KeptLesson: KeptLessonSchema,
  Named: NamedSchema,
  TabDraft: TabDraftSchema,
  Unkept: UnkeptSchema,
  Listening: ListeningSchema,
  Clip: ClipSchema,
  Settings: SettingsSchema,
  Kits: KitsSchema,
  Profile: ProfileSchema,
  Loudness: LoudnessSchema,
  MidiMap: MidiMapSchema,
  MicLevels: MicLevelsSchema,
  Latency: LatencySchema,
  LatencyAt: LatencyAtSchema,
  RoomHabits: RoomHabitsSchema,
  Today: TodaySchema,
  PlanDays: PlanDaysSchema,
  Backup: BackupSchema,
  Take: TakeSchema,
};

/** What is published for others to read, and compiled for nobody; lessons and reports are published too. */
export const PUBLISHED = { ShelfFile: ShelfFileSchema };

/** Parts that several of them contain, by name, so that each is written and compiled once. */
export const PARTS: Readonly<Record<string, TSchema>> = {
  Recipe: RecipeSchema,
  PlainRecipe: PlainRecipeSchema,
  Selection: SelectionSchema,
  Kit: KitSchema,
  ...Object.fromEntries(MOVE_NAMES.map((name) => [`${name}Params`, MOVES[name].schema])),
};
