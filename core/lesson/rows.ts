import { stableJson } from '../base';
import type { Phrase } from '../recipe';
import { LESSON_LIMITS, type KeptLesson, type Lesson, type Report, type TakenLesson } from './schema';

/**
 * The id of the row in which a lesson that was taken is kept: the same on each device of the pupil.
 * @example
 * takenRow('a1') // => "taken:a1"
 */
export const takenRow = (lesson: string): string => `taken:${lesson}`;

/**
 * The id of the row of a lesson that is given.
 * @example
 * givenRow('a1') // => "given:a1"
 */
export const givenRow = (lesson: string): string => `given:${lesson}`;

/**
 * The id of the row of a report: one pupil has one, and a later report takes its place.
 * @example
 * reportRow({ lesson: 'a1', pupil: 'p2' }) // => "report:a1:p2"
 */
export const reportRow = ({ lesson, pupil }: Pick<Report, 'lesson' | 'pupil'>): string => `report:${lesson}:${pupil}`;

/**
 * Whether an edition of a lesson is newer than another: by its number, and of one number by when it was made.
 * @example
 * isNewer({ edition: 2, made: 5 }, { edition: 1, made: 9 }) // => true
 * isNewer({ edition: 2, made: 5 }, { edition: 2, made: 5 }) // => false
 */
export function isNewer(a: Pick<Lesson, 'edition' | 'made'>, b: Pick<Lesson, 'edition' | 'made'>): boolean {
  return a.edition === b.edition ? a.made > b.made : a.edition > b.edition;
}

/**
 * One row of two devices: the one changed later. Of a lesson that was taken twice what each device made of it stays:
 * which phrases it became there, and the questions.
 */
export function laterLesson(a: KeptLesson, b: KeptLesson): KeptLesson {
  const [later, other] =
    a.changed > b.changed || (a.changed === b.changed && stableJson(a) >= stableJson(b)) ? [a, b] : [b, a];
  if (later.kind !== 'taken' || other.kind !== 'taken' || later.dropped) return later;
  const had = new Set(later.phrases.map((p) => p.item));
  const asked = new Set(later.questions.map((q) => q.id));
  const phrases = [...later.phrases, ...other.phrases.filter((p) => !had.has(p.item))];
  const questions = [...later.questions, ...other.questions.filter((q) => !asked.has(q.id))];
  const came = isNewer(other.came, later.came) ? other.came : later.came;
  return { ...later, came, phrases, questions: questions.slice(0, LESSON_LIMITS.questions) };
}

/**
 * What a lesson is compared with when it is taken: what was taken before. Of one that was dropped only the phrases that
 * are still on the shelf are known; the others come anew. Null where nothing was taken.
 */
export function takenBefore(row: TakenLesson | null, shelf: ReadonlyMap<string, Phrase>): TakenLesson | null {
  if (!row?.dropped) return row;
  return { ...row, board: null, phrases: row.phrases.filter((p) => shelf.has(p.phrase)) };
}

/** Those rows that are kept: those that are there, and of the dropped ones the newest that there is room for. */
export function keptLessons(all: readonly KeptLesson[], more = 0): readonly KeptLesson[] {
  const newest = [...all].sort((a, b) => b.changed - a.changed || (a.id < b.id ? -1 : 1));
  const here = newest.filter((r) => !r.dropped);
  return [...here, ...newest.filter((r) => r.dropped)].slice(0, Math.max(0, LESSON_LIMITS.kept - more));
}
