import { Injectable, signal } from '@angular/core';
import type { Lesson, Report } from '@core/lesson';

/** A lesson or a report that came in and waits to be looked at. */
export type CameIn =
  { readonly kind: 'lesson'; readonly lesson: Lesson } | { readonly kind: 'report'; readonly report: Report };

/** Hands what came in over to the place where lessons are. Nothing is kept before it is asked for there. */
@Injectable({ providedIn: 'root' })
export class LessonInbox {
  private readonly state = signal<CameIn | null>(null);
  readonly now = this.state.asReadonly();

  hand(came: CameIn): void {
    this.state.set(came);
  }

  letGo(): void {
    this.state.set(null);
  }
}
