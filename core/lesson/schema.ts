import { Type, type Static } from '@sinclair/typebox';
import { idSchema, TimeSchema } from '../base';
import { DrillPlanSchema, MeasuredSchema, StageMarkSchema } from '../drill';
import { FAMILIES, NAME_LETTERS, RecipeSchema, type Family } from '../recipe';
import { TEMPO } from '../time';

export const LESSON_FORMAT = 'loop-shelf-lesson';
export const REPORT_FORMAT = 'loop-shelf-report';
export const LESSON_VERSION = 1;
export const REPORT_VERSION = 1;

export const LESSON_LIMITS = Object.freeze({
  /** Phrases of a lesson, and notes on the stages of one. */
  items: 60,
  stages: 40,
  /** Longest title or name, and longest note, question or answer, in letters. */
  letters: 120,
  note: 2000,
  answers: 200,
  questions: 100,
  /** Tries of one phrase in a report: the newest. */
  tries: 300,
  editions: 9999,
  /** Lessons that are given, those that were taken, and reports, all together. */
  kept: 600,
});

const id = idSchema();
const tempo = Type.Number({ minimum: TEMPO.least, maximum: TEMPO.most });
const note = Type.String({ maxLength: LESSON_LIMITS.note });
const typed = Type.String({ maxLength: LESSON_LIMITS.letters });
const title = Type.String({ minLength: 1, maxLength: LESSON_LIMITS.letters, pattern: '\\S' });
const edition = Type.Integer({ minimum: 1, maximum: LESSON_LIMITS.editions });
/** Days since 1970-01-01 on the player's own calendar, to 2200. */
const day = Type.Union([Type.Integer({ minimum: 0, maximum: 84_005 }), Type.Null()]);
const stageNotes = Type.Array(Type.Object({ stage: Type.String({ minLength: 1, maxLength: 64 }), words: note }), {
  maxItems: LESSON_LIMITS.stages,
});
const answers = Type.Array(Type.Object({ question: id, words: note }), { maxItems: LESSON_LIMITS.answers });
const plan = Type.Union([DrillPlanSchema, Type.Null()]);

/** A phrase of a lesson as it travels: itself, and nothing that is the shelf's own. */
const LessonPhraseSchema = Type.Object({
  name: Type.String({ minLength: 1, maxLength: NAME_LETTERS, pattern: '\\S' }),
  family: Type.Unsafe<Family>({ type: 'string', enum: [...FAMILIES] }),
  recipe: RecipeSchema,
  tempo,
  goal: tempo,
});
export type LessonPhrase = Static<typeof LessonPhraseSchema>;

/** One phrase of a lesson, by an id that it has in every edition, with what is said of it and of its stages. */
const LessonItemSchema = Type.Object({
  id,
  phrase: LessonPhraseSchema,
  note,
  /** The stages and the ladder; null where the pupil's own are proposed. */
  plan,
  stageNotes,
});
export type LessonItem = Static<typeof LessonItemSchema>;

/**
 * A lesson as a file or a link. Each edition of it has the same id and the next number; of two with one number the one
 * made later is the newer.
 */
export const LessonSchema = Type.Object(
  {
    format: Type.Literal(LESSON_FORMAT),
    version: Type.Literal(LESSON_VERSION),
    id,
    edition,
    made: TimeSchema,
    title,
    /** Who gives it, as typed. */
    from: typed,
    note,
    /** The day by which it is wanted. */
    due: day,
    items: Type.Array(LessonItemSchema, { minItems: 1, maxItems: LESSON_LIMITS.items }),
    answers,
  },
  { $id: 'lesson', title: 'A lesson of Loop Shelf, version 1' },
);
export type Lesson = Static<typeof LessonSchema>;

/** By what a try was judged. */
export const REPORT_SOURCES = ['ear', 'midi', 'microphone'] as const;
export type ReportSource = (typeof REPORT_SOURCES)[number];

/** A try as it travels: without its note and without the ids of the shelf. */
const ReportTrySchema = Type.Object({
  at: TimeSchema,
  bpm: tempo,
  loops: Type.Integer({ minimum: 0, maximum: 10_000 }),
  seconds: Type.Number({ minimum: 0, maximum: 1e7 }),
  verdict: Type.Union([Type.Literal('clean'), Type.Literal('messy')]),
  by: Type.Unsafe<ReportSource>({ type: 'string', enum: [...REPORT_SOURCES] }),
  drilled: Type.Optional(StageMarkSchema),
  measured: Type.Optional(MeasuredSchema),
});
export type ReportTry = Static<typeof ReportTrySchema>;

