import { computed, inject, Injectable, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { group } from 'd3-array';
import { NoticesService } from '../../common/notices.service';
import { LessonsRepo } from '../../storage/lessons.repo';
import type { GivenItem, GivenLesson, KeptReport, TakenLesson } from '@core/lesson';

type Undo = () => Promise<boolean>;

/** The lesson that is looked at, and what is changed of it, each step with its way back. Provided by the place. */
@Injectable()
export class LessonsStore {
  private readonly repo = inject(LessonsRepo);
  private readonly notices = inject(NoticesService);
  private readonly undos = signal<readonly Undo[]>([]);
  readonly isRead = computed(() => this.repo.all() !== null);
  readonly given = this.repo.given;
  readonly taken = this.repo.taken;
  private readonly reports = toSignal(this.repo.reports$(), { initialValue: [] });
  private readonly reportsByLesson = computed(() => group(this.reports(), (r) => r.report.lesson));
  readonly canUndo = computed(() => this.undos().length > 0);

  givenOf(lesson: string): GivenLesson | null {
    return this.given().find((g) => g.lesson === lesson) ?? null;
  }

  takenOf(lesson: string): TakenLesson | null {
    return this.taken().find((t) => t.came.id === lesson) ?? null;
  }

  reportsOf(lesson: string): readonly KeptReport[] {
    return this.reportsByLesson().get(lesson) ?? [];
  }

  async setGiven(lesson: string, part: Partial<GivenLesson>): Promise<void> {
    this.did(await this.repo.changeGiven(lesson, (row) => ({ ...row, ...part })));
  }

  async setItem(lesson: string, id: string, part: Partial<GivenItem>): Promise<void> {
    this.did(
      await this.repo.changeGiven(lesson, (row) => ({
        ...row,
        items: row.items.map((i) => (i.id === id ? { ...i, ...part } : i)),
      })),
    );
  }

  async moveItem(lesson: string, from: number, to: number): Promise<void> {
    this.did(
      await this.repo.changeGiven(lesson, (row) => {
        const moved = row.items[from];
        if (!moved || to < 0 || to >= row.items.length) return row;
        return { ...row, items: row.items.toSpliced(from, 1).toSpliced(to, 0, moved) };
      }),
    );
  }

  async dropItem(lesson: string, id: string): Promise<void> {
    this.did(
      await this.repo.changeGiven(lesson, (row) => ({ ...row, items: row.items.filter((i) => i.id !== id) })),
      'It is out of the lesson, and still on your shelf.',
    );
  }

  async answer(lesson: string, question: string, words: string): Promise<void> {
    this.did(
      await this.repo.changeGiven(lesson, (row) => {
        const others = row.answers.filter((a) => a.question !== question);
        return { ...row, answers: words === '' ? others : [...others, { question, words }] };
      }),
    );
  }

  async setTaken(lesson: string, how: (row: TakenLesson) => TakenLesson): Promise<void> {
    this.did(await this.repo.changeTaken(lesson, how));
  }

  /** Drops a lesson or a report. Resolves to whether it is gone. */
  async drop(row: string, words: string): Promise<boolean> {
    const undo = await this.repo.drop(row);
    this.did(undo, words);
    return undo !== null;
  }

  async undo(): Promise<void> {
    const last = this.undos().at(-1);
    this.undos.update((all) => all.slice(0, -1));
    if (last && (await last())) this.notices.tell('It is as before.');
  }

  /** Remembers a step; with words it is told, with its way back beside it. */
  private did(undo: Undo | null, words: string | null = null): void {
    if (!undo) return;
    this.undos.update((all) => [...all, undo]);
    if (words !== null) this.notices.tell(words, { label: 'Undo', run: () => void this.undo() });
  }
}
