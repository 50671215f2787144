import { computed, inject, Injectable } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Observable } from 'rxjs';
import { checksumOf, moment, stableJson } from '@core/base';
import type { Attempt } from '@core/drill';
import {
  givenRow,
  isNewer,
  keptLessons,
  LESSON_LIMITS,
  reportRow,
  takenBefore,
  takenRow,
  type GivenLesson,
  type KeptLesson,
  type KeptReport,
  type Lesson,
  type Report,
  type TakenLesson,
} from '@core/lesson';
import { editionSum, lessonBoard, nextEdition, takeLesson } from '@core/teaching';
import type { Phrase } from '@core/recipe';
import { BOARD_LIMITS, SHELF_LIMITS, type Board } from '@core/shelf';
import { now } from '../environment/clock';
import { freshUuid } from '../environment/ids';
import { Database } from './database';
import { PhrasesRepo } from './phrases.repo';
import { pagesRange } from './tries';

type Undo = () => Promise<boolean>;

/** How the ids of reports begin. */
const REPORTS = 'report:';
/** So many reports are read in one task. */
const AT_ONCE = 12;
const stands = (row: KeptLesson): boolean => row.dropped !== true;
const byNewest = (a: KeptLesson, b: KeptLesson): number => b.changed - a.changed || (a.id < b.id ? -1 : 1);

/** What came of taking a lesson; `stays` counts what could not be taken back later, as it was changed or played. */
export type Took =
  | { readonly kind: 'taken'; readonly row: string; readonly undo: () => Promise<{ readonly stays: number } | null> }
  | { readonly kind: 'full' | 'older' | 'failed' };

/** Lessons that are given, lessons that were taken, and reports. */
@Injectable({ providedIn: 'root' })
export class LessonsRepo {
  private readonly database = inject(Database);
  private readonly phrases = inject(PhrasesRepo);
  /** Lessons that are given and that were taken; null until they are read. */
  readonly all = toSignal(
    this.database.live<readonly KeptLesson[] | null>([], async () => {
      const { lessons } = this.database.db;
      const begun = [givenRow(''), takenRow('')].map((id) => lessons.where('id').startsWith(id).toArray());
      return (await Promise.all(begun)).flat().filter(stands).sort(byNewest);
    }),
    { initialValue: null },
  );
  readonly given = computed(() => (this.all() ?? []).filter((r): r is GivenLesson => r.kind === 'given'));
  readonly taken = computed(() => (this.all() ?? []).filter((r): r is TakenLesson => r.kind === 'taken'));

  /** Every report, followed. Each holds many tries: they are read some at a time, so that the page goes on. */
  reports$(): Observable<readonly KeptReport[]> {
    return this.database.live<readonly KeptReport[]>([], async () => {
      const { lessons } = this.database.db;
      const ids = await lessons.where('id').startsWith(REPORTS).primaryKeys();
      const found: (KeptLesson | undefined)[] = [];
      for (let at = 0; at < ids.length; at += AT_ONCE)
        found.push(...(await lessons.bulkGet(ids.slice(at, at + AT_ONCE))));
      return found.filter((r): r is KeptReport => r?.kind === 'report' && stands(r)).sort(byNewest);
    });
  }

  async takenOf(lesson: string): Promise<TakenLesson | null> {
    const row = await this.row(takenRow(lesson));
    return row?.kind === 'taken' ? row : null;
  }

  async givenOf(lesson: string): Promise<GivenLesson | null> {
    const row = await this.row(givenRow(lesson));
    return row?.kind === 'given' && !row.dropped ? row : null;
  }

  private row(id: string): Promise<KeptLesson | undefined> {
    return this.database.read<KeptLesson | undefined>(undefined, () => this.database.db.lessons.get(id));
  }

  /** The phrases that a taken lesson became and that are on the shelf, by their ids. */
  async shelfOf(taken: TakenLesson | null): Promise<ReadonlyMap<string, Phrase>> {
    const found = await this.phrases.some((taken?.phrases ?? []).map((p) => p.phrase));
    return new Map(found.map((p) => [p.id, p]));
  }

  /** Every try of the phrases that a taken lesson became. */
  triesOf(taken: TakenLesson): Promise<readonly Attempt[]> {
    const { db } = this.database;
    return this.database.read<readonly Attempt[]>([], async () => {
      const pages = await Promise.all(taken.phrases.map(({ phrase }) => pagesRange(db, phrase).toArray()));
      return pages.flat().flatMap((page) => page.tries);
    });
  }

