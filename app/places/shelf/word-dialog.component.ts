import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Dialog } from 'primeng/dialog';
import { count } from '@core/base';
import { BOARD_LIMITS } from '@core/shelf';
import { BoardsRepo } from '../../storage/boards.repo';
import { LessonsRepo } from '../../storage/lessons.repo';
import { DialogFocusDirective } from '../../widgets/dialog-focus.directive';

/** What one word or name is asked for. */
export type Wording =
  | { readonly kind: 'tag' | 'board' | 'new board' | 'lesson'; readonly ids: readonly string[] }
  | { readonly kind: 'question'; readonly ids: readonly string[]; readonly question: string }
  | { readonly kind: 'rename'; readonly ids: readonly string[]; readonly board: string; readonly name: string };

/** Asks for a tag, for a board's name, or which board or lesson. */
@Component({
  selector: 'ls-word-dialog',
  imports: [Dialog, DialogFocusDirective, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      [header]="title()"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [style]="{ width: '26rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      <form (submit)="$event.preventDefault(); say()">
        @if (asked().kind === 'board') {
          <div class="boards">
            @for (b of boards(); track b.id) {
              <button type="button" class="btn" (click)="said.emit({ words: '', board: b.id })">{{ b.name }}</button>
            }
          </div>
        }
        @if (asked().kind === 'lesson') {
          <div class="boards">
            @for (l of lessons(); track l.lesson) {
              <button type="button" class="btn" (click)="said.emit({ words: '', board: l.lesson })">
                {{ l.title }}
              </button>
            }
          </div>
        }
        <label class="field"
          >{{ label() }}
          <input
            class="input"
            type="text"
            name="words"
            autocomplete="off"
            [maxLength]="letters"
            [ngModel]="words()"
            (ngModelChange)="words.set($event)"
          />
        </label>
        <div class="row">
          <button type="button" class="btn" (click)="closed.emit()">Not now</button>
          <button type="submit" class="btn primary" [disabled]="words().trim() === ''">{{ does() }}</button>
        </div>
      </form>
    </p-dialog>
  `,
  styles: `
    form,
    .boards {
      display: flex;
      flex-direction: column;
      gap: 12px;
    }
    .boards {
      max-height: 40vh;
      overflow: auto;
      gap: 6px;
    }
    .row {
      display: flex;
      justify-content: flex-end;
      gap: 6px;
    }
  `,
})
export class WordDialogComponent {
  readonly asked = input.required<Wording>();
  /** The words, or the board or lesson that was chosen by its id. */
  readonly said = output<{ readonly words: string; readonly board: string | null }>();
  readonly closed = output();
  readonly letters = BOARD_LIMITS.letters;
  private readonly repo = inject(BoardsRepo);
  readonly boards = computed(() => (this.repo.all() ?? []).filter((b) => b.question === null));
  readonly lessons = inject(LessonsRepo).given;
  readonly words = linkedSignal(() => {
    const asked = this.asked();
    return asked.kind === 'rename'
      ? asked.name
      : asked.kind === 'question'
        ? asked.question.slice(0, BOARD_LIMITS.letters)
        : '';
  });
  readonly title = computed(() => {
    const { kind, ids } = this.asked();
    const many = count(ids.length, 'phrase');
    switch (kind) {
      case 'tag':
        return `Tag ${many}`;
      case 'board':
        return `Put ${many} on a board`;
      case 'lesson':
        return `Put ${many} in a lesson`;
      case 'new board':
        return 'A new board';
      case 'question':
        return 'Save the search as a board';
      case 'rename':
        return 'Rename the board';
    }
  });
  readonly label = computed(() => {
    switch (this.asked().kind) {
      case 'tag':
        return 'One word. If all of them have it, it is removed';
      case 'board':
        return 'Or a new board named';
      case 'lesson':
        return this.lessons().length > 0 ? 'Or a new lesson named' : 'Name of the lesson';
      case 'new board':
      case 'question':
      case 'rename':
        return 'Name of the board';
    }
  });
  readonly does = computed(() => {
    switch (this.asked().kind) {
      case 'tag':
        return 'Tag';
      case 'rename':
        return 'Rename';
      case 'lesson':
        return 'Make the lesson';
      case 'board':
      case 'new board':
      case 'question':
        return 'Make the board';
    }
  });

  say(): void {
    if (this.words().trim() !== '') this.said.emit({ words: this.words().trim(), board: null });
  }
}
