import type { Lesson, Report } from '../lesson';

/** The text of a lesson or a report, as a file. It needs no rules: what is made here is good. */
export function lessonText(value: Lesson | Report): string {
  return `${JSON.stringify(value, null, 1)}\n`;
}
