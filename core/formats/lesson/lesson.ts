import { readFail, readOk, type Read } from '../../base';
import { LESSON_FORMAT, LESSON_VERSION, REPORT_FORMAT, REPORT_VERSION, type Lesson, type Report } from '../../lesson';
import { withSelections } from '../../selection';
import { packedText, unpackedText } from '../shared';
import { RULES, type Rule } from '../shelf-file/rules';

export type LessonCode =
  'not-json' | 'not-a-lesson' | 'not-a-report' | 'newer' | 'too-large' | 'damaged' | 'wrong-part' | 'twice';

/** The longest text of a lesson or a report, in letters: far more than sixty long phrases or their tries need. */
export const MOST_LESSON = 20_000_000;

/** A lesson as letters that can stand in an address. */
export function lessonCode(lesson: Lesson): string {
  return packedText(JSON.stringify(lesson));
}

/**
 * Reads a lesson. Never throws.
 * @example
 * readLesson('{').problems[0].message // => "This lesson is cut off or damaged. Ask for it again."
 * readLesson('{}').problems[0].code // => "not-a-lesson"
 */
export function readLesson(text: string): Read<Lesson, LessonCode> {
  const read = checked(text, { noun: 'lesson', format: LESSON_FORMAT, version: LESSON_VERSION, rule: RULES.lesson });
  if (!read.ok) return read;
  const lesson = read.value as Lesson;
  const twice = twiceIn(lesson.items.map((i) => i.id));
  if (twice !== null)
    return readFail('twice', null, `This lesson has two phrases with the id “${twice}”. Ask for it again.`);
  return readOk(lesson);
}

/**
 * Reads a report. Never throws.
 * @example
 * readReport('[]').problems[0].message // => "This is not a report of Loop Shelf."
 */
export function readReport(text: string): Read<Report, LessonCode> {
  const read = checked(text, { noun: 'report', format: REPORT_FORMAT, version: REPORT_VERSION, rule: RULES.report });
  if (!read.ok) return read;
  const report = read.value as Report;
  const twice = twiceIn(report.items.map((i) => i.item)) ?? twiceIn(report.questions.map((q) => q.id));
  if (twice !== null) return readFail('twice', null, `This report has the id “${twice}” twice. Ask for it again.`);
  return readOk(report);
}

/**
 * Reads the letters of a lesson’s link. What they unpack to is bounded whatever they say.
 * @example
 * readLessonCode('no!').problems[0].code // => "damaged"
 */
export function readLessonCode(code: string): Read<Lesson, LessonCode> {
  const read = unpackedText(code, MOST_LESSON);
  if (read.ok) return readLesson(read.text);
  return read.why === 'damaged'
    ? readFail('damaged', null, 'This link is damaged: a part of it is missing.')
    : readFail('too-large', null, 'This link is too long for a lesson. Ask for the file.');
}

interface Wanted {
  readonly noun: 'lesson' | 'report';
  readonly format: string;
  readonly version: number;
  readonly rule: Rule;
}

function checked(text: string, { noun, format, version, rule }: Wanted): Read<unknown, LessonCode> {
  if (text.length > MOST_LESSON) return readFail('too-large', null, `This is too large for a ${noun}.`);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    const begun = text.trimStart().startsWith('{');
    return begun
      ? readFail('damaged', null, `This ${noun} is cut off or damaged. Ask for it again.`)
      : readFail('not-json', null, `This is not a ${noun}: it cannot be read as JSON.`);
  }
  const fields = typeof value === 'object' && value !== null ? (value as Readonly<Record<string, unknown>>) : {};
  if (fields['format'] !== format)
    return readFail(noun === 'lesson' ? 'not-a-lesson' : 'not-a-report', null, `This is not a ${noun} of Loop Shelf.`);
  const own = fields['version'];
  if (typeof own === 'number' && own > version)
    return readFail('newer', null, `This ${noun} was made with a newer Loop Shelf. Update, then open it again.`);
  const row = withSelections(value);
  const wrong = rule(row);
  if (wrong)
    return readFail(
      'wrong-part',
      { path: wrong.where },
      `This ${noun} cannot be read: ${wrong.where || 'it'} ${wrong.words}.`,
    );
  return readOk(row);
}

function twiceIn(ids: readonly string[]): string | null {
  return ids.find((id, i) => ids.indexOf(id) !== i) ?? null;
}
