import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  resource,
  signal,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Dialog } from 'primeng/dialog';
import { FAMILIES, guessFamily, NAME_LETTERS, type Family } from '@core/recipe';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { DialogFocusDirective } from '../../../widgets/dialog-focus.directive';
import { ChipsComponent } from '../../../widgets/chips.component';
import { choicesOf } from '../../../widgets/choice';
import { TempoFieldComponent } from '../../../widgets/tempo-field.component';
import { BenchStore, type Label } from './bench.store';

/** What a phrase is called, what it is, where it should get to, and when to use it. */
@Component({
  selector: 'ls-keep-dialog',
  imports: [ChipsComponent, Dialog, DialogFocusDirective, FormsModule, TempoFieldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      [header]="asNew() ? 'Keep as new' : 'Keep it'"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [style]="{ width: '28rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      <form (submit)="$event.preventDefault(); keep(asNew() || renames())">
        <label class="field"
          >Name
          <input
            class="input"
            type="text"
            name="name"
            [placeholder]="suggested"
            [maxLength]="letters"
            [ngModel]="name()"
            (ngModelChange)="name.set($event)"
          />
        </label>
        <div class="field">
          Family
          <ls-chips label="Family" [chips]="families" [chosen]="family()" (chose)="family.set($event)" />
          @if (near(); as other) {
            <span class="quiet small" role="status">It could be a {{ other }} as well: choose what it is to you.</span>
          }
        </div>
        <div class="field">
          Goal in bpm <ls-tempo-field label="Goal tempo" [bpm]="goal()" (bpmChange)="goal.set($event)" />
          @if (store.top(); as top) {
            @if (goal() > top && (asNew() || !old)) {
              <span class="quiet small" role="status">That is above your ceiling of {{ top }}.</span>
            }
          }
        </div>
        <label class="field"
          >When to use it
          <textarea
            class="input"
            rows="3"
            name="note"
            [maxLength]="letters"
            [ngModel]="note()"
            (ngModelChange)="note.set($event)"
          ></textarea>
        </label>
        @if (twin()) {
          <p class="quiet" role="status">Another phrase has this name. You can keep both.</p>
        }
        @if (renames()) {
          <p role="status">
            It is on the shelf as “{{ old?.name?.slice(0, 60) }}”. Is this the same phrase renamed, or a new one?
          </p>
          <div class="row">
            <button type="button" class="btn" (click)="closed.emit()">Not now</button>
            <button type="button" class="btn" (click)="keep(false)">Rename it</button>
            <button type="submit" class="btn primary">Keep as new</button>
          </div>
        } @else {
          <div class="row">
            <button type="button" class="btn" (click)="closed.emit()">Not now</button>
            <button type="submit" class="btn primary">{{ asNew() ? 'Keep as new' : 'Keep it' }}</button>
          </div>
        }
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
      gap: 6px;
    }
    .row {
      justify-content: flex-end;
    }
  `,
})
export class KeepDialogComponent {
  readonly store = inject(BenchStore);
  readonly old = this.store.phrase();
  private readonly index = inject(ShelfIndex);
  private readonly goalField = viewChild(TempoFieldComponent);
  /** Whether it is to be a new phrase whatever it is called. */
  readonly asNew = input(false);
  /** The name that is proposed for a new one. */
  readonly proposed = input('');
  readonly kept = output<{ readonly label: Label; readonly asNew: boolean }>();
  readonly closed = output();
  readonly families = choicesOf(FAMILIES);
  readonly letters = NAME_LETTERS;
  /** The name of a phrase that gets none of its own. */
  readonly suggested = this.old?.name ?? this.store.suggestedName();
  readonly name = linkedSignal(() => (this.asNew() ? this.proposed() : this.suggested));
  /** A known phrase under another name: it is asked which is meant. */
  readonly renames = computed(() => !this.asNew() && this.old !== null && this.label().name !== this.old.name);
  private readonly called = resource({
    params: () => this.label().name,
    loader: ({ params }) => this.index.called(params),
  });
  /** Whether another phrase bears the name. */
  readonly twin = computed(() =>
    this.called.hasValue() ? this.called.value().some((id) => this.asNew() || id !== this.old?.id) : false,
  );
  private readonly usual = this.store.suggestedLabel();
  readonly family = signal<Family>(this.old?.family ?? this.usual.family);
  /** What a new phrase could be as well as what is proposed. */
  readonly near = computed(() => {
    const pattern = this.old ? null : this.store.stilled()?.pattern;
    return pattern ? guessFamily(pattern).near : null;
  });
  readonly goal = signal(this.old?.goal ?? this.usual.goal);
  readonly note = signal(this.old?.note ?? '');
  readonly label = computed<Label>(() => ({
    name: this.name().trim() || this.suggested,
    family: this.family(),
    goal: this.goal(),
    note: this.note(),
  }));

  keep(asNew: boolean): void {
    this.goalField()?.commit();
    this.kept.emit({ label: this.label(), asNew });
  }
}
