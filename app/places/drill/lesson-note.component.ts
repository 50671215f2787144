import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { LessonWords } from '../../knowledge/lesson-words.service';
import { SubjectStore } from './subject.store';

/** What the teacher says of the phrase, and of the stage that is played. */
@Component({
  selector: 'ls-lesson-note',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (of(); as l) {
      <div class="note" role="note" aria-label="From the lesson">
        <a routerLink="/lessons" [queryParams]="{ take: l.lesson }" class="cut">{{ l.title }}</a>
        @if (stageNote(); as words) {
          <strong>{{ words }}</strong>
        }
        @if (l.item.note) {
          <span>{{ l.item.note }}</span>
        }
      </div>
    }
  `,
  styles: `
    .note {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 12px;
      max-height: 4.4em;
      margin: 0 28px 8px;
      padding: 4px 12px;
      overflow: auto;
      border-left: 4px solid var(--accent);
      overflow-wrap: anywhere;
    }
    a {
      max-width: 16em;
      color: var(--quiet);
    }
    @container place (max-width: 600px) {
      .note {
        margin-inline: 12px;
      }
    }
  `,
})
export class LessonNoteComponent {
  /** The stage that is played; null before any is. */
  readonly stage = input<string | null>(null);
  private readonly lessons = inject(LessonWords);
  private readonly subject = inject(SubjectStore);
  readonly of = computed(() => this.lessons.of(this.subject.phrase()?.id));
  readonly stageNote = computed(() => this.of()?.item.stageNotes.find((n) => n.stage === this.stage())?.words ?? '');
}
