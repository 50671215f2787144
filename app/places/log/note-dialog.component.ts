import { ChangeDetectionStrategy, Component, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Dialog } from 'primeng/dialog';
import { DialogFocusDirective } from '../../widgets/dialog-focus.directive';

/** The player's own words about a try. */
@Component({
  selector: 'ls-note-dialog',
  imports: [Dialog, DialogFocusDirective, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="A note on this try"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [style]="{ width: '26rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      <form (submit)="$event.preventDefault(); said.emit(words().trim())">
        <label class="field"
          >Your note
          <textarea
            class="input"
            rows="3"
            name="words"
            maxlength="500"
            [ngModel]="words()"
            (ngModelChange)="words.set($event)"
          ></textarea>
        </label>
        <div class="row">
          <button type="button" class="btn" (click)="closed.emit()">Not now</button>
          <button type="submit" class="btn primary">Keep the note</button>
        </div>
      </form>
    </p-dialog>
  `,
  styles: `
    form {
      display: flex;
      flex-direction: column;
      gap: 12px;
    }
    .row {
      display: flex;
      justify-content: flex-end;
      gap: 6px;
    }
  `,
})
export class NoteDialogComponent {
  readonly note = input.required<string>();
  readonly said = output<string>();
  readonly closed = output();
  readonly words = linkedSignal(() => this.note());
}
