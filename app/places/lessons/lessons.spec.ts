import { TestBed } from '@angular/core/testing';
import { filter, firstValueFrom } from 'rxjs';
import { givenRow, type GivenLesson, type Lesson } from '@core/lesson';
import { nextEdition } from '@core/teaching';
import { MakeLesson } from '../../exchange/make-lesson';
import { LessonsRepo } from '../../storage/lessons.repo';
import { LessonWords } from '../../knowledge/lesson-words.service';
import { attemptOf, phraseOf, typed, until } from '../../testing/fixtures';
import { mount } from '../../testing/mount';
import { emptyPlace } from '../../testing/place';
import { log } from '../../testing/shelf';
import { BesideComponent } from './beside.component';
import { CameReportComponent } from './came-report.component';
import { GiveComponent } from './give.component';
import { LessonsStore } from './lessons.store';
import { OpenLessonComponent } from './open-lesson.component';
import { TakenComponent } from './taken.component';

const given = (over: Partial<GivenLesson> = {}): GivenLesson => ({
  id: givenRow('les'),
  kind: 'given',
  lesson: 'les',
  changed: 1,
  edition: 0,
  made: null,
  title: 'Week one',
  from: 'Mara',
  note: '',
  due: null,
  items: [{ id: 'i-a', phrase: 'a', goal: 100, note: 'Low.', plan: null, stageNotes: [] }],
  answers: [],
  ...over,
});

const lesson = (over: Partial<Lesson> = {}): Lesson => ({
  ...nextEdition(given(), new Map([['a', phraseOf('a', { name: 'Rope' })]]), 50)!,
  ...over,
});

async function place() {
  const all = await emptyPlace([LessonsStore]);
  return { ...all, repo: TestBed.inject(LessonsRepo) };
}

describe('making a lesson', () => {
  it('takes phrases once each and in their order, and opens it; more are added behind', async () => {
    const { db, repo } = await place();
    await db.phrases.bulkPut([phraseOf('a', { goal: 120 }), phraseOf('b')]);
    const make = TestBed.inject(MakeLesson);
    await make.make('  Week one ', ['b', 'a', 'b', 'gone']);
    await until(() => repo.given().length === 1);
    const [row] = repo.given();
    expect([row?.title, row?.items.map((i) => [i.phrase, i.goal])]).toEqual([
      'Week one',
      [
        ['b', phraseOf('b').goal],
        ['a', 120],
      ],
    ]);
    await db.phrases.put(phraseOf('c'));
    await make.add(row!.lesson, ['a', 'c']);
    await until(() => repo.given()[0]?.items.length === 3);
    expect(repo.given()[0]?.items.map((i) => i.phrase)).toEqual(['b', 'a', 'c']);
  });
});

describe('giving', () => {
  it('sets stages and ladder, a note for a stage, and keeps one stage at least', async () => {
    const { db, repo } = await place();
    await db.phrases.put(phraseOf('a', { recipe: typed('R! l l K R! l l K') }));
    await repo.keep(given());
    await until(() => repo.given().length === 1);
    const m = mount(GiveComponent, { given: repo.given()[0]! });
    await until(() => m.component.lines()[0]?.phrase !== null);
    const [line] = m.component.lines();
    m.component.togglePlan(line!.item, line!.proposed);
    await until(() => repo.given()[0]?.items[0]?.plan !== null);
    const item = (): GivenLesson['items'][number] => repo.given()[0]!.items[0]!;
    expect(item().plan?.stages?.map((s) => s.kind)).toEqual(line!.proposed.map((s) => s.kind));
    for (const stage of line!.proposed) m.component.toggleStage(item(), line!.proposed, stage);
    await until(() => item().plan?.stages?.length !== line!.proposed.length);
    expect(item().plan?.stages?.length).toBeGreaterThanOrEqual(1);
    m.component.setGoal(item(), 50);
    await until(() => item().goal === 50);
    expect(item().plan?.start).toBeLessThanOrEqual(50);
  });
});

describe('opening a lesson', () => {
  const says = async (m: { text(): string; fixture: { detectChanges(): void } }, words: string): Promise<void> =>
    until(() => {
      m.fixture.detectChanges();
      return m.text().includes(words);
    });
  it('new, the same, changed, older: each is said, and only what can be taken is', async () => {
    const { repo, db } = await place();
    const first = mount(OpenLessonComponent, { lesson: lesson() });
    await says(first, 'Nothing is kept until you press Take the lesson.');
    await first.component.take();
    expect(await db.phrases.count()).toBe(1);
    const same = mount(OpenLessonComponent, { lesson: lesson() });
    await says(same, 'You have this edition already.');
    expect(same.component.can()).toBe(false);
    const newer = mount(OpenLessonComponent, { lesson: lesson({ edition: 2, note: 'Louder.' }) });
    await says(newer, 'The note on all of it is another.');
    await newer.component.take();
    const older = mount(OpenLessonComponent, { lesson: lesson() });
    await says(older, 'You have a newer edition of this lesson (2)');
    expect((await repo.takenOf('les'))?.came.note).toBe('Louder.');
  });
});

describe('what was taken', () => {
  it('has a report that is told before it is written, and questions that can be removed', async () => {
    const { repo, db } = await place();
    await repo.take(lesson(), new Set());
    await until(() => repo.taken().length === 1);
    const [row] = repo.taken();
    const own = row!.phrases[0]!.phrase;
    expect(TestBed.inject(LessonWords).of(own)?.item.note).toBe('Low.');
    await log(db, attemptOf('1', own, { at: row!.since + 1, seconds: 90 }));
    const m = mount(TakenComponent, { taken: row! });
    await m.component.ask('i-a', '  Which hand? ');
    await until(() => repo.taken()[0]!.questions.length === 1);
    m.fixture.componentRef.setInput('taken', repo.taken()[0]!);
    m.component.writing.set(true);
    await until(() => {
      m.fixture.detectChanges();
      return m.text().includes('1 phrase of this lesson with 1 try, 1 question and your name as typed.');
    });
    await m.component.takeBack(repo.taken()[0]!.questions[0]!.id);
    await until(() => repo.taken()[0]!.questions.length === 0);
  });
});

describe('reports', () => {
  it('of a lesson that was never given is refused; of one that was it stands beside the others', async () => {
    const { repo } = await place();
    const report = {
      format: 'loop-shelf-report' as const,
      version: 1 as const,
      lesson: 'les',
      edition: 1,
      pupil: 'p',
      from: 'Ilse',
      made: 5,
      since: 1,
      items: [],
      questions: [{ id: 'q', item: null, words: 'Why?' }],
    };
    const m = mount(CameReportComponent, { report });
    await until(() => {
      m.fixture.detectChanges();
      return m.text().includes('a lesson that you did not give');
    });
    await repo.keep(given({ edition: 1 }));
    await until(() => {
      m.fixture.detectChanges();
      return m.text().includes('Of “Week one”');
    });
    await m.component.keep();
    const reports = await firstValueFrom(repo.reports$().pipe(filter((all) => all.length === 1)));
    const beside = mount(BesideComponent, { given: repo.given()[0]!, reports });
    expect(beside.text()).toContain('Ilse');
    expect(beside.text()).toContain('Not in this report yet.');
    beside.component.answer('q', ' So. ');
    await until(() => repo.given()[0]!.answers.length === 1);
    expect(repo.given()[0]!.answers).toEqual([{ question: 'q', words: 'So.' }]);
  });
});
