import { inject, Injectable, Injector } from '@angular/core';
import { NoticesService } from '../common/notices.service';
import type { LessonMaker } from './lesson-maker';

/**
 * Makes a lesson of phrases of the shelf, from wherever they were chosen, and opens it. What does it is fetched when it
 * is asked for: no place waits for the code of lessons.
 */
@Injectable({ providedIn: 'root' })
export class MakeLesson {
  private readonly injector = inject(Injector);
  private readonly notices = inject(NoticesService);

  /** A new lesson with these phrases in their order; what is beyond its room is said. */
  async make(title: string, ids: readonly string[]): Promise<void> {
    await (await this.maker())?.make(title, ids);
  }

  /** Phrases more for a lesson; those that are in it already stay as they are. */
  async add(lesson: string, ids: readonly string[]): Promise<void> {
    await (await this.maker())?.add(lesson, ids);
  }

  private async maker(): Promise<LessonMaker | null> {
    try {
      return this.injector.get((await import('./lesson-maker')).LessonMaker);
    } catch {
      this.notices.wrong('Lessons could not be loaded. Nothing was changed. Try again.');
      return null;
    }
  }
}