  /** A new row, or one in place of another. Null when there are as many as a shelf holds, or it could not be kept. */
  async keep(row: KeptLesson): Promise<Undo | null> {
    const { db } = this.database;
    const done: { was?: KeptLesson | undefined; full: boolean } = { full: false };
    const well = await this.database.write(async () => {
      const all = (await db.lessons.toArray()).filter((r) => r.id !== row.id);
      done.full = all.filter((r) => !r.dropped).length >= LESSON_LIMITS.kept;
      if (done.full) return;
      done.was = await db.lessons.get(row.id);
      // Of rows that were dropped only so many are remembered as there is room for.
      const stay = new Set(keptLessons(all, 1).map((r) => r.id));
      await db.lessons.bulkDelete(all.filter((r) => !stay.has(r.id)).map((r) => r.id));
      await db.lessons.put({ ...row, changed: moment(now(), done.was?.changed ?? -1) });
    });
    if (!well || done.full) return null;
    const { was } = done;
    return async () => (was ? this.put(was) : (await this.drop(row.id)) !== null);
  }

  /** Changes a lesson that is given, as it stands in storage. */
  changeGiven(lesson: string, how: (row: GivenLesson) => GivenLesson): Promise<Undo | null> {
    return this.change(givenRow(lesson), (r) => (r.kind === 'given' ? how(r) : r));
  }

  /** Changes what a pupil has with a lesson, as it stands in storage. */
  changeTaken(lesson: string, how: (row: TakenLesson) => TakenLesson): Promise<Undo | null> {
    return this.change(takenRow(lesson), (r) => (r.kind === 'taken' ? how(r) : r));
  }

  /** Drops a lesson or a report; its phrases stay on the shelf. */
  drop(row: string): Promise<Undo | null> {
    return this.change(row, (r) => ({ ...r, dropped: true }));
  }

  private async change(id: string, how: (row: KeptLesson) => KeptLesson): Promise<Undo | null> {
    const { db } = this.database;
    const done: { was?: KeptLesson } = {};
    const well = await this.database.write(async () => {
      const was = await db.lessons.get(id);
      if (!was) return;
      const next = how(was);
      if (stableJson(next) === stableJson(was)) return;
      await db.lessons.put({ ...next, id, changed: moment(now(), was.changed) });
      done.was = was;
    }, `lesson ${id}`);
    const { was } = done;
    return well && was ? () => this.put(was) : null;
  }

  private put(was: KeptLesson): Promise<boolean> {
    const { db } = this.database;
    return this.database.write(async () => {
      const stands = await db.lessons.get(was.id);
      await db.lessons.put({ ...was, changed: moment(now(), stands?.changed ?? was.changed) });
    });
  }

  /**
   * The next edition of a lesson that is given; that it left is remembered. Where nothing is different since the last,
   * it is that one again. Null where none of its phrases is on the shelf, or it could not be kept.
   */
  async send(lesson: string): Promise<Lesson | null> {
    const { db } = this.database;
    const made: { lesson?: Lesson | null } = {};
    const well = await this.database.write(async () => {
      const row = await db.lessons.get(givenRow(lesson));
      if (row?.kind !== 'given') return;
      const found = (await db.phrases.bulkGet(row.items.map((i) => i.phrase))).filter((p) => p !== undefined);
      made.lesson = nextEdition(row, new Map(found.map((p) => [p.id, p])), moment(now(), row.made ?? -1));
      if (!made.lesson) return;
      const sent = editionSum(made.lesson);
      if (row.sent === sent && row.made !== null) {
        made.lesson = { ...made.lesson, edition: row.edition, made: row.made };
        return;
      }
      const { edition, made: at } = made.lesson;
      const left: GivenLesson = { ...row, edition, made: at, sent, changed: moment(now(), row.changed) };
      await db.lessons.put(left);
    });
    return well ? (made.lesson ?? null) : null;
  }

