import { TestBed } from '@angular/core/testing';
import { givenRow, type GivenLesson, type Lesson, type Report } from '@core/lesson';
import { reportOf } from '@core/teaching';
import { attemptOf, phraseOf, typed } from '../testing/fixtures';
import { clearShelf, log } from '../testing/shelf';
import { freshTestBed } from '../testing/test-bed';
import { Database } from './database';
import { LessonsRepo } from './lessons.repo';

async function lessons() {
  freshTestBed();
  const { db, ready } = TestBed.inject(Database);
  await ready;
  await clearShelf(db);
  return { db, repo: TestBed.inject(LessonsRepo) };
}

const givenOf = (phrases: readonly string[]): GivenLesson => ({
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
  items: phrases.map((p) => ({ id: `i-${p}`, phrase: p, goal: 100, note: '', plan: null, stageNotes: [] })),
  answers: [],
});

/** A lesson of two phrases, as it left another shelf. */
async function sent(repo: LessonsRepo, db: Database['db']): Promise<Lesson> {
  await db.phrases.bulkPut([phraseOf('a', { name: 'Rope' }), phraseOf('b', { name: 'Anchor' })]);
  await repo.keep(givenOf(['a', 'b']));
  const lesson = await repo.send('les');
  await db.phrases.clear();
  return lesson!;
}

describe('lessons that are given', () => {
  it('leave with the next number each time, and remember that', async () => {
    const { db, repo } = await lessons();
    const first = await sent(repo, db);
    expect([first.edition, first.items.map((i) => i.phrase.name)]).toEqual([1, ['Rope', 'Anchor']]);
    await db.phrases.put(phraseOf('b', { name: 'Anchor' }));
    const second = await repo.send('les');
    // What is the same is no new edition.
    expect(await repo.send('les')).toEqual(second);
    expect([second?.edition, second?.items.length, (await repo.givenOf('les'))?.edition]).toEqual([2, 1, 2]);
    await db.phrases.clear();
    expect([await repo.send('les'), (await repo.givenOf('les'))?.edition]).toEqual([null, 2]);
  });
  it('are changed and dropped, each with its way back', async () => {
    const { db, repo } = await lessons();
    await repo.keep(givenOf(['a']));
    const undo = await repo.changeGiven('les', (row) => ({ ...row, title: 'Week two' }));
    expect(await repo.givenOf('les')).toMatchObject({ title: 'Week two' });
    await undo?.();
    expect(await repo.givenOf('les')).toMatchObject({ title: 'Week one' });
    const back = await repo.drop(givenRow('les'));
    expect([await repo.givenOf('les'), await db.lessons.count()]).toEqual([null, 1]);
    await back?.();
    expect(await repo.givenOf('les')).toMatchObject({ title: 'Week one' });
  });
});

describe('a lesson that is taken', () => {
  it('is phrases, a board and what is remembered of it; one undo takes all of it back', async () => {
    const { db, repo } = await lessons();
    const lesson = await sent(repo, db);
    const took = await repo.take(lesson, new Set());
    if (took.kind !== 'taken') throw new Error(took.kind);
    const row = await repo.takenOf('les');
    const board = await db.boards.get(row?.board ?? '');
    expect([await db.phrases.count(), board?.name, board?.phrases]).toEqual([
      2,
      'Week one',
      row?.phrases.map((p) => p.phrase),
    ]);
    expect(await took.undo()).toEqual({ stays: 0 });
    expect([
      await db.phrases.count(),
      (await db.boards.get(board!.id))?.dropped,
      (await repo.takenOf('les'))?.dropped,
    ]).toEqual([0, true, true]);
    // Taken again it is all there again, under the same ids.
    await repo.take(lesson, new Set());
    expect([await db.phrases.count(), (await repo.takenOf('les'))?.dropped]).toEqual([2, undefined]);
    expect((await db.boards.toArray()).filter((b) => !b.dropped)).toHaveLength(1);
  });
  it('what was played or changed since stays when it is taken back', async () => {
    const { db, repo } = await lessons();
    const took = await repo.take(await sent(repo, db), new Set());
    if (took.kind !== 'taken') throw new Error(took.kind);
    const [first] = (await repo.takenOf('les'))!.phrases;
    await log(db, attemptOf('1', first!.phrase));
    expect(await took.undo()).toEqual({ stays: 1 });
    expect(await db.phrases.toCollection().primaryKeys()).toEqual([first!.phrase]);
  });
  it('never writes over a phrase that lies under the id it would have had', async () => {
    const { db, repo } = await lessons();
    const lesson = await sent(repo, db);
    await repo.take(lesson, new Set());
    const [first] = (await repo.takenOf('les'))!.phrases;
    await clearShelf(db);
    await db.phrases.put(phraseOf(first!.phrase, { name: 'Mine' }));
    await repo.take(lesson, new Set());
    expect(await db.phrases.get(first!.phrase)).toMatchObject({ name: 'Mine' });
    expect(await db.phrases.count()).toBe(3);
  });
  it('a newer edition keeps what was there under Earlier versions; an older one changes nothing', async () => {
    const { db, repo } = await lessons();
    const lesson = await sent(repo, db);
    await repo.take(lesson, new Set());
    const [item] = lesson.items;
    const next: Lesson = {
      ...lesson,
      edition: 2,
      items: [{ ...item!, phrase: { ...item!.phrase, recipe: typed('R R L L') } }],
    };
    await repo.take(next, new Set());
    const row = (await repo.takenOf('les'))!;
    const id = row.phrases[0]!.phrase;
    expect([(await db.phrases.get(id))?.recipe, (await db.states.where('phrase').equals(id).toArray()).length]).toEqual(
      [typed('R R L L'), 1],
    );
    // The phrase that was left out stays on the shelf, off the board.
    expect([await db.phrases.count(), (await db.boards.get(row.board!))?.phrases]).toEqual([2, [id]]);
    expect(await repo.take(lesson, new Set())).toEqual({ kind: 'older' });
    expect((await repo.takenOf('les'))?.came.edition).toBe(2);
  });
});

describe('reports', () => {
  it('one of each pupil, the later in place of the earlier', async () => {
    const { db, repo } = await lessons();
    await repo.take(await sent(repo, db), new Set());
    const row = (await repo.takenOf('les'))!;
    const report = (made: number): Report => reportOf(row, new Map(), [], made);
    expect(await repo.keepReport(report(500))).toBeInstanceOf(Function);
    expect(await repo.keepReport(report(400))).toBe('older');
    await repo.keepReport(report(600));
    const rows = (await db.lessons.toArray()).filter((r) => r.kind === 'report');
    expect(rows.map((r) => r.kind === 'report' && r.report.made)).toEqual([600]);
    expect(await db.tries.count()).toBe(0);
  });
});
