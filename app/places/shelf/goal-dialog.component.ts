import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Dialog } from 'primeng/dialog';
import { count } from '@core/base';
import type { GoalDay } from '@core/recipe';
import { isoDay, practiceDayOf, today } from '../../environment/clock';
import { ChipsComponent } from '../../widgets/chips.component';
import type { Choice } from '../../widgets/choice';
import { DialogFocusDirective } from '../../widgets/dialog-focus.directive';
import { TempoFieldComponent } from '../../widgets/tempo-field.component';

/** Whose goal is asked about: of one phrase its tempo too. */
export interface Wanted {
  readonly ids: readonly string[];
  readonly goal: number | null;
  readonly by: GoalDay | null;
}

const WHAT: readonly Choice<GoalDay['what']>[] = [
  { value: 'night', words: 'the show' },
  { value: 'lesson', words: 'a lesson' },
  { value: 'recording', words: 'a recording' },
  { value: 'day', words: 'just a date' },
];

/** By when goals are wanted, and for what. */
@Component({
  selector: 'ls-goal-dialog',
  imports: [ChipsComponent, Dialog, DialogFocusDirective, FormsModule, TempoFieldComponent],
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
        @if (goal() !== null) {
          <div class="field">
            Goal in bpm <ls-tempo-field label="Goal tempo" [bpm]="goal()!" (bpmChange)="goal.set($event)" />
          </div>
        }
        <label class="field"
          >Needed by
          <input class="input" type="date" name="day" min="1970-01-01" max="2199-12-31" [(ngModel)]="date" />
        </label>
        @if (day() !== null) {
          <div class="field">
            For <ls-chips label="For" [chips]="what" [chosen]="forWhat()" (chose)="forWhat.set($event)" />
          </div>
          <p class="quiet" role="status">{{ told() }}</p>
        } @else {
          <p class="quiet">No date: no hurry.</p>
        }
        <div class="row">
          @if (asked().by) {
            <button type="button" class="btn plain" (click)="date.set(''); say()">No date</button>
          }
          <button type="button" class="btn" (click)="closed.emit()">Not now</button>
          <button type="submit" class="btn primary">Set goal</button>
        </div>
      </form>
    </p-dialog>
  `,
  styles: `
    form {
      display: flex;
      flex-direction: column;
      gap: 14px;
    }
    .row {
      display: flex;
      justify-content: flex-end;
      gap: 6px;
    }
  `,
})
export class GoalDialogComponent {
  readonly asked = input.required<Wanted>();
  readonly said = output<{ readonly goal: number | null; readonly by: GoalDay | null }>();
  readonly closed = output();
  readonly what = WHAT;
  private readonly goalField = viewChild(TempoFieldComponent);
  readonly goal = linkedSignal(() => this.asked().goal);
  readonly date = linkedSignal(() => {
    const { by } = this.asked();
    return by ? isoDay(by.day) : '';
  });
  readonly forWhat = linkedSignal(() => this.asked().by?.what ?? 'night');
  readonly day = computed(() => practiceDayOf(this.date()));
  readonly title = computed(() =>
    this.asked().ids.length === 1 ? 'Goal and date' : `A date for ${count(this.asked().ids.length, 'phrase')}`,
  );
  readonly told = computed(() => {
    const day = this.day();
    if (day === null) return '';
    const left = day - today();
    if (left < 0) return `That date is past, so it does not count.`;
    return left === 0 ? 'That is today.' : `${count(left, 'day')} from today.`;
  });

  say(): void {
    this.goalField()?.commit();
    const day = this.day();
    this.said.emit({ goal: this.goal(), by: day === null ? null : { day, what: this.forWhat() } });
  }
}