  /**
   * Takes a lesson: its phrases, its board and what is remembered of it, in one transaction. An edition that is older
   * than the one that was taken changes nothing.
   */
  async take(lesson: Lesson, theirs: ReadonlySet<string>): Promise<Took> {
    const { db } = this.database;
    const done: {
      kind: 'taken' | 'full' | 'older';
      phrases: { was: Phrase | null; now: Phrase }[];
      board?: { was: Board | undefined; now: Board };
      row?: { was: KeptLesson | undefined; now: TakenLesson };
    } = { kind: 'taken', phrases: [] };
    const well = await this.database.write(async () => {
      const stands = await db.lessons.get(takenRow(lesson.id));
      const had = stands?.kind === 'taken' ? stands : null;
      if (had && !had.dropped && isNewer(had.came, lesson)) return void (done.kind = 'older');
      const ids = (had?.phrases ?? []).map((p) => p.phrase);
      const shelf = new Map((await db.phrases.bulkGet(ids)).flatMap((p) => (p ? [[p.id, p]] : [])));
      const fresh = await this.freeIds(lesson);
      const at = moment(now(), stands?.changed ?? -1);
      const before = takenBefore(had, shelf);
      const taken = takeLesson(before, lesson, shelf, {
        theirs,
        at,
        pupil: freshUuid(),
        idOf: (item) => fresh.get(item) ?? freshUuid(),
      });
      const more = taken.phrases.filter((p) => !shelf.has(p.id)).length;
      if ((await db.phrases.count()) + more > SHELF_LIMITS.phrases) return void (done.kind = 'full');
      for (const phrase of taken.phrases) {
        const was = shelf.get(phrase.id) ?? null;
        const removal = await db.removals.get(phrase.id);
        const kept = { ...phrase, changed: moment(at, Math.max(was?.changed ?? -1, removal?.at ?? -1)) };
        await this.phrases.put(kept, was);
        shelf.set(kept.id, kept);
        done.phrases.push({ was, now: kept });
      }
      const board = await this.putBoard(before, taken.row, new Set(shelf.keys()));
      if (board) done.board = board;
      const row = { ...taken.row, changed: at, board: board?.now.id ?? taken.row.board };
      await db.lessons.put(row);
      done.row = { was: stands, now: row };
    });
    if (!well) return { kind: 'failed' };
    if (done.kind !== 'taken' || !done.row) return { kind: done.kind === 'taken' ? 'failed' : done.kind };
    const { row, phrases, board } = done;
    return { kind: 'taken', row: row.now.id, undo: () => this.takeBack(row, phrases, board) };
  }

  /**
   * Ids for phrases that come new: the same on each device of the pupil, so that two shelves that took one lesson have
   * one of each. One that lies on the shelf already is not touched: then the phrase gets an id of its own.
   */
  private async freeIds(lesson: Lesson): Promise<ReadonlyMap<string, string>> {
    const { db } = this.database;
    const free = new Map<string, string>();
    for (const { id } of lesson.items) {
      const wanted = `lesson-${checksumOf(`${lesson.id} ${id}`)}`;
      free.set(id, (await db.phrases.get(wanted)) ? freshUuid() : wanted);
    }
    return free;
  }

  private async putBoard(
    before: TakenLesson | null,
    row: TakenLesson,
    shelf: ReadonlySet<string>,
  ): Promise<{ was: Board | undefined; now: Board } | null> {
    const { db } = this.database;
    const was = row.board === null ? undefined : await db.boards.get(row.board);
    // A board that the pupil deleted stays away.
    if (before && was?.dropped) return null;
    const all = (await db.boards.toArray()).filter((b) => !b.dropped);
    if (!was && all.length >= BOARD_LIMITS.boards) return null;
    const name =
      before && was && was.name !== before.came.title.slice(0, BOARD_LIMITS.letters) ? was.name : row.came.title;
    const board: Board = {
      id: row.board ?? `board-${checksumOf(row.came.id)}`,
      question: null,
      place: was?.place ?? Math.max(0, ...all.map((b) => b.place)) + 1,
      name: name.slice(0, BOARD_LIMITS.letters),
      phrases: [...lessonBoard(before, row, was?.phrases ?? [], shelf)],
      changed: moment(now(), was?.changed ?? -1),
    };
    await db.boards.put(board);
    return { was, now: board };
  }

  private async takeBack(
    row: { was: KeptLesson | undefined; now: TakenLesson },
    phrases: readonly { was: Phrase | null; now: Phrase }[],
    board: { was: Board | undefined; now: Board } | undefined,
  ): Promise<{ readonly stays: number } | null> {
    const { db } = this.database;
    const done = { stays: 0 };
    const well = await this.database.write(async () => {
      for (const p of phrases) if (!(await this.phrases.backTo(p.now, p.was))) done.stays++;
      const stands = board && (await db.boards.get(board.now.id));
      if (board && stands && stableJson(stands) === stableJson(board.now))
        await db.boards.put({
          ...(board.was ?? { ...board.now, dropped: true }),
          changed: moment(now(), stands.changed),
        });
      await db.lessons.put({ ...(row.was ?? { ...row.now, dropped: true }), changed: moment(now(), row.now.changed) });
    });
    return well ? done : null;
  }

  /** A report is put beside the others. A later one of the same pupil takes the place of the one before. */
  async keepReport(report: Report): Promise<Undo | 'older' | null> {
    const id = reportRow(report);
    const stands = await this.row(id);
    if (stands?.kind === 'report' && !stands.dropped && stands.report.made > report.made) return 'older';
    return this.keep({ id, kind: 'report', changed: now(), report });
  }
}
