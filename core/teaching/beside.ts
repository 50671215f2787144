import { bestOf, stageTitle, type Attempt, type FixKind, type StageMark } from '../drill';
import { failKinds, failsByTempo, limbsByDay, limbsLately } from '../log';
import type { Limb } from '../stroke';
import type {
  GivenLesson,
  KeptReport,
  Lesson,
  LessonItem,
  Question,
  Report,
  ReportItem,
  ReportStands,
} from '../lesson';

/** A stage as far as a pupil is in it. */
export interface StageStand {
  readonly title: string;
  readonly tries: number;
  /** The fastest clean try in it, in counted beats a minute; null where none was clean. */
  readonly clean: number | null;
}

/** How one pupil stands with one phrase of a lesson. */
export interface Standing {
  /** Null where that phrase is not in the report: it came with a later edition. */
  readonly stands: ReportStands | null;
  readonly tries: number;
  readonly minutes: number;
  /** When it was played last, in milliseconds since 1970; null where it never was. */
  readonly lastAt: number | null;
  /** The fastest clean try of all of the phrase, in counted beats a minute; null where none was clean. */
  readonly best: number | null;
  readonly goal: number;
  /** The stages that were tried, in the order of the lesson, then of their first try. */
  readonly stages: readonly StageStand[];
  /** The stage of the newest try; null where nothing was tried. */
  readonly at: StageStand | null;
  /** What was named most among messy tries, and in how many of those in which something was; null where nothing was. */
  readonly breaks: { readonly kind: FixKind; readonly times: number; readonly of: number } | null;
  /** The limb that lay farthest off in the newest six days, in ms, above 0 late; null where nothing is off. */
  readonly limb: { readonly limb: Limb; readonly off: number } | null;
}

/** Nearer than this a limb is not off, in milliseconds. */
const NOT_OFF = 8;

/**
 * Reports of one lesson beside each other: a line for each phrase, a column for each pupil, the questions. Nothing
 * of it is counted among the teacher's own tries.
 */
export interface Beside {
  readonly pupils: readonly {
    readonly id: string;
    readonly name: string;
    readonly report: Report;
    readonly minutes: number;
  }[];
  readonly lines: readonly { readonly item: string; readonly standings: readonly Standing[] }[];
  readonly questions: readonly AskedQuestion[];
}

/** A question with who asked it and what was answered; an empty answer where nothing was. */
export interface AskedQuestion extends Question {
  readonly pupil: string;
  readonly from: string;
  readonly answer: string;
}

const DAY = 24 * 60 * 60 * 1000;

/**
 * The reports of a lesson that stand, by the pupils' names.
 * @example
 * reportsByName({ lesson: 'a' }, []) // => []
 */
export function reportsByName(
  { lesson }: Pick<GivenLesson, 'lesson'>,
  reports: readonly KeptReport[],
): readonly KeptReport[] {
  return reports
    .filter((r) => !r.dropped && r.report.lesson === lesson)
    .sort((a, b) =>
      a.report.from === b.report.from ? (a.id < b.id ? -1 : 1) : a.report.from < b.report.from ? -1 : 1,
    );
}

/**
 * Lays reports of one lesson beside each other, by the pupils' names.
 * @param goals the goal of each phrase of the lesson, by its id there
 * @param dayOf the day of a moment on the teacher's calendar; by universal time when absent
 */
export function besideEachOther(
  given: Pick<GivenLesson, 'lesson' | 'items' | 'answers'>,
  reports: readonly KeptReport[],
  dayOf: (at: number) => number = (at) => Math.floor(at / DAY),
): Beside {
  const own = reportsByName(given, reports);
  const answers = new Map(given.answers.map((a) => [a.question, a.words]));
  return {
    pupils: own.map(({ report }) => ({
      id: report.pupil,
      name: report.from,
      report,
      minutes: report.items.reduce((sum, i) => sum + i.seconds, 0) / 60,
    })),
    lines: given.items.map(({ id, goal, plan }) => ({
      item: id,
      standings: own.map(({ report }) =>
        standingOf(report.items.find((i) => i.item === id) ?? null, { goal, plan }, dayOf),
      ),
    })),
    questions: own.flatMap(({ report }) =>
      report.questions.map((q) => ({ ...q, pupil: report.pupil, from: report.from, answer: answers.get(q.id) ?? '' })),
    ),
  };
}

/** How a pupil stands with one phrase, from what the report tells of it. */
export function standingOf(
  item: ReportItem | null,
  { goal, plan }: { readonly goal: number; readonly plan: LessonItem['plan'] },
  dayOf: (at: number) => number = (at) => Math.floor(at / DAY),
): Standing {
  const tries = (item?.tries ?? []).map((t, i): Attempt => ({
    id: `t${i}`,
    phrase: item?.item ?? '',
    goal,
    at: t.at,
    bpm: t.bpm,
    loops: t.loops,
    seconds: t.seconds,
    verdict: t.verdict,
    source: t.by,
    ...(t.drilled && { drilled: t.drilled }),
    ...(t.measured && { measured: t.measured }),
  }));
  const best = bestOf(tries);
  const [most, ...others] = failKinds(failsByTempo(tries));
  const [far] = [...limbsLately(limbsByDay(tries, dayOf))].sort((a, b) => Math.abs(b.mean) - Math.abs(a.mean));
  const stages = stagesOf(tries, plan);
  const last = tries.reduce<Attempt | null>((late, t) => (late && late.at > t.at ? late : t), null);
  return {
    stands: item?.stands ?? null,
    tries: item?.many ?? 0,
    minutes: (item?.seconds ?? 0) / 60,
    lastAt: best.lastAt,
    best: best.clean,
    goal,
    stages,
    at: last && (stages.find((s) => s.title === titleOf(last)) ?? null),
    breaks: most ? { ...most, of: [most, ...others].reduce((sum, k) => sum + k.times, 0) } : null,
    limb: far && Math.abs(far.mean) >= NOT_OFF ? { limb: far.limb, off: far.mean } : null,
  };
}

const WHOLE: StageMark = { id: 'whole', kind: 'whole' };

/** Tries without a stage are of the whole phrase. */
function titleOf({ drilled }: Attempt): string {
  return stageTitle(drilled ?? WHOLE);
}

function stagesOf(tries: readonly Attempt[], plan: LessonItem['plan']): readonly StageStand[] {
  const by = new Map<string, Attempt[]>();
  for (const t of tries) by.set(titleOf(t), [...(by.get(titleOf(t)) ?? []), t]);
  const order = (plan?.stages ?? []).map((s) => stageTitle(s));
  const first = [...order.filter((title) => by.has(title)), ...by.keys()];
  return [...new Set(first)].map((title): StageStand => {
    const own = by.get(title) ?? [];
    const clean = own.filter((t) => t.verdict === 'clean').map((t) => t.bpm);
    return { title, tries: own.length, clean: clean.length > 0 ? Math.max(...clean) : null };
  });
}

/** Whether a report tells of an older edition than the one that left last. */
export function isBehind(
  report: Pick<Report, 'edition'>,
  given: Pick<GivenLesson, 'edition'> | Pick<Lesson, 'edition'>,
): boolean {
  return report.edition < given.edition;
}
