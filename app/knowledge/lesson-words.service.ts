import { computed, inject, Injectable } from '@angular/core';
import type { LessonItem } from '@core/lesson';
import { LessonsRepo } from '../storage/lessons.repo';

/** What a lesson says of one phrase of the shelf. */
export interface OfLesson {
  readonly lesson: string;
  readonly title: string;
  readonly from: string;
  readonly item: LessonItem;
}

/** Which lesson a phrase of the shelf came with, and what that says; of several the one taken last. */
@Injectable({ providedIn: 'root' })
export class LessonWords {
  private readonly repo = inject(LessonsRepo);
  private readonly byPhrase = computed((): ReadonlyMap<string, OfLesson> => {
    const found = new Map<string, OfLesson>();
    // The newest come first: what is found first stays.
    for (const { came, phrases } of this.repo.taken()) {
      const ids = new Map(phrases.map((p) => [p.item, p.phrase]));
      for (const item of came.items) {
        const id = ids.get(item.id);
        if (id !== undefined && !found.has(id))
          found.set(id, { lesson: came.id, title: came.title, from: came.from, item });
      }
    }
    return found;
  });

  of(phrase: string | undefined): OfLesson | null {
    return phrase === undefined ? null : (this.byPhrase().get(phrase) ?? null);
  }
}
