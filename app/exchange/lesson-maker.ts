import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import { givenRow, LESSON_LIMITS, type GivenItem, type GivenLesson } from '@core/lesson';
import type { Phrase } from '@core/recipe';
import { NoticesService } from '../common/notices.service';
import { now } from '../environment/clock';
import { freshUuid } from '../environment/ids';
import { LessonsRepo } from '../storage/lessons.repo';
import { PhrasesRepo } from '../storage/phrases.repo';

/** Makes a lesson of phrases of the shelf, and opens it. */
@Injectable({ providedIn: 'root' })
export class LessonMaker {
  private readonly lessons = inject(LessonsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly notices = inject(NoticesService);
  private readonly router = inject(Router);

  /** A new lesson with these phrases in their order; what is beyond its room is said. */
  async make(title: string, ids: readonly string[]): Promise<void> {
    const found = await this.found(ids);
    const lesson = freshUuid();
    const row: GivenLesson = {
      id: givenRow(lesson),
      kind: 'given',
      lesson,
      changed: now(),
      edition: 0,
      made: null,
      title: title.trim().slice(0, LESSON_LIMITS.letters) || 'Lesson',
      // Who gave the last one gives this one too.
      from: this.lessons.given()[0]?.from ?? '',
      note: '',
      due: null,
      items: found.slice(0, LESSON_LIMITS.items).map(itemOf),
      answers: [],
    };
    if (!(await this.lessons.keep(row))) return this.notices.wrong('There are too many lessons. Delete one first.');
    this.tellRest(found.length);
    void this.router.navigate(['/lessons'], { queryParams: { give: lesson } });
  }

  /** Phrases more for a lesson; those that are in it already stay as they are. */
  async add(lesson: string, ids: readonly string[]): Promise<void> {
    const found = await this.found(ids);
    let many = 0;
    await this.lessons.changeGiven(lesson, (row) => {
      const had = new Set(row.items.map((i) => i.phrase));
      const items = [...row.items, ...found.filter((p) => !had.has(p.id)).map(itemOf)];
      many = items.length;
      return { ...row, items: items.slice(0, LESSON_LIMITS.items) };
    });
    this.tellRest(many);
    void this.router.navigate(['/lessons'], { queryParams: { give: lesson } });
  }

  private async found(ids: readonly string[]): Promise<readonly Phrase[]> {
    const found = new Map((await this.phrases.some(ids)).map((p) => [p.id, p]));
    return [...new Set(ids)].flatMap((id) => found.get(id) ?? []);
  }

  private tellRest(many: number): void {
    if (many > LESSON_LIMITS.items)
      this.notices.tell(
        `A lesson holds ${LESSON_LIMITS.items} phrases. The other ${many - LESSON_LIMITS.items} are left out.`,
      );
  }
}

function itemOf({ id, goal }: Phrase): GivenItem {
  return { id: freshUuid(), phrase: id, goal, note: '', plan: null, stageNotes: [] };
}