const ReportItemSchema = Type.Object({
  /** The phrase, by its id in the lesson. */
  item: id,
  /** What the pupil made of it: as it came, changed, or taken off the shelf. */
  stands: Type.Unsafe<ReportStands>({ type: 'string', enum: ['as it came', 'changed', 'taken off'] }),
  tries: Type.Array(ReportTrySchema, { maxItems: LESSON_LIMITS.tries }),
  /** Tries and seconds in all: of many only the newest are listed. */
  many: Type.Integer({ minimum: 0, maximum: 1_000_000 }),
  seconds: Type.Number({ minimum: 0, maximum: 1e9 }),
});
export type ReportItem = Static<typeof ReportItemSchema>;
export type ReportStands = 'as it came' | 'changed' | 'taken off';

/** A question of the pupil's, about one phrase of the lesson or all of it. */
const QuestionSchema = Type.Object({
  id,
  item: Type.Union([id, Type.Null()]),
  words: Type.String({ minLength: 1, maxLength: LESSON_LIMITS.note, pattern: '\\S' }),
});
export type Question = Static<typeof QuestionSchema>;

/** What a pupil sends back: the tries of that lesson's phrases since it was taken, and questions. */
export const ReportSchema = Type.Object(
  {
    format: Type.Literal(REPORT_FORMAT),
    version: Type.Literal(REPORT_VERSION),
    lesson: id,
    edition,
    /** One pupil with one lesson: the same in each report. */
    pupil: id,
    /** Who sends it, as typed. */
    from: typed,
    made: TimeSchema,
    /** When the lesson was taken first. */
    since: TimeSchema,
    items: Type.Array(ReportItemSchema, { maxItems: LESSON_LIMITS.items }),
    questions: Type.Array(QuestionSchema, { maxItems: LESSON_LIMITS.questions }),
  },
  { $id: 'report', title: 'A report of Loop Shelf, version 1' },
);
export type Report = Static<typeof ReportSchema>;

const rowId = idSchema(140);
const row = { id: rowId, changed: TimeSchema, dropped: Type.Optional(Type.Boolean()) };

/** A lesson that is given, as its teacher works on it. */
const GivenLessonSchema = Type.Object({
  ...row,
  kind: Type.Literal('given'),
  lesson: id,
  /** The edition that left last; 0 before any did. */
  edition: Type.Integer({ minimum: 0, maximum: LESSON_LIMITS.editions }),
  made: Type.Union([TimeSchema, Type.Null()]),
  /** The check sum of what left last: what is the same is no new edition. */
  sent: Type.Optional(Type.String({ maxLength: 64 })),
  title,
  from: typed,
  note,
  due: day,
  items: Type.Array(
    Type.Object({
      id,
      /** The phrase of the teacher's shelf. */
      phrase: id,
      goal: tempo,
      note,
      plan,
      stageNotes,
    }),
    { maxItems: LESSON_LIMITS.items },
  ),
  answers,
});
export type GivenLesson = Static<typeof GivenLessonSchema>;
export type GivenItem = GivenLesson['items'][number];

/** A lesson that was taken, as it came last, and what it became on the pupil's shelf. */
const TakenLessonSchema = Type.Object({
  ...row,
  kind: Type.Literal('taken'),
  came: LessonSchema,
  /** When it was taken first. */
  since: TimeSchema,
  board: Type.Union([id, Type.Null()]),
  /** Which phrase of the shelf each item became, those that an edition left out among them. */
  phrases: Type.Array(Type.Object({ item: id, phrase: id }), { maxItems: 10 * LESSON_LIMITS.items }),
  pupil: id,
  from: typed,
  questions: Type.Array(QuestionSchema, { maxItems: LESSON_LIMITS.questions }),
  /** When the last report was written. */
  reported: Type.Union([TimeSchema, Type.Null()]),
});
export type TakenLesson = Static<typeof TakenLessonSchema>;

/** A report as it lies with the teacher: read only. */
const KeptReportSchema = Type.Object({ ...row, kind: Type.Literal('report'), report: ReportSchema });
export type KeptReport = Static<typeof KeptReportSchema>;

/** Everything of lessons that a shelf keeps. */
export const KeptLessonSchema = Type.Union([GivenLessonSchema, TakenLessonSchema, KeptReportSchema]);
export type KeptLesson = Static<typeof KeptLessonSchema>;
