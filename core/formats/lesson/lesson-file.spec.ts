import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Validator, type Schema } from '@cfworker/json-schema';
import fc from 'fast-check';
import type { GivenLesson, Lesson, Report } from '../../lesson';
import { lessonText, nextEdition, reportOf, takeLesson } from '../../teaching';
import { anyAttempt, anyPhrase } from '../../testing/arbitraries';
import type { Phrase } from '../../recipe';
import { lessonCode, readLesson, readLessonCode, readReport } from '.';

/** A validator that shares nothing with the one that our readers are compiled by. */
const validator = (file: string): Validator =>
  new Validator(JSON.parse(readFileSync(join(__dirname, '../../../schema', file), 'utf8')) as Schema, '7');
const published = { lesson: validator('lesson.schema.json'), report: validator('report.schema.json') };

const json = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
const given = (phrases: readonly Phrase[]): GivenLesson => ({
  id: 'given:les',
  kind: 'given',
  lesson: 'les',
  changed: 5,
  edition: 0,
  made: null,
  title: 'Week one',
  from: '',
  note: '',
  due: null,
  items: phrases.map((p, i) => ({
    id: `i${i}`,
    phrase: p.id,
    goal: p.goal,
    note: 'slowly',
    plan: null,
    stageNotes: [],
  })),
  answers: [],
});
const anyLesson = fc
  .uniqueArray(anyPhrase, { selector: (p) => p.id, minLength: 1, maxLength: 3 })
  .map((phrases): Lesson => json(nextEdition(given(phrases), new Map(phrases.map((p) => [p.id, p])), 50)!));
const anyReport = fc.tuple(anyLesson, fc.array(anyAttempt, { maxLength: 6 })).map(([lesson, tries]): Report => {
  const { row, phrases } = takeLesson(null, lesson, new Map(), {
    theirs: new Set(),
    idOf: (item) => `own-${item}`,
    at: 10,
    pupil: 'pu',
  });
  const own = tries.map((t, i) => ({ ...t, phrase: 'own-i0', id: `t${i}` }));
  return json(reportOf(row, new Map(phrases.map((p) => [p.id, p])), own, 900));
});
const sample = (): Lesson => fc.sample(anyLesson, { numRuns: 1, seed: 7 })[0]!;

describe('a lesson as a file and as a link', () => {
  it('comes back as it was, and is what the published schema says', () => {
    fc.assert(
      fc.property(anyLesson, (lesson) => {
        const read = readLesson(lessonText(lesson));
        expect(read.ok && read.value).toEqual(lesson);
        const linked = readLessonCode(lessonCode(lesson));
        expect(linked.ok && linked.value).toEqual(lesson);
        expect(published.lesson.validate(json(lesson)).errors).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
  it('cut anywhere it is refused in words', () => {
    const text = lessonText(sample());
    for (let at = 0; at < text.length - 2; at += Math.ceil(text.length / 200)) {
      const read = readLesson(text.slice(0, at));
      expect(read.ok).toBe(false);
    }
    const code = lessonCode(sample());
    for (let at = 0; at < code.length - 1; at += 7) expect(readLessonCode(code.slice(0, at)).ok).toBe(false);
  });
});

describe('a report as a file', () => {
  it('comes back as it was, and is what the published schema says', () => {
    fc.assert(
      fc.property(anyReport, (report) => {
        const read = readReport(lessonText(report));
        expect(read.ok && read.value).toEqual(report);
        expect(published.report.validate(json(report)).errors).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});

describe('what is no lesson', () => {
  const words = (text: string): string => {
    const read = readLesson(text);
    return read.ok ? 'read' : read.problems[0].message;
  };
  const changed = (how: (l: Record<string, unknown>) => object): string => JSON.stringify(how({ ...json(sample()) }));
  it.each([
    [
      'of the wrong kind',
      () => changed((l) => ({ ...l, format: 'loop-shelf-report' })),
      'This is not a lesson of Loop Shelf.',
    ],
    ['of a newer version', () => changed((l) => ({ ...l, version: 2 })), 'made with a newer Loop Shelf'],
    ['with an id of nothing', () => changed((l) => ({ ...l, id: '..' })), 'This lesson cannot be read: id must be'],
    ['without phrases', () => changed((l) => ({ ...l, items: [] })), 'This lesson cannot be read: items'],
    ['cut off', () => lessonText(sample()).slice(0, 300), 'This lesson is cut off or damaged. Ask for it again.'],
    ['too large', () => ' '.repeat(50_000_000), 'This is too large for a lesson.'],
    ['no JSON', () => 'Week one', 'it cannot be read as JSON'],
    [
      'two phrases of one id',
      () => changed((l) => ({ ...l, items: [...(l['items'] as object[]), (l['items'] as object[])[0]] })),
      'two phrases with the id “i0”',
    ],
    [
      'nested without end',
      () => lessonText(sample()).replace('"note"', `"x": ${'['.repeat(5000)}${']'.repeat(5000)}, "note"`),
      'nested too deep',
    ],
  ])('%s', (_, text, said) => {
    expect(words(text())).toContain(said);
  });
  it('both validators refuse the same', () => {
    const bad: ((l: Record<string, unknown>) => object)[] = [
      (l) => ({ ...l, edition: 0 }),
      (l) => ({ ...l, title: '  ' }),
      (l) => ({ ...l, due: 'Monday' }),
      (l) => ({ ...l, made: -1 }),
      (l) => ({ ...l, items: [{ id: 'a' }] }),
      (l) => ({ ...l, note: 7 }),
    ];
    for (const how of bad) {
      expect(words(changed(how))).not.toBe('read');
      expect(published.lesson.validate(JSON.parse(changed(how))).valid).toBe(false);
    }
  });
  it('a report that is none', () => {
    const read = readReport(lessonText(sample()));
    expect(read.ok ? '' : read.problems[0].message).toBe('This is not a report of Loop Shelf.');
    const [report] = fc.sample(anyReport, { numRuns: 1, seed: 3 });
    const twice = { ...report!, items: [...report!.items, report!.items[0]] };
    expect(readReport(JSON.stringify(twice)).ok).toBe(false);
  });
});
